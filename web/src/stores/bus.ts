import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, type CyclicItem, type Entry, type FamilyView, type Schemas } from '../api/client'
import { useMachine } from './machine'

export type BusDirection = 'outputs' | 'inputs'

/** What the bus of the machine decides, and the entry that is being looked at. */
export const useBus = defineStore('bus', () => {
  const machine = useMachine()
  const families = ref<FamilyView[]>([])
  const chosen = ref<{ direction: BusDirection; index: number }>({ direction: 'outputs', index: -1 })
  /** Where the entries of the chosen axis lie, while the stage Map shows them. */
  const layout = shallowRef<Schemas['LayoutAnswer'] | null>(null)
  const family = computed(() => families.value.find((f) => f.family === machine.draft?.bus.family) ?? null)

  async function load() {
    if (families.value.length === 0) families.value = (await machine.guarded(() => api.families())) ?? []
  }

  function itemOf(entry: Entry): CyclicItem | undefined {
    return family.value?.items.find((i) => i.object === entry.object && i.subIndex === entry.subIndex)
  }

  function titleOf(entry: Entry): string {
    if (entry.object === 0) return 'filler'
    return entry.name || itemOf(entry)?.title || `${entry.object.toString(16).toUpperCase()}h:${entry.subIndex}`
  }

  const symbolOf = (entry: Entry) => (entry.object === 0 ? '' : (itemOf(entry)?.symbol ?? ''))

  return { families, family, chosen, layout, load, itemOf, titleOf, symbolOf }
})

