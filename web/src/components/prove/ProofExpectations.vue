<script setup lang="ts">
import { mdiDelete } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted } from 'vue'
import type { Expectation } from '../../api/client'
import { placeOf } from '../../router'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useRecordings } from '../../stores/recordings'
import { useSentences } from '../../stores/sentences'
import PickOne from '../PickOne.vue'
import SentenceField from '../SentenceField.vue'
import SlotSentence from './SlotSentence.vue'

/** What must be true, sentence by sentence. */
const machine = useMachine()
const choices = useChoices()
const sentences = useSentences()
const recordings = useRecordings()
onMounted(() => sentences.looked++)
onBeforeUnmount(() => sentences.looked--)
const root = computed(() => `/proofs/${machine.proofIndex}/expectations`)
const expectations = computed(() => machine.proof?.expectations ?? [])
const kind = (e: Expectation) => choices.all.proof.expectations.find((k) => k.code === e.kind)

/** What a new sentence begins with: about the chosen axis, in numbers that it could have. */
function add(code: string) {
  const axis = machine.axis!
  const event = machine.events.find((e) => e.endsWith('.Execute')) ?? machine.events[0] ?? `${axis.name}.inPosition`
  const other = machine.draft!.axes.find((a) => a.name !== axis.name)?.name ?? axis.name
  const begin: Record<string, Omit<Expectation, 'kind'>> = {
    ARRIVES: { axis: axis.name, after: event, position: 0, tolerance: 0.05, within: 1, stays: 0.1 },
    BOUND: { axis: axis.name, quantity: 'SPEED', limit: axis.limits.max.speed, span: 'ALWAYS' },
    BETWEEN: { signal: `${axis.name}.position`, low: axis.limits.softMin, high: Math.max(axis.limits.softMin, axis.limits.softMax), span: 'ALWAYS' },
    NEVER_BOTH: { axis: axis.name, low: 0, high: 100, other, otherLow: 0, otherHigh: 100, distance: 0 },
    ORDER: { after: event, then: `${axis.name}.inPosition` },
    TIME: { after: event, then: `${axis.name}.inPosition`, atLeast: 0, within: 1 },
    COUNT: { then: event, low: 1, high: 1 },
    VALUE_AT: { signal: `${axis.name}.position`, low: 0, high: 100, after: event },
    ENDS: { axis: axis.name, end: 'AT_REST' },
    RMS_TORQUE: { axis: axis.name, limit: 100 },
    PEAK_TORQUE: { axis: axis.name, limit: 100 },
    TASK_TIME: { limit: (machine.draft!.plc.tasks[0]?.intervalMicros ?? 1000) / 1000 },
    NO_ERROR: { axis: axis.name },
    DIFFERS: { signal: `${axis.name}.position`, recording: recordings.all[0]?.name ?? 'none yet', limit: axis.supervision.followingError, alignment: 'BEST_FIT' },
    SENTENCE: { text: `ALWAYS(${axis.name}.position > 0)` },
  }
  machine.edit({ op: 'add', path: `${root.value}/-`, value: { kind: code, ...begin[code] } })
}
</script>

<template>
  <section aria-label="Expectations">
    <p v-if="expectations.length === 0" class="empty">Nothing is expected yet. Add a first expectation below.</p>
    <div v-for="(e, i) in expectations" :key="i" class="sheet sentence">
      <SentenceField v-if="e.kind === 'SENTENCE'" :text="e.text ?? ''" :number="i + 1" :fault="sentences.fault(`${root}/${i}/text`)" :signals="sentences.signals" :functions="sentences.functions" @enter="(t) => machine.set(`${root}/${i}/text`, t)" />
      <SlotSentence v-else-if="kind(e)" :pattern="kind(e)!.pattern" :units="kind(e)!.units" :entries="e" :path="`${root}/${i}`" :called="`expectation ${i + 1}`" />
      <v-btn :icon="mdiDelete" class="remove" variant="text" size="x-small" :aria-label="`Remove expectation ${i + 1}`" @click="machine.edit({ op: 'remove', path: `${root}/${i}` })" />
    </div>
    <span v-if="!machine.axis" class="sub">An expectation is about an axis: <router-link :to="placeOf('overview')">add one first</router-link>.</span>
    <PickOne v-else class="adding" label="Add an expectation" :value="null" placeholder="Add an expectation…" :options="choices.all.proof.expectations" @pick="add" />
  </section>
</template>

<style scoped>
.sentence { display: flex; gap: 6px; align-items: center; padding: 5px 10px; margin-bottom: 5px; }
.remove { margin-left: auto; flex: none; }
.adding { width: 280px; }
</style>
