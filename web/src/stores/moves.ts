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
  /** Each entry in words, and whether its end can be moved: an answer about a dragged end has only what it changes. */
  const sentences = shallowRef<string[]>([])
  const movable = shallowRef<boolean[]>([])
  const list = computed(() => machine.axis?.moves ?? null)
  const root = computed(() => `/axes/${machine.axisIndex}/moves`)

  function forget() {
    chosen.value = 0
    from.value = 0
    at.value = undefined
    answer.value = null
    sentences.value = []
    movable.value = []
    wanted = dragged = null
  }

  async function plan() {
    const count = list.value?.entries.length ?? 0
    chosen.value = Math.max(0, Math.min(count - 1, chosen.value))
    from.value = Math.max(0, Math.min(count - 1, from.value))
    const given = await machine.asked((document, axis) => machine.byKey(document, (asked) => api.planMoves(asked, axis, from.value, at.value)))
    if (!given) return
    answer.value = given
    sentences.value = given.sentences
    movable.value = given.movable
  }

  /** The end of an entry that is being dragged: what was asked for last, the answers on their way, and the entry as it was answered last. */
  let wanted: Schemas['Drag'] | null = null
  let answers: Promise<void> | null = null
  let dragged: { document: unknown; path: string; entry: MoveEntry } | null = null

  /** How the list would run with the end of an entry moved: one question at a time, always the latest; the document stays as it is. */
  function drag(to: Schemas['Drag']) {
    wanted = to
    answers ??= follow().finally(() => (answers = null))
  }
  async function follow() {
    const document = machine.draft!
    let asked: Schemas['Drag'] | null = null
    while (wanted && wanted !== asked && machine.draft === document) {
      const now: Schemas['Drag'] = (asked = wanted)
      try {
        const given = await machine.byKey(document, (by) => api.planMoves(by, machine.axisIndex, from.value, at.value, now))
        if (!wanted || machine.draft !== document) return
        answer.value = given
        sentences.value = sentences.value.map((s, i) => (i === now.entry ? (given.sentences[0] ?? s) : s))
        if (given.dragged) dragged = { document, path: `${root.value}/entries/${now.entry}`, entry: given.dragged }
      } catch {
        /* a place that the rules refuse is not drawn: the last one that they take stands */
      }
    }
  }

  /** Let go: the place where it was becomes the entry's, as soon as it has been answered; or it is left as it was. */
  async function drop(keep: boolean) {
    if (keep) await answers
    const moved = keep ? dragged : null
    wanted = dragged = null
    if (moved && machine.draft === moved.document) machine.set(moved.path, moved.entry)
    else await plan()
  }

  /** A change of more than one place, made by the core. @param then which entry is looked at afterwards */
  async function edit(question: Parameters<typeof api.editMoves>[2], then?: number) {
    const changed = await machine.ordered((document, axis) => machine.byKey(document, (asked) => api.editMoves(asked, axis, question)))
    if (!changed) return
    if (then !== undefined) chosen.value = then
    machine.set(root.value, changed)
  }

  return { chosen, from, at, answer, sentences, movable, list, root, forget, plan, edit, drag, drop }
})
