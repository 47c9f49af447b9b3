<script setup lang="ts">
import PickOne from './PickOne.vue'
import { mdiChevronDown, mdiChevronUp, mdiHandBackRight, mdiMemory, mdiPause, mdiPlay, mdiRestart, mdiStepForward } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { programLines, traceLines, VIEWS, type View } from '../lib/trace'
import { useBench } from '../stores/bench'
import { useDebug } from '../stores/debug'
import { DOCK, useLayout } from '../stores/layout'
import { useMachine } from '../stores/machine'
import { useHand } from '../stores/hand'
import DevicePanel from './DevicePanel.vue'
import HandPanel from './HandPanel.vue'
import ProofTrace from './ProofTrace.vue'
import TracePlot, { type Line } from './TracePlot.vue'

const bench = useBench()
const debug = useDebug()
const machine = useMachine()
const hand = useHand()
const layout = useLayout()
const route = useRoute()
const shown = 3000
const proof = computed(() => route.name === 'prove')

const view = ref<View>('speed')
const data = computed(() => {
  const all = bench.samples
  const axis = machine.axis
  if (all.length === 0 || (!axis && view.value !== 'program')) return { time: [] as number[], lines: [] as Line[] }
  if (view.value === 'program') return { time: all[0].slice(-shown), lines: programLines(debug.traced, (name) => bench.column(name).slice(-shown)) }
  const column = (signal: string) => bench.column(`${axis!.name}.${signal}`).slice(-shown)
  return { time: all[0].slice(-shown), lines: traceLines(view.value, column, axis!.unit.symbol) }
})
const state = computed(() => bench.state)
const runs = computed(() => {
  if (!state.value) return ''
  if (state.value.byHand) return 'by hand, the program is held,'
  if (state.value.programHeld) return 'with the program held; start anew to run it,'
  return state.value.program === 'homing' ? 'homing' : 'the program'
})

/* a value that is put into the trace is shown there */
watch(() => debug.traced.length, (now, before) => {
  if (now > before) view.value = 'program'
  else if (!now && view.value === 'program') view.value = 'speed'
})

/** Groups that wait to act, or would be lost by a restart. */
const waiting = computed(() => {
  const device = state.value?.axes.find((a) => a.name === machine.axis?.name)?.device
  return device?.restarting ? 'restarting' : device?.pending.length ? `${device.pending.length} pending` : ''
})

const panel = computed(() => machine.axis !== null && (hand.open || bench.deviceOpen))
/** Whether there is anything to draw: without it the dock takes one line. */
const something = computed(() => panel.value || (proof.value ? machine.run !== null : data.value.time.length > 0))
const open = computed(() => something.value && !layout.dockFolded)
const LEAST_PANEL = 178
const height = computed(() => (panel.value ? Math.max(LEAST_PANEL, layout.dockHeight) : layout.dockHeight))

/** The upper edge is pulled with the pointer, or moved with the arrow keys. */
function pull(event: PointerEvent) {
  const handle = event.currentTarget as HTMLElement
  handle.setPointerCapture(event.pointerId)
  const from = event.clientY
  const before = height.value
  handle.onpointermove = (move) => stand(before + from - move.clientY)
  handle.onlostpointercapture = () => (handle.onpointermove = null)
}
function stand(wanted: number) {
  layout.dockHeight = Math.round(Math.max(DOCK.least, Math.min(DOCK.most, window.innerHeight - 260, wanted)))
}

function show(panel: 'hand' | 'device' | null) {
  if (panel) layout.dockFolded = false
  hand.open = panel === 'hand'
  bench.deviceOpen = panel === 'device'
}

function toggle() {
  void bench.order(state.value?.running ? 'hold' : 'run')
}
</script>

<template>
  <section class="dock" :class="{ open }" aria-label="Bench and trace">
    <div v-if="open" class="pull" role="separator" aria-orientation="horizontal" aria-label="Height of the dock" tabindex="0" :aria-valuenow="height" :aria-valuemin="DOCK.least" :aria-valuemax="DOCK.most"
      title="Pull to any height" @pointerdown="pull" @keydown.up.prevent="stand(height + 24)" @keydown.down.prevent="stand(height - 24)" />
    <div class="bar">
      <v-btn :prepend-icon="state?.running ? mdiPause : mdiPlay" variant="flat" color="primary" @click="toggle">{{ state?.running ? 'Hold' : 'Run' }}</v-btn>
      <v-btn :prepend-icon="mdiStepForward" title="One cycle of the program's task, then hold" @click="bench.oneCycle()">One cycle</v-btn>
      <v-btn :prepend-icon="mdiRestart" title="Switch the bench off and on and start the program from the saved machine" @click="bench.start('PROGRAM', true)">Start anew</v-btn>
      <v-btn v-if="machine.axis" :prepend-icon="mdiHandBackRight" :variant="hand.open ? 'tonal' : 'outlined'" :aria-expanded="hand.open" title="Move axes by hand" @click="show(hand.open ? null : 'hand')">By hand</v-btn>
      <v-btn v-if="machine.axis" :prepend-icon="mdiMemory" :variant="bench.deviceOpen ? 'tonal' : 'outlined'" :aria-expanded="bench.deviceOpen" :title="`What the device of ${machine.axis?.name} holds`" @click="show(bench.deviceOpen ? null : 'device')">Device{{ waiting ? ` · ${waiting}` : '' }}</v-btn>
      <span class="speed">Clock
        <PickOne label="Clock" :value="state?.speed ?? 1" :disabled="!state" :options="[0.1, 0.5, 1, 2, 5, 10].map((factor) => ({ code: factor, words: `×${factor}` }))" @pick="(factor) => bench.setSpeed(Number(factor))" />
      </span>
      <span v-if="state?.fault" class="fault" role="alert">Program stopped in line {{ state.fault.line }}{{ machine.draft!.plc.files.length > 1 && state.fault.file ? ` of ${state.fault.file}` : '' }}: {{ state.fault.message }}</span>
      <span v-else-if="state" class="legend">runs {{ runs }} of revision {{ state.revision }}<span v-if="bench.behind"> (the machine is at {{ machine.revision }}; write it to the devices, or start anew)</span></span>
      <span v-if="!proof && !hand.open && !bench.deviceOpen && (data.lines.length || view === 'program')" class="legend keys">
        {{ view === 'program' ? '' : machine.axis?.name }}
        <PickOne label="The trace shows" :value="view" :options="Object.entries(VIEWS).filter(([code]) => code !== 'program' || debug.traced.length).map(([code, words]) => ({ code, words }))" @pick="(code) => (view = code as View)" />
        <b v-for="line in data.lines.filter((l) => l.label && l.row === undefined)" :key="line.label" :style="{ color: `var(${line.colour})` }">&ensp;{{ line.dashed ? '╌' : '—' }} {{ line.label.replace(`${VIEWS[view]}, `, '') }}</b>
        <span v-if="data.lines[0]?.unit">&ensp;in {{ data.lines[0].unit }}</span>
      </span>
      <v-btn v-if="something" class="fold" :icon="open ? mdiChevronDown : mdiChevronUp" size="x-small" variant="text" :aria-label="open ? 'Fold the dock' : 'Open the dock'" :aria-expanded="open" :title="open ? 'Fold' : 'Open'" @click="layout.dockFolded = open" />
    </div>
    <div v-if="open" class="content" :style="{ height: `${height}px` }">
      <HandPanel v-if="panel && hand.open" />
      <DevicePanel v-else-if="panel" />
      <div v-else class="trace">
        <ProofTrace v-if="proof" />
        <TracePlot v-else :time="data.time" :lines="data.lines" :label="`${VIEWS[view]} of ${machine.axis?.name} over time`" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.dock { border-top: 2px solid var(--ink); background: var(--sheet); padding: 6px 14px; position: relative; min-height: 0; }
.dock.open { padding-bottom: 2px; }
.pull { position: absolute; top: -5px; left: 0; right: 0; height: 9px; cursor: ns-resize; touch-action: none; }
.bar { display: flex; gap: 8px; align-items: center; white-space: nowrap; overflow: hidden; }
.speed { font-size: 13px; display: inline-flex; gap: 6px; align-items: center; flex: none; }
.speed .v-input { width: 72px; flex: none; }
.keys .v-input { width: 132px; flex: none; margin: 0 4px; }
.legend { font-size: 12.5px; color: var(--pencil); overflow: hidden; text-overflow: ellipsis; }
.keys { margin-left: auto; display: flex; align-items: center; flex: none; }
.keys + .fold { margin-left: 0; }
.fold { margin-left: auto; }
.fault { color: var(--stop); font-weight: 700; overflow: hidden; text-overflow: ellipsis; }
.content { max-height: calc(100vh - 260px); overflow: auto; display: grid; grid-template-columns: minmax(0, 1fr); }
.trace { min-height: 0; position: relative; }
</style>
