import type { Schemas } from '../api/client'

type Named = Schemas['Named']

const KINDS: Record<Named['kind'], string> = { VARIABLE: 'variable of', GLOBAL: 'global variable', TAG: 'tag', AXIS: 'axis', CONSTANT: 'constant', UNIT: 'unit', TYPE: 'type', MEMBER: 'member of', VALUE: 'value of' }

/** What a name is, and of what. */
export const kindOf = (named: Named) => `${KINDS[named.kind]} ${named.owner}`.trim()

/** Its value in a program that runs; empty where it has none that is told. */
export function valueOf(named: Named, values: { name: string; value: string }[]) {
  const names = [named.name, `${named.owner}.${named.name}`].map((n) => n.toLowerCase())
  return values.find((v) => names.includes(v.name.toLowerCase()))?.value ?? ''
}
