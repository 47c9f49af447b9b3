import { foldService } from '@codemirror/language'
import type { Text } from '@codemirror/state'

/** Words that open what END_… closes. */
const OPENS = /^\s*(?:\d[\w#.,\s]*:\s*)?(PROGRAM|FUNCTION_BLOCK|FUNCTION|TYPE|VAR(?:_\w+)?|IF|CASE|FOR|WHILE|REPEAT)\b/i
const end = (word: string) => (/^VAR/i.test(word) ? 'END_VAR' : `END_${word.toUpperCase()}`)
/** Without comments and texts, in which the words mean nothing. */
const plain = (line: string) => line.replace(/\(\*.*?\*\)|\/\/.*$|'(?:\$.|[^'$])*'/g, '')
const count = (line: string, word: string) => (line.match(new RegExp(`(?<!\\w)${word}(?!\\w)`, 'gi')) ?? []).length

/** The lines that belong to what a line opens: from its end to the end of the line before END_…; null where it opens nothing. */
export function fold(doc: Text, line: number): { from: number; to: number } | null {
  const first = plain(doc.line(line).text)
  const word = OPENS.exec(first)?.[1]
  if (!word) return null
  const close = end(word)
  const open = /^VAR/i.test(word) ? 'VAR(?:_\\w+)?' : word
  let depth = count(first, open) - count(first, close)
  for (let n = line + 1; depth > 0 && n <= doc.lines; n++) {
    const text = plain(doc.line(n).text)
    depth += count(text, open) - count(text, close)
    if (depth <= 0) return n - 1 > line ? { from: doc.line(line).to, to: doc.line(n - 1).to } : null
  }
  return null
}

export const structuredTextFolding = foldService.of((state, start) => fold(state.doc, state.doc.lineAt(start).number))
