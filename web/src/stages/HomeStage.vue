<script setup lang="ts">
import { computed } from 'vue'
import NumberField from '../components/NumberField.vue'
import { fixed } from '../lib/numbers'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const bench = useBench()
const axis = computed(() => machine.axis!)
const at = computed(() => `/axes/${machine.axisIndex}`)
const unit = computed(() => axis.value.unit.symbol)
const here = computed(() => machine.homing?.here ?? null)
const live = computed(() => bench.state?.axes.find((a) => a.name === axis.value.name) ?? null)

const LEFT = 30
const RIGHT = 694
const x = (place: number) => LEFT + ((RIGHT - LEFT) * place) / axis.value.travel.length

/** The detail shows where the search turns and where zero lies, to a scale of its own. */
const detail = computed(() => {
  if (!here.value?.found) return null
  const t = axis.value.travel
  const places = [here.value.zero, here.value.rest, ...here.value.path.slice(-2).flatMap((s) => [s.to])]
  if (axis.value.homing.method === 11) places.push(t.camFrom, t.camTo)
  if (axis.value.homing.method === 17) places.push(t.negativeLimit)
  const low = Math.min(...places)
  const high = Math.max(...places)
  const span = Math.max(high - low, 2)
  const from = low - 0.22 * span
  const to = high + 0.3 * span
  const scale = (place: number) => LEFT + ((RIGHT - LEFT) * (place - from)) / (to - from)
  return { from, to, x: scale }
})
const turn = computed(() => {
  const a = axis.value
  return (a.feed.pitch * a.feed.teeth * a.reducer.outputTurns) / a.reducer.motorTurns
})
const indexes = computed(() => {
  const d = detail.value
  if (!d || axis.value.homing.method !== 11 || !(turn.value > 0)) return []
  const first = Math.ceil(d.from / turn.value)
  return Array.from({ length: Math.min(60, Math.floor(d.to / turn.value) - first + 1) }, (_, i) => (first + i) * turn.value)
})
const edge = computed(() => (axis.value.homing.method === 11 ? axis.value.travel.camTo : axis.value.travel.negativeLimit))
const clip = (px: number) => Math.max(LEFT, Math.min(RIGHT, px))

function choose(event: Event) {
  machine.set(`${at.value}/homing/method`, Number((event.target as HTMLSelectElement).value))
}
</script>

<template>
  <h1>Home · {{ axis.name }}</h1>
  <p class="sub">Say how the axis finds its zero. The drawing is a search carried out on a bench with these entries.</p>
  <div class="sheet sentence">
    <span class="method mono">IEC 61800-7-201 method {{ axis.homing.method }}</span>
    <template v-if="axis.homing.method !== 37">Go toward the negative end until </template>
    <select class="slot" aria-label="What the axis searches for" :value="axis.homing.method" @change="choose">
      <option :value="11">the reference cam turns on</option>
      <option :value="17">the negative limit switch turns on</option>
      <option :value="37">Do not search</option>
    </select>
    <template v-if="axis.homing.method === 11">, back off slowly, then take <b>the next index pulse</b> as zero.</template>
    <template v-else-if="axis.homing.method === 17">, back off slowly, then take <b>the edge of the switch</b> as zero.</template>
    <template v-else>: take <b>the place where the axis stands</b> as zero.</template>
  </div>
  <svg viewBox="0 4 724 220" class="drawing path" role="img" :aria-label="here?.found ? `Path of the search: zero at ${fixed(here.zero, 2)} ${unit} from the negative stop` : 'Path of the search'">
    <path :d="`M${x(0)} 36H${x(axis.travel.length)}`" stroke="var(--ink)" stroke-width="4" />
    <path :d="`M${x(0)} 22V50M${x(axis.travel.length)} 22V50`" stroke="var(--ink)" stroke-width="5" />
    <text :x="x(0)" y="14" text-anchor="middle">stop</text><text :x="x(axis.travel.length)" y="14" text-anchor="middle">stop</text>
    <rect :x="x(0)" y="29" :width="x(axis.travel.negativeLimit) - x(0)" height="14" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
    <text :x="x(0) + 4" y="58">negative limit</text>
    <rect :x="x(axis.travel.positiveLimit)" y="29" :width="x(axis.travel.length) - x(axis.travel.positiveLimit)" height="14" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
    <text :x="x(axis.travel.length) - 4" y="58" text-anchor="end">positive limit</text>
    <rect :x="x(axis.travel.camFrom)" y="27" :width="Math.max(4, x(axis.travel.camTo) - x(axis.travel.camFrom))" height="18" :fill="live?.referenceCam ? 'var(--ref)' : 'var(--sheet)'" stroke="var(--ref)" stroke-width="1.6" />
    <text :x="x(axis.travel.camTo) + 16" y="24" style="fill: var(--ref)">reference cam</text>
    <template v-if="here">
      <circle :cx="x(here.start)" cy="74" r="4" fill="none" stroke="var(--cmd)" stroke-width="2" />
      <text :x="Math.min(x(here.start) + 9, 640)" y="78">starts here</text>
      <template v-for="(s, i) in here.path" :key="i">
        <path :d="`M${x(s.from) + (i === 0 ? (s.to < s.from ? -5 : 5) : 0)} ${74 + i * 9}H${x(s.to)}`" stroke="var(--cmd)" stroke-width="2" stroke-dasharray="7 4" />
        <path :transform="`translate(${x(s.to)} ${74 + i * 9})`" :d="s.to < s.from ? 'M0 0l8 -4v8z' : 'M0 0l-8 -4v8z'" fill="var(--cmd)" />
      </template>
      <text v-if="here.path.length" :x="(x(here.path[0].from) + x(here.path[0].to)) / 2" y="68" text-anchor="middle" class="figure">{{ fixed(here.path[0].speed, 0) }} {{ unit }}/s</text>
    </template>
    <path v-if="live" :transform="`translate(${x(live.place)} 36)`" d="M0 -6l6 -11h-12z" fill="var(--act)" />
    <g v-if="detail && here">
      <path d="M30 108H694" stroke="var(--hair)" />
      <text x="30" y="122">detail, {{ fixed(detail.from, 0) }} to {{ fixed(detail.to, 0) }} {{ unit }} from the negative stop</text>
      <path :d="`M${LEFT} 140H${RIGHT}`" stroke="var(--ink)" stroke-width="2" />
      <rect v-if="axis.homing.method === 11" :x="clip(detail.x(axis.travel.camFrom))" y="130" :width="clip(detail.x(axis.travel.camTo)) - clip(detail.x(axis.travel.camFrom))" height="20" fill="var(--sheet)" stroke="var(--ref)" stroke-width="1.6" />
      <text v-if="axis.homing.method === 11" :x="clip(detail.x(axis.travel.camFrom)) + 5" y="144" style="fill: var(--ref)">cam</text>
      <rect v-if="axis.homing.method === 17" :x="LEFT" y="130" :width="Math.max(0, clip(detail.x(axis.travel.negativeLimit)) - LEFT)" height="20" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
      <path v-for="i in indexes" :key="i" :d="`M${detail.x(i)} 152v6`" stroke="var(--pencil)" />
      <text v-if="indexes.length" x="694" y="122" text-anchor="end">index pulse every {{ fixed(turn, 3) }} {{ unit }}</text>
      <template v-for="(s, i) in here.path.slice(-2)" :key="'d' + i">
        <path :d="`M${clip(detail.x(s.from))} ${166 + i * 12}H${clip(detail.x(s.to))}`" stroke="var(--cmd)" stroke-width="2" stroke-dasharray="7 4" />
        <path :transform="`translate(${clip(detail.x(s.to))} ${166 + i * 12})`" :d="s.to < s.from ? 'M0 0l8 -4v8z' : 'M0 0l-8 -4v8z'" fill="var(--cmd)" />
      </template>
      <path :d="`M${detail.x(here.zero)} 128V204`" stroke="var(--ink)" stroke-dasharray="3 2" />
      <text :x="detail.x(here.zero)" y="218" text-anchor="middle" class="figure">zero</text>
      <template v-if="axis.homing.method !== 37 && Math.abs(detail.x(here.zero) - detail.x(edge)) > 4">
        <path :d="`M${detail.x(edge)} 150V204`" stroke="var(--ref)" stroke-dasharray="3 2" />
        <path :d="`M${detail.x(edge)} 198H${detail.x(here.zero)}`" stroke="var(--ink)" />
        <text :x="detail.x(edge) - 6" y="202" text-anchor="end" class="figure">{{ fixed(here.zero - edge, 2) }} {{ unit }}</text>
      </template>
      <text :x="detail.x(here.rest) > 480 ? detail.x(here.zero) - 22 : detail.x(here.rest) + 12" :y="detail.x(here.rest) > 480 ? 218 : 200" :text-anchor="detail.x(here.rest) > 480 ? 'end' : 'start'" style="fill: var(--act)">comes to rest {{ fixed(here.rest - here.zero, 3) }} {{ unit }} past zero</text>
      <path :d="`M${detail.x(here.rest)} 160V196`" stroke="var(--act)" />
    </g>
    <text v-else-if="here && !here.found" x="362" y="150" text-anchor="middle" style="fill: var(--stop); font-size: 13px">{{ here.message }}</text>
  </svg>
  <div class="row">
    <NumberField :path="`${at}/homing/searchSpeed`" label="Search speed" :value="axis.homing.searchSpeed" :unit="unit + '/s'" />
    <NumberField :path="`${at}/homing/creepSpeed`" label="Creep speed" :value="axis.homing.creepSpeed" :unit="unit + '/s'" />
    <NumberField :path="`${at}/homing/acceleration`" label="Acceleration" :value="axis.homing.acceleration" :unit="unit + '/s²'" />
    <NumberField :path="`${at}/homing/zeroOffset`" label="Zero offset" :value="axis.homing.zeroOffset" :unit="unit" title="Position the axis has at its zero, 607Ch" />
    <v-btn variant="flat" color="primary" class="go" @click="bench.start('HOMING', true)">Run on the bench</v-btn>
  </div>
  <p v-if="bench.state?.program === 'homing' && live" class="sub status" role="status" data-testid="homing-status">
      On the bench: {{ live.homingLeg >= 0 ? `searching, leg ${live.homingLeg + 1}` : live.referenced ? `zero found, standing at ${fixed(live.position, 3)} ${unit}` : live.state }}.
  </p>
  <h2 class="gap">Where the hardware stands, from the negative stop</h2>
  <div class="row">
    <NumberField :path="`${at}/travel/negativeLimit`" label="Negative limit up to" :value="axis.travel.negativeLimit" :unit="unit" />
    <NumberField :path="`${at}/travel/camFrom`" label="Cam from" :value="axis.travel.camFrom" :unit="unit" />
    <NumberField :path="`${at}/travel/camTo`" label="Cam to" :value="axis.travel.camTo" :unit="unit" />
    <NumberField :path="`${at}/travel/positiveLimit`" label="Positive limit from" :value="axis.travel.positiveLimit" :unit="unit" />
    <NumberField :path="`${at}/travel/parkedAt`" label="Axis starts at" :value="axis.travel.parkedAt" :unit="unit" title="Where the axis stands when the bench is switched on" />
  </div>
</template>

<style scoped>
.sentence { font-size: 17px; line-height: 1.75; padding: 6px 12px; }
.method { float: right; font-size: 12px; color: var(--pencil); margin-top: 6px; }
.path { width: 100%; height: auto; margin: 4px 0; }
.row { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: flex-start; }
.go { margin-top: 17px; }
.gap { margin-top: 6px; }
.status { margin: 4px 0 0; font-weight: 650; color: var(--ink); }
</style>
