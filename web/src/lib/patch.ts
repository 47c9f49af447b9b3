import type { Change } from '../api/client'

/** Applies JSON Patch operations (RFC 6902: add, replace, remove) and returns a new document; the old one stays as it is. */
export function patched<T>(document: T, changes: Change[]): T {
  const copy = JSON.parse(JSON.stringify(document)) as T
  for (const change of changes) apply(copy, change)
  return copy
}

function apply(document: unknown, change: Change): void {
  const keys = change.path.split('/').slice(1).map((key) => key.replace(/~1/g, '/').replace(/~0/g, '~'))
  const last = keys.pop()
  if (last === undefined) throw new Error('The whole document cannot be replaced.')
  let parent = document as Record<string, unknown> | unknown[]
  for (const key of keys) {
    const next = (parent as Record<string, unknown>)[key]
    if (next === null || typeof next !== 'object') throw new Error(`There is no ${change.path}.`)
    parent = next as Record<string, unknown>
  }
  if (Array.isArray(parent)) {
    const at = last === '-' ? parent.length : Number(last)
    if (change.op === 'add') parent.splice(at, 0, change.value)
    else if (change.op === 'remove') parent.splice(at, 1)
    else parent[at] = change.value
  } else if (change.op === 'remove') {
    delete parent[last]
  } else {
    parent[last] = change.value
  }
}
