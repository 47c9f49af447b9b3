<script setup lang="ts">
import PickOne from './PickOne.vue'
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
const place = (e: { direction: 'outputs' | 'inputs'; index: number }) => bus.layout?.layout[e.direction].places[e.index]
const measure = (meaning: string) => entries.value.find((e) => place(e)?.meaning === meaning)
const chosen = computed(() => entries.value.find((e) => e.direction === bus.chosen.direction && e.index === bus.chosen.index) ?? measure('POSITION') ?? measure('COUNTS') ?? entries.value[0])
const key = computed(() => (chosen.value ? `${chosen.value.direction}/${chosen.value.index}` : ''))
const unit = computed(() => (chosen.value ? place(chosen.value)?.unit : ''))
const raw = computed(() => (!now.value || !chosen.value || bench.behind ? null : (bench.processData?.[chosen.value.direction][chosen.value.index]?.raw ?? null)))

function choose(code: string) {
  const [direction, index] = code.split('/')
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
    const question = { direction: chosen.value.direction === 'outputs' ? ('OUTPUTS' as const) : ('INPUTS' as const), entry: chosen.value.index, ...(now.value ? { raw: raw.value! } : { value: value! }) }
    const answer = await machine.asked((document, number) => api.value({ machine: document, axis: number, ...question }))
    if (mine === asked) steps.value = answer ?? []
  },
  { immediate: true },
)
</script>

<template>
  <section v-if="chosen" class="follow" aria-label="One value, end to end">
    <div class="ask"><b>One value, end to end</b>
      <PickOne class="which" label="Entry to follow" :value="key" :options="entries.map((e) => ({ code: `${e.direction}/${e.index}`, words: bus.titleOf(e.entry) }))" @pick="choose" />
    </div>
    <div class="ask">
      <v-checkbox-btn v-model="now" :disabled="!live" label="as it travels now" />
      <v-text-field v-if="!now" v-model="text" class="snug number typed" :aria-label="chosen.direction === 'outputs' ? 'Value the program writes' : 'Value the drive sends'" :suffix="unit" />
    </div>
    <p v-if="steps.length === 0" :class="now ? 'empty' : 'fault-text'">{{ machine.faults.length ? 'Correct the refused entry first.' : now ? 'Nothing travels yet.' : 'Enter a number to follow it.' }}</p>
    <FigureList :figures="steps" />
  </section>
</template>

<style scoped>
.follow { margin-bottom: 10px; }
.ask { display: flex; justify-content: space-between; align-items: center; font-size: 13px; gap: 6px; margin-bottom: 3px; }
.which { width: 150px; flex: none; } .typed { width: 120px; }
</style>
