import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from './machine'

export type MoveEntry = Schemas['MoveEntry']
export type Stretch = Schemas['PlanStretch']

/** The move list of the chosen axis: what is looked at in it, and how it will run. */
export const useMoves = defineStore('moves', () => {
  const machine = useMachine()
  const chosen = ref(0)
  const from = ref(0)
  /** Where the axis stood when a person started the list; the plan begins there. */
  const at = ref<number | undefined>(undefined)
  const answer = shallowRef<Schemas['MovesAnswer'] | null>(null)
  const list = computed(() => machine.axis?.moves ?? null)
  const root = computed(() => `/axes/${machine.axisIndex}/moves`)

  function forget() {
    chosen.value = 0
    from.value = 0
    at.value = undefined
    answer.value = null
  }

  async function plan() {
    const count = list.value?.entries.length ?? 0
    chosen.value = Math.max(0, Math.min(count - 1, chosen.value))
    from.value = Math.max(0, Math.min(count - 1, from.value))
    const given = await machine.asked((document, axis) => machine.byKey(document, (asked) => api.planMoves(asked, axis, from.value, at.value)))
    if (given) answer.value = given
  }

  /** The end of an entry that is being dragged: what was asked for last, and whether an answer is on its way. */
  let wanted: Schemas['Drag'] | null = null
  let under = false

  /** How the list would run with the end of an entry moved: one question at a time, always the latest; the document stays as it is. */
  async function drag(to: Schemas['Drag']) {
    wanted = to
    if (under) return
    under = true
    const document = machine.draft!
    while (wanted && machine.draft === document) {
      const asked: Schemas['Drag'] = wanted
      try {
        const given = await machine.byKey(document, (by) => api.planMoves(by, machine.axisIndex, from.value, at.value, asked))
        if (machine.draft === document && wanted) answer.value = given
      } catch {
        /* a place that the rules refuse is not drawn: the last one that they take stands */
      }
      if (wanted === asked) break
    }
    under = false
  }

  /** Let go: what was drawn last becomes the entry; or it is left as it was. */
  async function drop(keep: boolean) {
    const moved = wanted && keep ? answer.value?.dragged : null
    const number = wanted?.entry
    wanted = null
    if (moved && number !== undefined) machine.set(`${root.value}/entries/${number}`, moved)
    else await plan()
  }

  /** A change of more than one place, made by the core. @param then which entry is looked at afterwards */
  async function edit(question: Parameters<typeof api.editMoves>[2], then?: number) {
    const changed = await machine.ordered((document, axis) => machine.byKey(document, (asked) => api.editMoves(asked, axis, question)))
    if (!changed) return
    if (then !== undefined) chosen.value = then
    machine.set(root.value, changed)
  }

  return { chosen, from, at, answer, list, root, forget, plan, edit, drag, drop }
})
