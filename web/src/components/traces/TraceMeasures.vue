<script setup lang="ts">
import { computed } from 'vue'
import { fixed, significant } from '../../lib/numbers'
import { useTraces } from '../../stores/traces'
import { STROKES } from './strokes'

/** What every line measures between the two cursors. */
const traces = useTraces()
const apart = computed(() => Math.abs(traces.kept.b - traces.kept.a))
const first = (m: { first: number; last: number }) => (traces.kept.a <= traces.kept.b ? m.first : m.last)
const last = (m: { first: number; last: number }) => (traces.kept.a <= traces.kept.b ? m.last : m.first)
</script>

<template>
  <v-table class="plain measures" data-testid="measures" tabindex="0" aria-label="Measures between the cursors">
    <thead><tr><th>A to B: {{ significant(apart, 5) }} s<template v-if="apart > 0">, {{ significant(1 / apart, 3) }} Hz</template></th><th>Unit</th><th>At A</th><th>At B</th><th>B − A</th><th title="Over time, by the trapezoidal rule">Mean</th><th title="Root of the mean of the squares over time">RMS</th><th>Lowest</th><th>Highest</th><th title="Of the straight line of least squares">Slope/s</th><th title="By the crossings of that line; – where nothing swings evenly">Ringing</th></tr></thead>
    <tbody>
      <tr v-for="(line, i) in traces.lines" :key="i">
        <td :style="{ color: `var(${STROKES[line.colour]!.colour})` }" :title="traces.label(line)">{{ traces.label(line) }}</td>
        <template v-if="traces.measures[i]">
          <td class="mono">{{ traces.measures[i]!.unit || '–' }}</td><td class="mono">{{ significant(first(traces.measures[i]!)) }}</td><td class="mono">{{ significant(last(traces.measures[i]!)) }}</td><td class="mono"><b>{{ significant(last(traces.measures[i]!) - first(traces.measures[i]!)) }}</b></td>
          <td class="mono">{{ significant(traces.measures[i]!.mean) }}</td><td class="mono">{{ significant(traces.measures[i]!.rms) }}</td>
          <td class="mono" :title="`at ${fixed(traces.measures[i]!.lowAt, 6)} s`">{{ significant(traces.measures[i]!.low) }}</td><td class="mono" :title="`at ${fixed(traces.measures[i]!.highAt, 6)} s`">{{ significant(traces.measures[i]!.high) }}</td>
          <td class="mono">{{ significant(traces.measures[i]!.slope, 4) }}</td><td class="mono">{{ traces.measures[i]!.frequency == null ? '–' : `${significant(traces.measures[i]!.frequency, 4)} Hz` }}</td>
        </template>
        <td v-else colspan="10" class="sub">Nothing was recorded there.</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.measures { flex: none; max-width: 100%; max-height: 190px; overflow: auto; font-size: 12.5px; }
td, th { padding: 1px 4px !important; white-space: nowrap; }
td:first-child { max-width: 250px; overflow: hidden; text-overflow: ellipsis; font-weight: 600; }
</style>
