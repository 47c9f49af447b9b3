import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from './machine'

/** Recordings of the machine that were brought in, and the file that is just being brought. */
export const useRecordings = defineStore('recordings', () => {
  const machine = useMachine()
  const all = shallowRef<Schemas['RecordingView'][]>([])
  const chosen = ref(0)
  const shown = computed(() => all.value.find((r) => r.id === chosen.value) ?? all.value[0] ?? null)

  async function load() {
    const id = machine.id
    if (!id) return
    const found = await machine.guarded(() => api.recordings(id))
    if (found && machine.id === id) all.value = found
  }
  watch(() => machine.id, () => { all.value = []; chosen.value = 0; void load() }, { immediate: true })

  /** Expectations that name it follow. */
  async function rename(id: number, name: string) {
    const before = all.value.find((r) => r.id === id)?.name.toLowerCase()
    if (before === undefined || !(await machine.guarded(() => api.renameRecording(id, name)))) return
    await load()
    const named = machine.draft!.proofs.flatMap((p, i) => p.expectations.flatMap((e, j) => (e.recording?.trim().toLowerCase() === before ? [`/proofs/${i}/expectations/${j}/recording`] : [])))
    if (named.length) machine.edit(...named.map((path) => ({ op: 'replace' as const, path, value: name })))
  }
  async function forget(id: number) {
    await machine.guarded(() => api.forgetRecording(id))
    await load()
  }
  return { all, chosen, shown, load, rename, forget }
})
