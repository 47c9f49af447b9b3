import { shallowRef } from 'vue'
import { Problem, type EntryFault } from '../api/client'

/** A refused entry in one sentence, as it stands beside its field. */
export const refusalOf = (fault: Pick<EntryFault, 'value' | 'allowed' | 'mend'>) => `${fault.value || 'Nothing'} is refused. Allowed: ${fault.allowed}; ${fault.mend}.`

/** What went wrong in a part of the page, told there; anything else than a problem is a mistake of Rueda and goes on. */
export function useProblem() {
  const problem = shallowRef<Problem | null>(null)

  /** Does something that can be refused. @returns nothing when it was */
  async function tried<T>(work: () => Promise<T>): Promise<T | undefined> {
    problem.value = null
    try {
      return await work()
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      problem.value = error
      return undefined
    }
  }

  /** A file that is larger than what is taken is refused before it is sent. @param most MB */
  function tooLarge(file: File, most: number, mend: string): boolean {
    if (file.size <= most * 2 ** 20) return false
    problem.value = new Problem(0, 'File refused', `${file.name} has ${Math.round(file.size / 2 ** 20)} MB; allowed are up to ${most} MB. ${mend} Nothing of it was taken.`, [])
    return true
  }

  return { problem, tried, tooLarge }
}
