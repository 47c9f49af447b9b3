<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { fixed, plain } from '../../lib/numbers'
import StopChain from './StopChain.vue'
import StopGrips from './StopGrips.vue'

/** One stop: speed over time with what the guard allows, brake and torque below, and how it stands. Times and speeds are the core's; here they are only drawn. */
const props = defineProps<{ plan: Schemas['GuardPlan']; trial: Schemas['Stopped'] | null; ask: Schemas['Ask']; watched: Schemas['StopRules'] | null; path: string }>()
const { axis, unit } = useAxis()
const LEFT = 52
const RIGHT = 556
const TOP = 24
const BOTTOM = 178
const LANES = [204, 226]
/* where the torque stays on, the place is watched */
const holds = computed(() => props.plan.torque == null)
const room = computed(() => props.watched?.window ?? 0)
const end = computed(() => {
  const p = props.plan
  const last = Math.max(p.stands ?? 0, p.brake ?? 0, p.torque ?? 0, p.watched, p.ramp, ...p.limit.map((q) => q.time), ...(props.trial?.time.map((t) => 1000 * t).filter((t) => t < 1.6 * (p.stands ?? t)) ?? []), ...(props.trial?.phases.map((f) => 1000 * f.time).filter((t) => t < 4000) ?? []))
  return Math.max(1, last) * 1.08
})
const begin = computed(() => -0.06 * end.value)
const top = computed(() => Math.max(props.plan.speed, ...(props.trial?.speeds ?? [])) * 1.1 || 1)
const x = (ms: number) => LEFT + ((ms - begin.value) / (end.value - begin.value)) * (RIGHT - LEFT)
const y = (speed: number) => BOTTOM - (speed / top.value) * (BOTTOM - TOP)
const line = (points: { time: number; value: number }[]) => points.map((p, i) => `${i ? 'L' : 'M'}${x(p.time).toFixed(1)} ${y(p.value).toFixed(1)}`).join('')
const predicted = computed(() => line([{ time: begin.value, value: props.plan.speed }, ...props.plan.path, { time: end.value, value: props.plan.path.at(-1)!.value }]))
/** What is not allowed: above the limit, as far as the watch goes. */
const forbidden = computed(() => {
  const limit = props.plan.limit
  if (!limit.length) return ''
  return `${line(limit)}L${x(end.value)} ${y(limit.at(-1)!.value)}L${x(end.value)} ${TOP}L${x(limit[0]!.time)} ${TOP}Z`
})
const limitLine = computed(() => (props.plan.limit.length ? `${line(props.plan.limit)}L${x(end.value)} ${y(props.plan.limit.at(-1)!.value)}` : ''))
const least = computed(() => (props.plan.least.length ? `${line(props.plan.least)}L${x(props.plan.least[0]!.time)} ${BOTTOM}Z` : ''))
const actual = computed(() => (props.trial ? line(props.trial.time.map((t, i) => ({ time: 1000 * t, value: props.trial!.speeds[i]! }))) : ''))
/* the limit that was watched on the bench: it begins with the speed that was there */
const limited = computed(() => (props.trial?.limit.length ? line(props.trial.limitTime.map((t, i) => ({ time: 1000 * t, value: props.trial!.limit[i]! }))) : ''))
const ticks = (most: number) => {
  const step = [1, 2, 5].map((s) => s * 10 ** Math.floor(Math.log10(most / 4))).find((s) => most / s <= 6) ?? 10 ** Math.ceil(Math.log10(most / 4))
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step)
}
/* ---- how it stands: its window, and the place on the bench */
const WINDOW = { left: 596, right: 716 }
const reach = computed(() => Math.max(room.value * 1.3, ...(props.trial?.stand.map(Math.abs) ?? [])) || 1)
const wy = (way: number) => (TOP + BOTTOM) / 2 - (way / reach.value) * ((BOTTOM - TOP) / 2)
const stood = computed(() => {
  const t = props.trial
  if (!t?.stand.length) return ''
  const last = t.standTime.at(-1) || 1
  return t.stand.map((way, i) => `${i ? 'L' : 'M'}${(WINDOW.left + (t.standTime[i]! / last) * (WINDOW.right - WINDOW.left)).toFixed(1)} ${wy(way).toFixed(1)}`).join('')
})
/** Where a grip is: delays behind standstill on their lanes, what goes on to the end at the edge. */
function place(grip: Schemas['StopGrip']) {
  const lane = { brakeDelay: 0, torqueDelay: 1 }[grip.entry]
  if (grip.along === 'WAY') return { x: WINDOW.right - 12, y: wy(grip.height) }
  return { x: grip.time == null ? RIGHT : x(grip.time), y: lane === undefined ? y(grip.height) : LANES[lane]! }
}
const short = (value: number, digits = 4) => plain(Number(value.toPrecision(digits)))
const words = computed(() => {
  const p = props.plan
  return `${props.ask.request} asks at 0 ms. The ramp begins at ${fixed(p.ramp, 1)} ms${p.limit.length ? `, the watch at ${fixed(p.watched, 1)} ms` : ''}; ${p.stands == null ? 'it does not stand' : `it stands at ${fixed(p.stands, 0)} ms`}${p.torque == null ? ', with torque' : `; the torque goes at ${fixed(p.torque, 0)} ms`}${p.brake == null ? '' : `, the brake holds at ${fixed(p.brake, 0)} ms`}.`
})
</script>

<template>
  <figure class="sheet drawing">
    <svg viewBox="0 0 726 266" role="group" :aria-label="words">
      <g class="grid">
        <template v-for="t in ticks(end)" :key="`t${t}`"><line :x1="x(t)" :x2="x(t)" :y1="TOP" :y2="BOTTOM" /><text :x="x(t)" :y="250" text-anchor="middle">{{ short(t) }}</text></template>
        <template v-for="v in ticks(top)" :key="`v${v}`"><line :x1="LEFT" :x2="RIGHT" :y1="y(v)" :y2="y(v)" /><text :x="LEFT - 5" :y="y(v) + 4" text-anchor="end">{{ short(v) }}</text></template>
        <text :x="RIGHT" y="261" text-anchor="end">ms since {{ ask.request }} asks</text><text x="4" y="14">{{ unit }}/s</text>
      </g>
      <clipPath id="stop-plot"><rect :x="LEFT" :y="TOP - 4" :width="RIGHT - LEFT" :height="BOTTOM - TOP + 6" /></clipPath>
      <path v-if="forbidden" class="forbidden" :d="forbidden" /><path v-if="least" class="forbidden" :d="least" />
      <path v-if="limitLine" class="limit" :d="limitLine" />
      <text v-if="limitLine" class="limit-words" :x="Math.min(x(plan.limit[0]!.time) + 14, RIGHT - 84)" :y="TOP + 12">not allowed</text>
      <line class="request" :x1="x(0)" :x2="x(0)" :y1="TOP - 6" :y2="LANES[1]! + 8" />
      <text class="request-words" :x="x(0) + 4" :y="TOP - 9">{{ ask.request }}</text>
      <g class="dimension"><line :x1="x(0)" :x2="x(plan.ramp)" :y1="BOTTOM - 8" :y2="BOTTOM - 8" /><line :x1="x(plan.ramp)" :x2="x(plan.ramp)" :y1="BOTTOM - 14" :y2="BOTTOM" /><text :x="x(plan.ramp) + 3" :y="BOTTOM - 10">{{ short(plan.ramp, 3) }} ms</text></g>
      <path class="predicted" :d="predicted" />
      <g clip-path="url(#stop-plot)"><path v-if="limited" class="watched" :d="limited" /><path v-if="actual" class="actual" :d="actual" /></g>
      <g v-for="(lane, i) in ['brake', 'torque']" :key="lane" class="lane">
        <text :x="LEFT - 5" :y="LANES[i]! + 4" text-anchor="end">{{ lane }}</text>
        <line :x1="LEFT" :x2="RIGHT" :y1="LANES[i]! + 7" :y2="LANES[i]! + 7" />
        <template v-if="lane === 'torque'"><rect class="on" :x="LEFT" :y="LANES[i]! - 7" :width="(plan.torque == null ? RIGHT : x(plan.torque)) - LEFT" height="14" /><text :x="LEFT + 6" :y="LANES[i]! + 4">{{ plan.torque == null ? 'stays on, standstill watched' : `on until ${fixed(plan.torque, 0)} ms` }}</text></template>
        <template v-else-if="plan.brake != null"><rect class="held" :x="x(plan.brake)" :y="LANES[i]! - 7" :width="Math.max(0, RIGHT - x(plan.brake))" height="14" /><text :x="LEFT + 6" :y="LANES[i]! + 4">holds from {{ fixed(plan.brake, 0) }} ms</text></template>
        <text v-else :x="LEFT + 6" :y="LANES[i]! + 4">{{ axis.brake.torque > 0 ? 'stays open' : 'the axis has none' }}</text>
      </g>
      <g v-if="plan.sag > 0" class="sag"><rect :x="x(plan.torque!)" :y="LANES[0]! - 9" :width="Math.max(2, x(plan.brake!) - x(plan.torque!))" :height="LANES[1]! - LANES[0]! + 18" /></g>
      <g v-if="holds" class="window">
        <text :x="WINDOW.left" y="14">place while standing, {{ unit }}</text>
        <rect :x="WINDOW.left" :width="WINDOW.right - WINDOW.left" :y="wy(room)" :height="wy(-room) - wy(room)" />
        <text :x="WINDOW.left + 3" :y="wy(room) - 4">+{{ short(room, 3) }}</text><text :x="WINDOW.left + 3" :y="wy(-room) + 13">−{{ short(room, 3) }}</text>
        <line :x1="WINDOW.left" :x2="WINDOW.right" :y1="wy(0)" :y2="wy(0)" />
        <path v-if="stood" class="actual" :d="stood" />
      </g>
      <g v-else-if="trial && trial.stand.length && trial.sag > 0" class="window">
        <text :x="WINDOW.left" y="14">place after standing, {{ unit }}</text><line :x1="WINDOW.left" :x2="WINDOW.right" :y1="wy(0)" :y2="wy(0)" /><path class="actual" :d="stood" />
      </g>
      <StopGrips v-if="watched" :grips="plan.grips" :rules="watched" :path="path" :unit="unit" :place="place" :per-milli="(RIGHT - LEFT) / (end - begin)" :per-speed="(BOTTOM - TOP) / top" :per-way="(BOTTOM - TOP) / 2 / reach" />
    </svg>
    <figcaption><b class="cmd">╌ predicted</b> <b v-if="trial" class="act">— on the bench</b> <b v-if="limited" class="stop">┈ its limit</b> <span v-if="limitLine"><b class="stop">▨ not allowed</b> by the watch</span> <span v-if="plan.grips.length">◇ drag to change</span> <span v-if="plan.sag > 0" class="stop"><b>▮ nothing holds the load</b></span></figcaption>
    <slot />
    <StopChain :plan="plan" :trial="trial" />
  </figure>
</template>

<style scoped>
.drawing { margin: 0 0 6px; padding: 4px 8px; }
svg { width: 100%; height: auto; max-height: 300px; display: block; font: 11px 'Atkinson Hyperlegible Mono Variable', monospace; fill: var(--pencil); }
.grid line { stroke: var(--hair); } .grid text { fill: var(--pencil); }
.forbidden { fill: var(--stop); fill-opacity: 0.1; } .limit { fill: none; stroke: var(--stop); stroke-width: 1.5; } .limit-words { fill: var(--stop); }
.watched { fill: none; stroke: var(--stop); stroke-width: 1; stroke-dasharray: 2 3; }
.request { stroke: var(--ink); stroke-width: 1.5; } .request-words { fill: var(--ink); font-weight: 600; }
.dimension line { stroke: var(--pencil); } .dimension text { fill: var(--ink); }
.predicted { fill: none; stroke: var(--cmd); stroke-width: 2; stroke-dasharray: 6 4; }
.actual { fill: none; stroke: var(--act); stroke-width: 1.6; }
.lane line { stroke: var(--hair); } .lane text { fill: var(--ink); } .on { fill: var(--cmd); fill-opacity: 0.16; stroke: var(--cmd); } .held { fill: var(--pencil); fill-opacity: 0.25; stroke: var(--pencil); }
.sag rect { fill: var(--stop); fill-opacity: 0.22; stroke: var(--stop); }
.window rect { fill: var(--ok); fill-opacity: 0.1; stroke: var(--ok); } .window line { stroke: var(--hair); } .window text { fill: var(--ink); }
figcaption { font-size: 12.5px; display: flex; gap: 12px; color: var(--pencil); }
.cmd { color: var(--cmd); } .act { color: var(--act); } .stop { color: var(--stop); }
</style>
