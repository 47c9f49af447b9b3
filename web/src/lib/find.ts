/** A line with what was looked for. @param at where in the line it begins, from 0 */
export interface Hit {
  file: string
  line: number
  text: string
  at: number
}

export interface Wanted {
  text: string
  /** capitals count */
  exact: boolean
  /** not inside of other names */
  whole: boolean
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
const pattern = (w: Wanted) => new RegExp(w.whole ? `(?<![\\w])${escaped(w.text)}(?![\\w])` : escaped(w.text), w.exact ? 'g' : 'gi')

/** All places in the texts, in their order. */
export function hits(files: { name: string; source: string }[], wanted: Wanted): Hit[] {
  if (!wanted.text) return []
  const found: Hit[] = []
  for (const file of files) {
    file.source.split('\n').forEach((text, i) => {
      for (const match of text.matchAll(pattern(wanted))) found.push({ file: file.name, line: i + 1, text, at: match.index })
    })
  }
  return found
}

/** The texts with another one in its place. */
export function replaced<F extends { source: string }>(files: F[], wanted: Wanted, by: string): F[] {
  return wanted.text ? files.map((f) => ({ ...f, source: f.source.replace(pattern(wanted), () => by) })) : files
}
