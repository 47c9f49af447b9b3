import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from './machine'

/** What the sentences of the chosen proof may name, and what is wrong with them: asked while somebody looks at them. */
export const useSentences = defineStore('sentences', () => {
  const machine = useMachine()
  const looked = ref(0)
  const answer = shallowRef<Schemas['SentencesAnswer'] | null>(null)
  const signals = computed(() => answer.value?.signals ?? [])
  const bits = computed(() => signals.value.filter((s) => s.bit).map((s) => s.name))
  const numbers = computed(() => signals.value.filter((s) => !s.bit).map((s) => s.name))
  const targets = computed(() => answer.value?.targets ?? [])
  const functions = computed(() => answer.value?.functions ?? [])
  const fault = (field: string) => answer.value?.faults.find((f) => f.field === field)
  /** Unit of a number that is made of signals. */
  const unitOf = (field: string) => answer.value?.units.find((u) => u.field === field)?.unit ?? ''
  /** How many sentences of the chosen proof cannot be read. */
  const count = (part: string) => answer.value?.faults.filter((f) => f.field.startsWith(`/proofs/${machine.proofIndex}/${part}/`)).length ?? 0

  watch([looked, () => machine.proof, () => machine.draft?.plc, () => machine.draft?.axes, () => machine.proofIndex], async () => {
    const index = machine.proofIndex
    if (!looked.value || !machine.proof) return
    const found = await machine.asked((document) => machine.byKey(document, (asked) => api.sentences(asked, index)))
    if (found && index === machine.proofIndex) answer.value = found
  })
  return { looked, signals, bits, numbers, targets, functions, fault, unitOf, count }
})
