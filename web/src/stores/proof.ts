import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useMachine } from './machine'

/** Which verdict of the chosen proof's newest run is being looked at: the first that failed, unless the user chose another. */
export const useProof = defineStore('proof', () => {
  const machine = useMachine()
  const chosen = ref<number | null>(null)
  watch(() => machine.proofIndex, () => (chosen.value = null))
  const index = computed(() => {
    const verdicts = machine.run?.verdicts ?? []
    if (chosen.value !== null && chosen.value < verdicts.length) return chosen.value
    const failed = verdicts.findIndex((v) => !v.holds)
    return failed >= 0 ? failed : 0
  })
  const verdict = computed(() => machine.run?.verdicts[index.value] ?? null)
  return { chosen, index, verdict }
})
