import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from './machine'

const LOOK_EVERY = 2000

/** The folder from which the open machine takes its texts: when it has taken some, the page shows them. */
export const useProgramFolder = defineStore('programFolder', () => {
  const machine = useMachine()
  const state = ref<Schemas['FolderState'] | null>(null)
  let timer = 0

  async function look(id: number, first: boolean) {
    clearTimeout(timer)
    const found = await api.programFolder(id).catch(() => null)
    if (machine.id !== id) return
    const fresh = !first && found !== null && found.takenAt !== state.value?.takenAt
    if (found) state.value = found.watched ? found : null
    /* what is not saved here is kept: saving it finds the other revision, and asks */
    if (fresh && found.revision !== machine.revision && !machine.dirty && machine.conflict === null) await machine.takeTheirs()
    if (found === null || found.watched) timer = window.setTimeout(() => void look(id, found === null && first), LOOK_EVERY)
  }

  /** @param id of the machine that is open, 0 for none */
  function follow(id: number) {
    clearTimeout(timer)
    state.value = null
    if (id) void look(id, true)
  }

  return { state, follow }
})
