<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { fixed } from '../../lib/numbers'
import { useMoves, type Stretch } from '../../stores/moves'
import PlaceOnPlan from './PlaceOnPlan.vue'

/** Position over time as the core has computed it, from the entry chosen as start. Choosing a stretch chooses its entry. */
const { axis, unit } = useAxis()
const moves = useMoves()
const LEFT = 56
const RIGHT = 716
const TOP = 34
const BOTTOM = 176
const plan = computed(() => moves.answer?.plan ?? null)
/** A repeated stretch that is not drawn keeps a twelfth of the width, however long it lasts. */
const GAP = 1 / 12
const gaps = computed(() => plan.value?.stretches.filter((s) => s.what === 'REPEAT') ?? [])
const drawn = computed(() => Math.max(1e-9, (plan.value?.duration ?? 0) - gaps.value.reduce((sum, g) => sum + g.to - g.from, 0)))
const width = computed(() => (RIGHT - LEFT) * Math.max(0.3, 1 - GAP * gaps.value.length))
function x(time: number) {
  let px = LEFT
  let before = 0
  const gap = gaps.value.length ? (RIGHT - LEFT - width.value) / gaps.value.length : 0
  for (const g of gaps.value) {
    if (time <= g.from) break
    px += ((g.from - before) / drawn.value) * width.value
    if (time < g.to) return px + (gap * (time - g.from)) / (g.to - g.from)
    px += gap
    before = g.to
  }
  return px + ((time - before) / drawn.value) * width.value
}
const span = computed(() => {
  let low = Infinity
  let high = -Infinity
  for (const s of plan.value?.stretches ?? []) for (const p of s.places) {
    low = Math.min(low, p)
    high = Math.max(high, p)
  }
  if (!(high >= low)) return { low: 0, high: 1 }
  const room = Math.max((high - low) * 0.08, 1e-3 * Math.max(1, Math.abs(high)))
  return { low: low - room, high: high + room }
})
const y = (place: number) => BOTTOM - ((place - span.value.low) / (span.value.high - span.value.low)) * (BOTTOM - TOP)
const inside = (place: number) => place >= span.value.low && place <= span.value.high
const path = (s: Stretch) => s.times.map((t, i) => `${i ? 'L' : 'M'}${x(t).toFixed(1)} ${y(s.places[i]).toFixed(1)}`).join('')
const moved = (s: Stretch) => s.what === 'MOVE' || s.what === 'RUN'
/** The number of an entry stands once where there is room for it. */
const numbers = computed(() => {
  const all: { entry: number; x: number; y: number }[] = []
  let free = -Infinity
  for (const s of plan.value?.stretches ?? []) {
    if (!moved(s) && s.what !== 'SWITCH' && s.what !== 'DOOR' && s.what !== 'ZERO') continue
    const px = Math.max(LEFT + 11, (x(s.from) + x(s.to)) / 2)
    if (px - free < (s.entry > 99 ? 34 : 20)) continue
    free = px
    all.push({ entry: s.entry, x: px, y: (y(s.places[0]) + y(s.places[s.places.length - 1])) / 2 })
  }
  return all
})
const ticks = computed(() => {
  const total = plan.value?.duration ?? 0
  if (!(total > 0)) return []
  const raw = total / 6
  const step = [1, 2, 5, 10].map((m) => m * 10 ** Math.floor(Math.log10(raw))).find((m) => m >= raw)!
  return Array.from({ length: Math.floor(total / step + 1e-9) + 1 }, (_, i) => i * step).filter((_, i, list) => list.length <= 14 || i % Math.ceil(list.length / 14) === 0)
})
/** The lowest and the highest place, in as many digits as the height shows. */
const levels = computed(() => {
  const size = span.value.high - span.value.low
  const digits = Math.max(0, Math.min(6, 3 - Math.floor(Math.log10(size))))
  return [span.value.low + (size * 0.08) / 1.16, span.value.high - (size * 0.08) / 1.16].map((at) => ({ at, words: String(+at.toFixed(digits)).replace('-', '−').replace(/^−0$/, '0') }))
})
const limits = computed(() => (axis.value.kind === 'ENDLESS' ? [] : [axis.value.limits.softMin, axis.value.limits.softMax].filter(inside)))
/** Zones as they lie on the axis; on an endless one they come again with every turn. */
const zones = computed(() => {
  const { low, high } = span.value
  const turn = axis.value.kind === 'ENDLESS' ? axis.value.modulo : 0
  return (moves.list?.zones ?? []).flatMap((zone, i) => {
    const bands: { number: number; from: number; to: number; said: boolean }[] = []
    const length = turn > 0 ? (((zone.to - zone.from) % turn) + turn) % turn : zone.to - zone.from
    const first = turn > 0 ? Math.floor((low - zone.from - length) / turn) : 0
    const last = turn > 0 ? Math.min(first + 40, Math.ceil((high - zone.from) / turn)) : 0
    for (let k = first; k <= last; k++) {
      const from = Math.max(low, zone.from + k * turn)
      const to = Math.min(high, zone.from + k * turn + length)
      if (to > from) bands.push({ number: i + 1, from, to, said: bands.length === 0 })
    }
    return bands
  })
})
/** Back to an entry that was there before: an arc from the end of a stretch to where that entry began. */
const arcs = computed(() => (plan.value?.jumps ?? []).slice(-24).map((j) => ({ from: x(j.at), to: x(j.to) })).filter((a) => a.from - a.to > 4))
const arc = (a: { from: number; to: number }) => `M${a.from} ${TOP - 4}C${a.from - 6} ${TOP - 4 - rise(a)} ${a.to + 6} ${TOP - 4 - rise(a)} ${a.to} ${TOP - 4}`
/** The longer the way back, the higher the arc, so that they lie one over the other. */
const rise = (a: { from: number; to: number }) => 10 + (26 * (a.from - a.to)) / (RIGHT - LEFT)

const said = computed(() => (plan.value ? `Plan from entry ${plan.value.from}, ${fixed(plan.value.duration, 2)} s` : 'No entry yet'))
</script>

<template>
  <svg viewBox="0 0 724 208" class="drawing strip" role="img" :aria-label="said">
    <rect v-for="(z, i) in zones" :key="'z' + i" :x="LEFT" :y="y(z.to)" :width="RIGHT - LEFT" :height="Math.max(1, y(z.from) - y(z.to))" fill="var(--ok-wash)" stroke="var(--ok)" stroke-width="0.6" />
    <text v-for="(z, i) in zones.filter((z) => z.said)" :key="'zt' + i" :x="RIGHT - 3" :y="y(z.from) - y(z.to) > 13 ? (y(z.from) + y(z.to)) / 2 + 4 : y(z.from) + 12 < BOTTOM ? y(z.from) + 11 : y(z.to) - 3" text-anchor="end">zone {{ z.number }}</text>
    <path :d="`M${LEFT} ${TOP}V${BOTTOM}H${RIGHT}`" fill="none" stroke="var(--hair)" />
    <template v-for="t in ticks" :key="'t' + t">
      <path :d="`M${x(t)} ${BOTTOM}v4`" stroke="var(--pencil)" />
      <text :x="x(t)" :y="BOTTOM + 16" text-anchor="middle">{{ +t.toPrecision(6) }}{{ t === 0 ? ' s' : '' }}</text>
    </template>
    <template v-if="plan">
      <text v-for="(l, i) in levels" :key="'l' + i" :x="LEFT - 5" :y="y(l.at) + 4" text-anchor="end" class="figure">{{ l.words }}</text>
      <text :x="LEFT - 5" :y="TOP - 8" text-anchor="end">{{ unit }}</text>
    </template>
    <template v-for="(l, i) in limits" :key="'s' + i">
      <path :d="`M${LEFT} ${y(l)}H${RIGHT}`" stroke="var(--stop)" stroke-width="1.4" />
      <text :x="RIGHT - 3" :y="y(l) - 3" text-anchor="end" class="fill-stop">soft limit</text>
    </template>
    <template v-for="(a, i) in arcs" :key="'a' + i">
      <path :d="arc(a)" fill="none" stroke="var(--ref)" stroke-width="1.3" />
      <path :transform="`translate(${a.to} ${TOP - 4})`" d="M0 0l-3 -6h6z" fill="var(--ref)" />
    </template>
    <template v-for="(s, i) in plan?.stretches ?? []" :key="i">
      <path v-if="s.what === 'DOOR'" :d="`M${x(s.from)} ${TOP}V${BOTTOM}`" stroke="var(--ref)" stroke-width="3" stroke-dasharray="2 3" />
      <template v-else-if="s.what === 'ZERO'">
        <path :d="`M${x(s.from)} ${TOP}V${BOTTOM}`" stroke="var(--ref)" stroke-width="1.5" />
        <text :x="x(s.from) + 4" :y="TOP + 10" class="fill-ref">zero</text>
      </template>
      <path v-else-if="s.what === 'SWITCH'" :d="`M${x(s.from)} ${y(s.places[0]) - 9}v18`" stroke="var(--ok)" stroke-width="2.5" />
      <template v-else-if="s.what === 'REPEAT'">
        <path :d="path(s)" stroke="var(--pencil)" stroke-width="1.5" stroke-dasharray="1 4" fill="none" />
        <text :x="(x(s.from) + x(s.to)) / 2" :y="BOTTOM - 6" text-anchor="middle">{{ s.rounds }} more</text>
      </template>
      <path v-else :d="path(s)" fill="none" :stroke="s.torque > 1 ? 'var(--stop)' : 'var(--cmd)'" :stroke-width="s.entry === moves.chosen ? 3.4 : 1.8" :stroke-dasharray="s.what === 'RUN' ? '8 4' : undefined" />
      <path :d="path(s)" fill="none" stroke="transparent" stroke-width="14" class="hit" @click="moves.chosen = s.entry"><title>Entry {{ s.entry }}, {{ fixed(s.from, 3) }} to {{ fixed(s.to, 3) }} s{{ s.peak ? `, up to ${+s.peak.toPrecision(4)} ${unit}/s, ${fixed(100 * s.torque, 0)} % of the torque there` : '' }}</title></path>
    </template>
    <g v-for="(n, i) in numbers" :key="'n' + i" class="hit" @click="moves.chosen = n.entry">
      <circle :cx="n.x" :cy="n.y" :r="n.entry > 99 ? 11 : 8" fill="var(--sheet)" :stroke="n.entry === moves.chosen ? 'var(--cmd)' : 'var(--hair)'" stroke-width="1.4" />
      <text :x="n.x" :y="n.y + 4" text-anchor="middle" class="figure">{{ n.entry }}</text>
    </g>
    <PlaceOnPlan :x="x" :y="y" :low="span.low" :high="span.high" :top="TOP" :bottom="BOTTOM" />
    <text v-if="plan" :x="RIGHT" :y="BOTTOM + 27" text-anchor="end">{{ moves.answer!.ending }}</text>
    <text v-if="plan && plan.duration === 0" x="386" y="104" text-anchor="middle" class="said fill-stop">Nothing moves. {{ moves.answer!.ending }}</text>
    <text v-if="!plan" x="386" y="104" text-anchor="middle" class="said">The list is empty: add an entry below, and it is drawn here.</text>
  </svg>
</template>

<style scoped>
.strip { width: 100%; height: auto; display: block; }
.hit { cursor: pointer; }
</style>
