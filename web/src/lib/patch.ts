import { existsIn, immutableJSONPatch, parseJSONPointer, type JSONPatchOperation } from 'immutable-json-patch'
import { toRaw } from 'vue'
import type { Change } from '../api/client'

/**
 * Applies JSON Patch operations (RFC 6902) and returns a new document, which shares what has not changed; the old one stays as it is.
 * What is replaced or removed must be there (4.2, 4.3): the library would make it.
 */
export function patched<T>(document: T, changes: Change[]): T {
  return changes.reduce<T>((before, change) => {
    if (change.op !== 'add' && !existsIn(before, parseJSONPointer(change.path))) throw new Error(`There is no ${change.path}.`)
    return immutableJSONPatch(before, [change as JSONPatchOperation]) as T
  }, toRaw(document))
}
