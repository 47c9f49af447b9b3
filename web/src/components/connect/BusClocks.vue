<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type ClockDrift } from '../../api/client'
import { fixed } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'
import ChoiceField from '../ChoiceField.vue'
import NumberField from '../NumberField.vue'

/** Clocks of the stations on the bench against the reference, from power-up. */
const machine = useMachine()
const drift = ref<ClockDrift | null>(null)
const bus = computed(() => machine.draft!.bus)
const has = computed(() => bus.value.family === 'ETHERCAT')
watch(() => machine.answer, async () => {
  if (has.value) drift.value = (await machine.asked((document) => api.clocks(document))) ?? drift.value
}, { immediate: true })
const W = 640
const H = 190
const most = computed(() => Math.max(1200, bus.value.clock.windowNanos * 1.2, ...(drift.value?.stations.flatMap((s) => s.deviation.slice(0, 60).map(Math.abs)) ?? [])))
const y = (nanos: number) => H / 2 - (nanos / most.value) * (H / 2 - 8)
/* the first quarter of a second tells: after it the clocks agree */
const shown = computed(() => Math.min(drift.value?.stations[0]?.deviation.length ?? 0, 60))
const line = (d: number[]) => d.slice(0, shown.value).map((v, i) => `${i ? 'L' : 'M'}${(i / Math.max(1, shown.value - 1)) * W} ${y(v)}`).join('')
const DASH = ['', '6 3', '2 3', '8 3 2 3', '1 4']
const late = computed(() => drift.value?.stations.filter((s) => bus.value.clock.windowNanos > 0 && s.inTime < 0) ?? [])
</script>

<template>
  <section aria-label="Clocks">
    <p v-if="!has" class="empty">Distributed clocks are of EtherCAT. On this bus the stations act when a frame, or SYNC, reaches them.</p>
    <template v-else>
      <div class="fields">
        <ChoiceField path="/bus/clock/reference" label="Reference station" :value="bus.clock.reference" :options="[{ code: '', words: 'the first' }, ...machine.draft!.axes.map((a) => a.name)]" />
        <NumberField path="/bus/clock/shiftMicros" label="Shift after the cycle" unit="µs" :value="bus.clock.shiftMicros" whole title="Goes to the master with the network information (ENI); the drives of the bench act with the cycle" />
        <NumberField path="/bus/clock/windowNanos" label="Supervision window" unit="ns" :value="bus.clock.windowNanos" whole title="0: not watched" />
      </div>
      <template v-if="drift">
        <p v-if="late.length" class="refused" role="status" data-testid="clock-finding"><b>Out of the window: {{ late.map((s) => s.axis).join(', ') }}.</b> What this gives has the mend, for the chosen axis.</p>
        <svg :viewBox="`0 0 ${W} ${H}`" class="drawing sheet" role="img" :aria-label="`Deviation from ${drift.reference} after power-up`">
          <rect v-if="bus.clock.windowNanos" x="0" :y="y(bus.clock.windowNanos)" :width="W" :height="y(-bus.clock.windowNanos) - y(bus.clock.windowNanos)" class="window" />
          <line x1="0" :x2="W" :y1="H / 2" :y2="H / 2" class="zero" />
          <path v-for="(s, i) in drift.stations" :key="s.axis" :d="line(s.deviation)" fill="none" class="curve" :stroke-dasharray="DASH[i % 5]" />
          <text x="4" y="14">+{{ fixed(most, 0) }} ns</text><text x="4" :y="H - 6">−{{ fixed(most, 0) }} ns</text><text :x="W - 4" :y="H - 6" text-anchor="end">{{ fixed(shown * drift.sampleSeconds, 2) }} s after power-up</text>
        </svg>
        <v-table class="plain" data-testid="clocks">
          <thead><tr><th>Station</th><th>Line</th><th class="end" title="How much the oscillator is off against true time">Oscillator</th><th class="end" title="In the second half of 2 s">Largest deviation, settled</th><th class="end">In the window from</th></tr></thead>
          <tbody><tr v-for="(s, i) in drift.stations" :key="s.axis"><td>{{ s.axis }}<b v-if="s.axis === drift.reference"> · reference</b></td><td><svg width="40" height="8" aria-hidden="true"><line x1="0" x2="40" y1="4" y2="4" class="curve" :stroke-dasharray="DASH[i % 5]" /></svg></td><td class="mono end">{{ fixed(s.ppm, 1) }} ppm</td><td class="mono end">{{ fixed(s.settled, 0) }} ns</td><td class="mono end">{{ s.inTime < 0 ? 'never' : fixed(s.inTime * 1000, 0) + ' ms' }}</td></tr></tbody>
        </v-table>
      </template>
    </template>
  </section>
</template>

<style scoped>
.fields { display: flex; gap: 12px; margin-bottom: 8px; --field-width: 150px; } .end { text-align: right; }
svg.sheet { width: 100%; max-width: 760px; display: block; margin-bottom: 8px; }
.window { fill: var(--ok-wash); stroke: var(--ok); stroke-dasharray: 3 3; } .zero { stroke: var(--hair); } .curve { stroke: var(--act); stroke-width: 1.6; }
td, th { padding: 1px 6px !important; }
.refused { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; font-size: 13px; }
</style>
