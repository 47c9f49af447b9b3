<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type TraceView } from '../api/client'
import { useMachine } from '../stores/machine'
import { useProof } from '../stores/proof'
import TracePlot, { type Line } from './TracePlot.vue'

/** The recording of the newest run around the place of the chosen verdict. */
const machine = useMachine()
const proof = useProof()
const trace = ref<TraceView | null>(null)
const verdict = computed(() => proof.verdict)

watch(
  [() => machine.run?.id, verdict],
  async () => {
    if (!machine.run || !verdict.value?.signal) {
      trace.value = null
      return
    }
    const v = verdict.value
    const axis = v.signal.split('.')[0]
    const commanded = v.signal.endsWith('.speed') ? 'commandedSpeed' : 'commandedPosition'
    /* a value of the program stands alone */
    const moves = machine.draft?.axes.some((a) => a.name.toLowerCase() === axis!.toLowerCase())
    const signals = [...(moves ? [`${axis}.${commanded}`] : []), v.signal.endsWith('.errorCode') ? `${axis}.position` : v.signal]
    const around = Math.max(0.6, (v.to - v.from) * 1.5)
    trace.value = (await machine.guarded(() => api.trace(machine.run!.id, signals, Math.max(0, v.from - around), v.to + around))) ?? null
  },
  { immediate: true },
)

/** Shuttle.commandedPosition becomes Shuttle commanded position. */
const words = (name: string) => name.replace('.', ' ').replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`)

const lines = computed<Line[]>(() =>
  (trace.value?.signals ?? []).map((column, i) => ({
    label: words(column.name), unit: column.unit, values: column.values,
    colour: i === 0 ? '--cmd' : '--act', dashed: i === 0, scale: column.unit + (column.name.endsWith('followingError') || column.name.endsWith('torque') ? ' e' : ''),
  })),
)
</script>

<template>
  <div v-if="trace && verdict" class="proof-trace">
    <span class="keys"><b class="cmd">╌ {{ lines[0]?.label }} in {{ lines[0]?.unit }}</b> <b class="act">— {{ lines[1]?.label }} in {{ lines[1]?.unit }}{{ lines[0]?.scale === lines[1]?.scale ? '' : ', right scale' }}</b>
      <b v-if="!verdict.holds" class="stop">▨ outside the limit</b></span>
    <div class="plot"><TracePlot :time="trace.time" :lines="lines" :mark="verdict.holds ? null : { from: verdict.from, to: verdict.to }" :label="`Recording around ${verdict.sentence}`" /></div>
  </div>
  <p v-else class="empty">Run the proof and choose a line of the table: its place in the recording stands here.</p>
</template>

<style scoped>
.proof-trace { height: 100%; display: grid; grid-template-rows: auto 1fr; min-height: 0; }
.plot { min-height: 0; }
.keys { font-size: 12.5px; display: flex; gap: 14px; }
.cmd { color: var(--cmd); } .act { color: var(--act); } .stop { color: var(--stop); }
</style>
