import { CompletionContext } from '@codemirror/autocomplete'
import { EditorState } from '@codemirror/state'
import { describe, expect, it } from 'vitest'
import { completionOf, type Known } from './completion'

const known: Known = {
  words: { keywords: ['IF', 'END_IF'], types: ['INT'], functions: ['LIMIT'], blocks: [{ name: 'TON', pins: [{ name: 'IN', type: 'BOOL', output: false }, { name: 'PT', type: 'TIME', output: false }, { name: 'Q', type: 'BOOL', output: true }] }],
    given: [{ kind: 'TYPE', name: 'MC_TP_REF', line: 1, type: '', members: [{ section: 'VAR', name: 'IsAbsolute', type: 'BOOL', line: 2 }] }], constants: ['mcAborting'] },
  outline: [
    { file: 'Types.st', items: [{ kind: 'TYPE', name: 'Step', line: 1, type: '', members: [{ section: 'VAR', name: 'Target', type: 'LREAL', line: 1 }, { section: 'VAR', name: 'Clock', type: 'TON', line: 1 }] }, { kind: 'TYPE', name: 'Movers', line: 2, type: 'ARRAY [1..4] OF Mover', members: [] }, { kind: 'TYPE', name: 'Cell', line: 3, type: '', members: [{ section: 'VAR', name: 'Drives', type: 'Movers', line: 3 }] },
      { kind: 'VAR_GLOBAL', name: '', line: 4, type: '', members: [{ section: 'VAR_GLOBAL', name: 'Cells', type: 'ARRAY [1..2] OF Cell', line: 4 }, { section: 'VAR_GLOBAL', name: 'Places', type: 'MC_TP_REF', line: 4 }] }] },
    { file: 'Main.st', items: [
      { kind: 'FUNCTION_BLOCK', name: 'Mover', line: 1, type: '', members: [{ section: 'VAR_INPUT', name: 'Go', type: 'BOOL', line: 2 }, { section: 'VAR', name: 'inner', type: 'INT', line: 2 }] },
      { kind: 'PROGRAM', name: 'Main', line: 3, type: '', members: [{ section: 'VAR', name: 'Steps', type: 'ARRAY [1..3] OF Step', line: 4 }, { section: 'VAR', name: 'Move1', type: 'Mover', line: 4 }] }] },
  ],
  axes: ['Shuttle'],
  tags: ['Shuttle.Cmd.Control', 'Door'],
  file: 'Main.st',
}
const labels = (text: string, line = 3) => {
  const doc = '\n'.repeat(line - 1) + text
  return completionOf(() => known)(new CompletionContext(EditorState.create({ doc }), doc.length, true))?.options.map((o) => o.label) ?? []
}

describe('proposals for Structured Text', () => {
  it('has variables of the unit, axes, tags, units and words', () => {
    expect(labels('S')).toEqual(expect.arrayContaining(['Steps', 'Move1', 'Move1(…)', 'Shuttle', 'Door', 'Mover', 'TON', 'LIMIT', 'IF']))
    expect(labels('i')).not.toContain('inner')
    expect(labels('i', 2)).toContain('inner')
  })
  it('has members of elements, structures, blocks and tags', () => {
    expect(labels('x := Steps[i].')).toEqual(['Target', 'Clock'])
    expect(labels('x := Steps[1].Clock.')).toEqual(['IN', 'PT', 'Q'])
    expect(labels('Move1.')).toEqual(['Go'])
    expect(labels('Shuttle.')).toEqual(['Cmd.Control'])
  })
  it('sees through names of types, arrays in arrays, and knows what every program has', () => {
    expect(labels('Cells[1].Drives[2].')).toEqual(['Go'])
    expect(labels('Places.')).toEqual(['IsAbsolute'])
    expect(labels('x : ')).toEqual(expect.arrayContaining(['MC_TP_REF', 'mcAborting']))
  })
  it('proposes nothing where it knows nothing', () => {
    expect(labels('nobody.')).toEqual([])
  })
})
