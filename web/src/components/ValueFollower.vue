<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Figure } from '../api/client'
import { parsed } from '../lib/numbers'
import { useAxis } from '../lib/axis'
import { useBus } from '../stores/bus'
import FigureList from './FigureList.vue'

/** One value of the chosen entry followed from the program to the load, or back; typed, or as it travels now. */
const { machine, bench, axis, live } = useAxis()
const bus = useBus()
const text = ref('412')
const now = ref(false)
const steps = ref<Figure[]>([])

const entries = computed(() => (['outputs', 'inputs'] as const).flatMap((direction) => axis.value.station[direction].map((entry, index) => ({ direction, index, entry })).filter((e) => e.entry.object !== 0)))
const measure = (meaning: string) => entries.value.find((e) => bus.itemOf(e.entry)?.meaning === meaning)
const chosen = computed(() => entries.value.find((e) => e.direction === bus.chosen.direction && e.index === bus.chosen.index) ?? measure('POSITION') ?? measure('COUNTS') ?? entries.value[0])
const key = computed(() => (chosen.value ? `${chosen.value.direction}/${chosen.value.index}` : ''))
const unit = computed(() => {
  const meaning = chosen.value && bus.itemOf(chosen.value.entry)?.meaning
  const symbol = axis.value.unit.symbol
  return meaning === 'POSITION' || meaning === 'COUNTS' ? symbol : meaning === 'SPEED' ? symbol + '/s' : meaning === 'TORQUE' || meaning === 'N2' || meaning === 'N4' ? '%' : meaning === 'GAIN' ? '1/s' : ''
})
const raw = computed(() => {
  if (!now.value || !chosen.value || !live.value || bench.behind) return null
  const { direction, index, entry } = chosen.value
  const image = direction === 'outputs' ? live.value.outputBytes : live.value.inputBytes
  return bus.rawOf(entry, bus.offsets(axis.value.station[direction])[index], image.split(' ').map((b) => parseInt(b, 16)))
})

function choose(event: Event) {
  const [direction, index] = (event.target as HTMLSelectElement).value.split('/')
  bus.chosen = { direction: direction as 'outputs' | 'inputs', index: Number(index) }
}

let asked = 0
watch(
  [text, key, raw, () => machine.answer],
  async () => {
    const value = parsed(text.value)
    const mine = ++asked
    if (!chosen.value || (now.value ? raw.value === null : value === null)) {
      steps.value = []
      return
    }
    const question = { direction: chosen.value.direction === 'outputs' ? ('OUTPUTS' as const) : ('INPUTS' as const), entry: chosen.value.index, ...(now.value ? { raw: Number(raw.value) } : { value: value! }) }
    const answer = await machine.asked((document, number) => api.value({ machine: document, axis: number, ...question }))
    if (mine === asked) steps.value = answer ?? []
  },
  { immediate: true },
)
</script>

<template>
  <section v-if="chosen" class="follow" aria-label="One value, end to end">
    <label class="ask"><b>One value, end to end</b>
      <select class="plain" :value="key" aria-label="Entry to follow" @change="choose"><option v-for="e in entries" :key="e.direction + e.index" :value="`${e.direction}/${e.index}`">{{ bus.titleOf(e.entry) }}</option></select>
    </label>
    <div class="ask">
      <label><input v-model="now" type="checkbox" :disabled="!live" /> as it travels now</label>
      <span v-if="!now"><input v-model="text" class="plain mono" size="9" :aria-label="chosen.direction === 'outputs' ? 'Value the program writes' : 'Value the drive sends'" /> {{ unit }}</span>
    </div>
    <p v-if="steps.length === 0" :class="now ? 'empty' : 'fault-text'">{{ machine.faults.length ? 'Correct the refused entry first.' : now ? 'Nothing travels yet.' : 'Enter a number to follow it.' }}</p>
    <FigureList :figures="steps" />
  </section>
</template>

<style scoped>
.follow { margin-bottom: 10px; }
.ask { display: flex; justify-content: space-between; align-items: center; font-size: 13px; gap: 6px; margin-bottom: 3px; }
.ask select { max-width: 140px; }
</style>
