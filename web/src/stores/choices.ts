import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api, type Schemas } from '../api/client'

/** A list of the core: a choice and its words. */
export type Choice = Schemas['Choice']

const NONE: Schemas['Choices'] = {
  tagTypes: [], units: [], axisKinds: [], encoderKinds: [], loadEncoderUses: [], feeds: [], terminals: [], powerStates: [], mistakes: [], standChanges: [], differences: [], resolutions: [],
  transitions: [], acts: [], wireOrders: [], canOpenRates: [],
  moves: { kinds: [], ends: [], ways: [], inputs: [], edges: [], taken: [], starters: [], exceptions: [], passings: [], commanders: [], outputs: 0, mostEntries: 0, mostRules: 0, mostZones: 0 }, follow: { signals: [], sources: [], locks: [], meanings: [], releases: [], forms: [], reactions: [] }, motionStates: [], program: { mostTasks: 0, lowestPriority: 0 }, recording: { encodings: [], separators: [], times: [], unknowns: [] }, guard: { functions: [], watches: [], restarts: [], slowings: [], protections: [], phases: [], steps: 0, note: '' },
  proof: { expectations: [], quantities: [], spans: [], alignments: [], ends: [], starts: [], happens: [], endings: [], varied: [], plans: [] },
}

/** What can be chosen where: lists that the core has, asked once. */
export const useChoices = defineStore('choices', () => {
  const asked = shallowRef<Schemas['Choices'] | null>(null)
  const all = computed(() => asked.value ?? NONE)
  const known = computed(() => asked.value !== null)

  async function load() {
    if (!asked.value) asked.value = await api.choices()
  }

  /** Words of a code, beginning with a capital where they stand alone. */
  const words = (list: Choice[], code: string) => list.find((c) => c.code === code)?.words ?? code
  const functionsOf = (kind: string) => all.value.terminals.find((t) => t.kind === kind)?.functions ?? []

  return { all, known, load, words, functionsOf }
})

export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
