<script setup lang="ts">
import { computed, ref } from 'vue'
import { useAxis } from '../../lib/axis'
import { fixed } from '../../lib/numbers'
import { useMoves, type Stretch } from '../../stores/moves'
import PlaceOnPlan from './PlaceOnPlan.vue'
import PlanEnds from './PlanEnds.vue'

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
/** Points nearer than this are one, px. */
const FINEST = 0.7
/** Ends nearer than this cannot be told apart, px; that of the chosen entry is always there. */
const APART = 34
const gaps = computed(() => plan.value?.stretches.filter((s) => s.what === 'REPEAT') ?? [])
const drawn = computed(() => Math.max(1e-9, (plan.value?.duration ?? 0) - gaps.value.reduce((sum, g) => sum + g.to - g.from, 0)))
const width = computed(() => (RIGHT - LEFT) * Math.max(0.3, 1 - GAP * gaps.value.length))
/** The scales are made once for a plan: a thousand points ask for them. */
const scaleOfTime = computed(() => {
  const wide = width.value
  const whole = drawn.value
  const all = gaps.value
  const gap = all.length ? (RIGHT - LEFT - wide) / all.length : 0
  return (time: number) => {
    let px = LEFT
    let before = 0
    for (const g of all) {
      if (time <= g.from) break
      px += ((g.from - before) / whole) * wide
      if (time < g.to) return px + (gap * (time - g.from)) / (g.to - g.from)
      px += gap
      before = g.to
    }
    return px + ((time - before) / whole) * wide
  }
})
const x = (time: number) => scaleOfTime.value(time)
/** The scale of places stands still while an end is dragged. */
const still = ref<{ low: number; high: number } | null>(null)
const span = computed(() => {
  if (still.value) return still.value
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
const scaleOfPlace = computed(() => {
  const { low, high } = span.value
  return (place: number) => BOTTOM - ((place - low) / (high - low)) * (BOTTOM - TOP)
})
const y = (place: number) => scaleOfPlace.value(place)
const inside = (place: number) => place >= span.value.low && place <= span.value.high
/** The points of a stretch that can be told apart as they are drawn, and always its ends. */
function path(s: Stretch) {
  let d = ''
  let px = -Infinity
  let py = -Infinity
  const last = s.places.length - 1
  const [x, y] = [scaleOfTime.value, scaleOfPlace.value]
  s.places.forEach((place, i) => {
    const [a, b] = [x(last ? s.from + ((s.to - s.from) * i) / last : s.from), y(place)]
    if (i > 0 && i < last && Math.abs(a - px) < FINEST && Math.abs(b - py) < FINEST) return
    d += `${i ? 'L' : 'M'}${a.toFixed(1)} ${b.toFixed(1)}`
    px = a
    py = b
  })
  return d
}
/** What is drawn alike is one line, so that a list of any length is a handful of elements. */
const lines = computed(() => {
  const drawings = new Map<string, string>()
  const draw = (kind: string, d: string) => drawings.set(kind, (drawings.get(kind) ?? '') + d)
  for (const s of plan.value?.stretches ?? []) {
    if (s.what === 'DOOR' || s.what === 'ZERO') draw(s.what.toLowerCase(), `M${x(s.from).toFixed(1)} ${TOP}V${BOTTOM}`)
    else if (s.what === 'SWITCH') draw('switch', `M${x(s.from).toFixed(1)} ${(y(s.places[0]) - 9).toFixed(1)}v18`)
    else if (s.what === 'REPEAT') draw('repeat', path(s))
    else draw(`curve${s.what === 'RUN' ? ' run' : ''}${s.torque > 1 ? ' over' : ''}${s.entry === moves.chosen ? ' chosen' : ''}`, path(s))
  }
  return [...drawings].map(([kind, d]) => ({ kind, d }))
})
const zeros = computed(() => (plan.value?.stretches ?? []).filter((s) => s.what === 'ZERO'))

/** The stretch under the pointer; of those that are too short to be hit, the nearest. */
const under = ref<Stretch | null>(null)
function stretchAt(event: MouseEvent) {
  const drawing = (event.currentTarget as SVGElement).ownerSVGElement!
  const px = (event.clientX - drawing.getBoundingClientRect().left) * (724 / drawing.clientWidth)
  let best: Stretch | null = null
  let nearest = Infinity
  for (const s of plan.value?.stretches ?? []) {
    const away = Math.max(x(s.from) - px, px - x(s.to), 0) + Math.min(3, x(s.to) - x(s.from)) / 2
    if (away < nearest) [best, nearest] = [s, away]
  }
  return best
}
function choose(what: { entry: number } | null) {
  if (what) moves.chosen = what.entry
}
const told = computed(() => {
  const s = under.value
  if (!s) return ''
  return `Entry ${s.entry}, ${fixed(s.from, 3)} to ${fixed(s.to, 3)} s${s.peak ? `, up to ${+s.peak.toPrecision(4)} ${unit.value}/s, ${fixed(100 * s.torque, 0)} % of the torque there` : ''}`
})
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

/** Ends that can be dragged: of each entry where it is drawn first. */
const ends = computed(() => {
  const seen = new Set<number>()
  let free = -Infinity
  return (plan.value?.stretches ?? []).filter((s) => {
    if (!moved(s) || seen.has(s.entry)) return false
    seen.add(s.entry)
    if (!moves.movable[s.entry] || (s.entry !== moves.chosen && x(s.to) - free < APART)) return false
    free = x(s.to)
    return true
  })
})

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
      <path :transform="`translate(${a.to} ${TOP - 4})`" d="M0 0l-3 -6h6z" class="head" />
    </template>
    <rect class="hit" :x="LEFT" :y="TOP" :width="RIGHT - LEFT" :height="BOTTOM - TOP" fill="transparent" @pointermove="(e) => (under = stretchAt(e))" @click="(e) => choose(stretchAt(e))"><title>{{ told }}</title></rect>
    <clipPath id="plot-of-moves"><rect :x="LEFT - 2" :y="TOP - 2" :width="RIGHT - LEFT + 4" :height="BOTTOM - TOP + 4" /></clipPath>
    <g :clip-path="still ? 'url(#plot-of-moves)' : undefined"><path v-for="l in lines" :key="l.kind" :d="l.d" :class="l.kind" /></g>
    <text v-for="(z, i) in zeros" :key="'o' + i" :x="x(z.from) + 4" :y="TOP + 10" class="fill-ref">zero</text>
    <text v-for="(s, i) in gaps" :key="'g' + i" :x="(x(s.from) + x(s.to)) / 2" :y="BOTTOM - 6" text-anchor="middle">{{ s.rounds }} more</text>
    <g v-for="(n, i) in numbers" :key="'n' + i" class="hit" @click="choose(n)">
      <circle :cx="n.x" :cy="n.y" :r="n.entry > 99 ? 11 : 8" fill="var(--sheet)" :stroke="n.entry === moves.chosen ? 'var(--cmd)' : 'var(--hair)'" stroke-width="1.4" />
      <text :x="n.x" :y="n.y + 4" text-anchor="middle" class="figure">{{ n.entry }}</text>
    </g>
    <PlanEnds :ends="ends" :x="x" :y="y" :low="span.low" :high="span.high" :top="TOP" :bottom="BOTTOM" @held="(on) => (still = on ? span : null)" />
    <PlaceOnPlan :x="x" :y="y" :low="span.low" :high="span.high" :top="TOP" :bottom="BOTTOM" />
    <text v-if="plan" :x="RIGHT" :y="BOTTOM + 27" text-anchor="end">{{ moves.answer!.ending }}</text>
    <text v-if="plan && plan.duration === 0" x="386" y="104" text-anchor="middle" class="said fill-stop">Nothing moves. {{ moves.answer!.ending }}</text>
    <text v-if="!plan" x="386" y="104" text-anchor="middle" class="said">The list is empty: add an entry below, and it is drawn here.</text>
  </svg>
</template>

<style scoped>
.strip { width: 100%; height: auto; display: block; contain: layout paint style; }
.hit { cursor: pointer; }
path { fill: none; }
path.curve { stroke: var(--cmd); stroke-width: 1.8; pointer-events: none; }
path.run { stroke-dasharray: 8 4; }
path.over { stroke: var(--stop); }
path.chosen { stroke-width: 3.4; }
path.door { stroke: var(--ref); stroke-width: 3; stroke-dasharray: 2 3; }
path.zero { stroke: var(--ref); stroke-width: 1.5; }
path.switch { stroke: var(--ok); stroke-width: 2.5; }
path.head { fill: var(--ref); }
path.repeat { stroke: var(--pencil); stroke-width: 1.5; stroke-dasharray: 1 4; }
</style>
