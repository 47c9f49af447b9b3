import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from './machine'

/** Proofs repeated by their plans: the newest of each, and how far those are that run. They go on when nobody looks. */
export const useRepetition = defineStore('repetition', () => {
  const machine = useMachine()
  const all = shallowRef<Schemas['RepetitionView'][]>([])
  const progress = shallowRef<Record<number, Schemas['RepetitionProgress']>>({})
  const opening = ref(false)
  let following = new AbortController()
  const of = (name: string | undefined) => all.value.find((r) => r.proof.toLowerCase() === name?.toLowerCase()) ?? null
  const shown = computed(() => of(machine.proof?.name))
  const runs = (view: Schemas['RepetitionView'] | null) => view?.state === 'WAITS' || view?.state === 'RUNS'

  watch(() => machine.id, async (id) => {
    following.abort()
    following = new AbortController()
    all.value = []
    progress.value = {}
    if (!id) return
    const found = await machine.guarded(() => api.latestRepetitions(id))
    if (!found || machine.id !== id) return
    all.value = found
    found.filter(runs).forEach((view) => void follow(view.id))
  }, { immediate: true })

  function take(view: Schemas['RepetitionView']) {
    all.value = [...all.value.filter((r) => r.proof.toLowerCase() !== view.proof.toLowerCase()), view]
  }

  async function follow(id: number) {
    const { signal } = following
    const ended = await api.followRepetition(id, (told) => (progress.value = { ...progress.value, [id]: told }), signal).catch(() => false)
    if (signal.aborted || !ended) return
    const view = await machine.guarded(() => api.repetition(id))
    if (view && !signal.aborted) take(view)
  }

  /** Repeats the chosen proof as it is saved. */
  async function start() {
    await machine.flush()
    if (machine.conflict !== null || machine.faults.length > 0 || !machine.proof) return
    const view = await machine.guarded(() => api.repeat(machine.id, machine.proof!.name))
    if (!view) return
    take(view)
    void follow(view.id)
  }
  const cancel = () => shown.value && machine.guarded(() => api.cancelRepetition(shown.value!.id))

  /** Makes one of its runs again and shows it. */
  async function open(run: number): Promise<boolean> {
    if (!shown.value || opening.value) return false
    opening.value = true
    const made = await machine.guarded(() => api.againOf(shown.value!.id, run))
    opening.value = false
    if (made) machine.show(made)
    return Boolean(made)
  }
  return { shown, progress, opening, runs, start, cancel, open }
})
