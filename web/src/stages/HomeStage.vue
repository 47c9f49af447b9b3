<script setup lang="ts">
import PickOne from '../components/PickOne.vue'
import { computed } from 'vue'
import NumberField from '../components/NumberField.vue'
import { useAxis } from '../lib/axis'
import { fixed } from '../lib/numbers'

const { machine, bench, axis, at, unit, live } = useAxis()
const here = computed(() => machine.homing?.here ?? null)

const LEFT = 30
const RIGHT = 694
const endless = computed(() => axis.value.kind === 'ENDLESS')
/** An endless axis is drawn over the turn in which it starts, and as far beyond as the search goes. */
const span = computed(() => {
  if (!endless.value) return { from: 0, to: axis.value.travel.length }
  const places = [0, axis.value.travel.length, ...(here.value?.path.flatMap((s) => [s.from, s.to]) ?? []), here.value?.zero ?? 0]
  return { from: Math.min(...places), to: Math.max(...places) }
})
const x = (place: number) => LEFT + ((RIGHT - LEFT) * (place - span.value.from)) / (span.value.to - span.value.from)
const method = computed(() => axis.value.homing.method)
const sentences = computed(() => machine.homing?.sentences ?? [])
const said = computed(() => sentences.value.find((s) => s.method === method.value) ?? sentences.value.find((s) => s.method === 37) ?? null)
/** An encoder is offered when it can know the position, or when it is chosen already. */
const powerUps = computed(() => {
  const all: [string, string][] = [['NOTHING', 'it does not know where it is']]
  if (axis.value.encoder.kind === 'ABSOLUTE' || axis.value.homing.atPowerUp === 'MOTOR_ENCODER') all.push(['MOTOR_ENCODER', 'the motor encoder tells the position'])
  if (axis.value.loadEncoder.use !== 'NONE' || axis.value.homing.atPowerUp === 'LOAD_ENCODER') all.push(['LOAD_ENCODER', 'the encoder on the load tells the position'])
  return all
})
const usesCam = computed(() => (method.value >= 3 && method.value <= 14) || (method.value >= 19 && method.value <= 30))
/** A cam of an endless axis comes again with every turn. */
const cams = computed(() => {
  const t = axis.value.travel
  if (t.camTo <= t.camFrom) return []
  if (!endless.value) return [{ from: t.camFrom, to: t.camTo }]
  const list = []
  for (let k = Math.floor(span.value.from / t.length) - 1; k * t.length < span.value.to; k++) list.push({ from: t.camFrom + k * t.length, to: t.camTo + k * t.length })
  return list.filter((c) => c.to > span.value.from && c.from < span.value.to)
})
const edge = computed(() => {
  const place = machine.homing?.edge
  if (place == null) return null
  if (!endless.value || !here.value) return place
  const turn = axis.value.travel.length
  return place + Math.round((here.value.zero - place) / turn) * turn
})
const indexEvery = computed(() => machine.homing?.indexEvery ?? 0)

/** The detail shows where the search turns and where zero lies, to a scale of its own. */
const detail = computed(() => {
  if (!here.value?.found) return null
  const places = [here.value.zero, here.value.rest, ...here.value.path.slice(-2).map((s) => s.to)]
  if (edge.value !== null) places.push(edge.value)
  const low = Math.min(...places)
  const high = Math.max(...places)
  const width = Math.max(high - low, 1.2 * indexEvery.value, 1e-3 * (span.value.to - span.value.from))
  const from = low - 0.22 * width
  const to = from + 1.52 * width
  return { from, to, x: (place: number) => LEFT + ((RIGHT - LEFT) * (place - from)) / (to - from) }
})
const indexes = computed(() => {
  const d = detail.value
  if (!d || indexEvery.value <= 0 || !here.value) return []
  const first = Math.ceil((d.from - here.value.zero) / indexEvery.value)
  const last = Math.floor((d.to - here.value.zero) / indexEvery.value)
  return Array.from({ length: Math.max(0, Math.min(60, last - first + 1)) }, (_, i) => here.value!.zero + (first + i) * indexEvery.value)
})
const clip = (px: number) => Math.max(LEFT, Math.min(RIGHT, px))
const digits = computed(() => (indexEvery.value > 0 && indexEvery.value < 1 ? 4 : 2))

const restLeft = computed(() => (detail.value && here.value ? detail.value.x(here.value.rest) > 420 : false))

type Slot = 'search' | 'direction' | 'zero' | 'side'
/** A slot offers only what fits the slots before it. */
function options(slot: Slot) {
  const now = said.value
  if (!now) return []
  const order: Slot[] = ['search', 'direction', 'zero', 'side']
  const before = order.slice(0, order.indexOf(slot))
  return [...new Set(sentences.value.filter((s) => before.every((b) => s[b] === now[b])).map((s) => s[slot]))]
}

/** Takes the method that says the chosen word and as much of the rest as can be kept. */
function choose(slot: Slot, value: string) {
  const now = said.value!
  const others = (['search', 'zero', 'direction', 'side'] as Slot[]).filter((s) => s !== slot)
  const fitting = sentences.value.filter((s) => s[slot] === value)
  const kept = (s: (typeof fitting)[number]) => others.reduce((sum, o, i) => sum + (s[o] === now[o] ? 8 >> i : 0), 0)
  const best = fitting.reduce((a, b) => (kept(b) > kept(a) ? b : a))
  machine.set(`${at.value}/homing/method`, best.method)
}

/** Position shown for a place of the drawing: an endless axis begins again after its turn. */
const shown = (place: number) => (endless.value ? place - Math.floor(place / axis.value.travel.length) * axis.value.travel.length : place)
</script>

<template>
  <h1>Home · {{ axis.name }}</h1>
  <p class="sub">Say how the axis finds its zero. The drawing is a search carried out on a bench with these entries.</p>
  <div v-if="said" class="sheet sentence">
    <span class="method mono">{{ method > 0 ? 'IEC 61800-7-201 method ' + method : 'method \u2212' + -method + ', our own' }}</span>
    Look for
    <PickOne sentence label="What the axis searches for" :value="said.search" :options="options('search')" @pick="(word) => choose('search', word)" />
    <template v-if="said.direction">, going
      <PickOne sentence label="Direction of the search" :value="said.direction" :disabled="options('direction').length === 1" :options="options('direction')" @pick="(word) => choose('direction', word)" /></template>, then take
    <PickOne sentence label="What is taken as zero" :value="said.zero" :disabled="options('zero').length === 1" :options="options('zero')" @pick="(word) => choose('zero', word)" />
    <PickOne v-if="said.side" sentence label="Where zero lies" :value="said.side" :disabled="options('side').length === 1" :options="options('side')" @pick="(word) => choose('side', word)" />
    as zero, and afterwards
    <PickOne sentence label="What the axis does afterwards" :value="axis.homing.thenToZero ? 'travel' : 'stay'" :options="[{ code: 'stay', words: 'stay where it came to rest' }, { code: 'travel', words: `travel to 0 ${unit}` }]" @pick="(code) => machine.set(`${at}/homing/thenToZero`, code === 'travel')" />.
    <template v-if="method !== 37 && method !== 35">It searches
    <PickOne sentence label="When the axis searches" :value="axis.homing.onFirstEnable ? 'enable' : 'order'" :options="[{ code: 'order', words: 'when it is ordered' }, { code: 'enable', words: 'by itself at the first enable' }]" @pick="(code) => machine.set(`${at}/homing/onFirstEnable`, code === 'enable')" />.</template>
    At power-up
    <PickOne sentence label="What tells the position at power-up" :value="axis.homing.atPowerUp" :options="powerUps.map(([code, words]) => ({ code, words }))" @pick="(code) => machine.set(`${at}/homing/atPowerUp`, code)" />.
  </div>
  <svg viewBox="0 4 724 220" class="drawing path" role="img" :aria-label="here?.found ? `Path of the search: zero at ${fixed(shown(here.zero), 2)} ${unit} ${endless ? 'of the turn' : 'from the negative stop'}` : 'Path of the search'">
    <path :d="`M${x(span.from)} 36H${x(span.to)}`" stroke="var(--ink)" stroke-width="4" :stroke-dasharray="endless ? '14 4' : undefined" />
    <template v-if="!endless">
      <path :d="`M${x(0)} 22V50M${x(axis.travel.length)} 22V50`" stroke="var(--ink)" stroke-width="5" />
      <text :x="x(0)" y="14" text-anchor="middle">stop</text><text :x="x(axis.travel.length)" y="14" text-anchor="middle">stop</text>
      <rect :x="x(0)" y="29" :width="x(axis.travel.negativeLimit) - x(0)" height="14" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
      <text :x="x(0) + 4" y="58">negative limit</text>
      <rect :x="x(axis.travel.positiveLimit)" y="29" :width="x(axis.travel.length) - x(axis.travel.positiveLimit)" height="14" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
      <text :x="x(axis.travel.length) - 4" y="58" text-anchor="end">positive limit</text>
    </template>
    <template v-for="(cam, i) in cams" :key="'cam' + i">
      <rect :x="clip(x(cam.from))" y="27" :width="Math.max(4, clip(x(cam.to)) - clip(x(cam.from)))" height="18" :fill="live?.referenceCam ? 'var(--ref)' : 'var(--sheet)'" stroke="var(--ref)" stroke-width="1.6" />
      <text v-if="i === 0" :x="Math.min(clip(x(cam.to)) + 8, 640)" y="24" class="fill-ref">reference cam</text>
    </template>
    <text v-if="endless" x="694" y="58" text-anchor="end">one turn {{ fixed(axis.travel.length, 2) }} {{ unit }}</text>
    <template v-if="here">
      <circle :cx="x(here.start)" cy="74" r="4" fill="none" stroke="var(--cmd)" stroke-width="2" />
      <text :x="Math.min(x(here.start) + 9, 640)" y="78">starts here</text>
      <template v-for="(s, i) in here.path" :key="i">
        <path :d="`M${x(s.from) + (i === 0 ? (s.to < s.from ? -5 : 5) : 0)} ${74 + i * 9}H${x(s.to)}`" stroke="var(--cmd)" stroke-width="2" stroke-dasharray="7 4" />
        <path :transform="`translate(${x(s.to)} ${74 + i * 9})`" :d="s.to < s.from ? 'M0 0l8 -4v8z' : 'M0 0l-8 -4v8z'" fill="var(--cmd)" />
      </template>
      <text v-if="here.path.length && Math.abs(x(here.path[0].from) - x(here.path[0].to)) > 60" :x="(x(here.path[0].from) + x(here.path[0].to)) / 2" y="68" text-anchor="middle" class="figure">{{ fixed(here.path[0].speed, here.path[0].speed < 10 ? 2 : 0) }} {{ unit }}/s</text>
    </template>
    <path v-if="live && (!endless || here)" :transform="`translate(${clip(x(live.place))} 36)`" d="M0 -6l6 -11h-12z" fill="var(--act)" />
    <g v-if="detail && here && here.path.length">
      <path d="M30 108H694" stroke="var(--hair)" />
      <text x="30" y="122">detail, {{ fixed(shown(detail.from), 2) }} to {{ fixed(shown(detail.to), 2) }} {{ unit }} {{ endless ? 'of the turn' : 'from the negative stop' }}</text>
      <path :d="`M${LEFT} 140H${RIGHT}`" stroke="var(--ink)" stroke-width="2" />
      <template v-if="usesCam">
        <rect v-for="(cam, i) in cams" v-show="clip(detail.x(cam.to)) > clip(detail.x(cam.from))" :key="'dc' + i" :x="clip(detail.x(cam.from))" y="130" :width="Math.max(0, clip(detail.x(cam.to)) - clip(detail.x(cam.from)))" height="20" fill="var(--sheet)" stroke="var(--ref)" stroke-width="1.6" />
      </template>
      <rect v-if="!endless && !usesCam && detail.from < axis.travel.negativeLimit" :x="clip(detail.x(0))" y="130" :width="Math.max(0, clip(detail.x(axis.travel.negativeLimit)) - clip(detail.x(0)))" height="20" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
      <rect v-if="!endless && !usesCam && detail.to > axis.travel.positiveLimit" :x="clip(detail.x(axis.travel.positiveLimit))" y="130" :width="Math.max(0, clip(detail.x(axis.travel.length)) - clip(detail.x(axis.travel.positiveLimit)))" height="20" fill="var(--sheet)" stroke="var(--stop)" stroke-width="1.6" />
      <path v-for="i in indexes" :key="i" :d="`M${detail.x(i)} 152v6`" stroke="var(--pencil)" />
      <text v-if="indexes.length" x="694" y="122" text-anchor="end">index pulse every {{ fixed(indexEvery, 3) }} {{ unit }}</text>
      <template v-for="(s, i) in here.path.slice(-2)" :key="'d' + i">
        <path :d="`M${clip(detail.x(s.from))} ${166 + i * 12}H${clip(detail.x(s.to))}`" stroke="var(--cmd)" stroke-width="2" stroke-dasharray="7 4" />
        <path :transform="`translate(${clip(detail.x(s.to))} ${166 + i * 12})`" :d="s.to < s.from ? 'M0 0l8 -4v8z' : 'M0 0l-8 -4v8z'" fill="var(--cmd)" />
      </template>
      <path :d="`M${detail.x(here.zero)} 128V204`" stroke="var(--ink)" stroke-dasharray="3 2" />
      <text :x="detail.x(here.zero)" y="218" text-anchor="middle" class="figure">zero</text>
      <template v-if="edge !== null && Math.abs(detail.x(here.zero) - detail.x(edge)) > 4">
        <path :d="`M${detail.x(edge)} 150V204`" stroke="var(--ref)" stroke-dasharray="3 2" />
        <path :d="`M${detail.x(edge)} 198H${detail.x(here.zero)}`" stroke="var(--ink)" />
        <text :x="edge < here.zero ? detail.x(edge) - 6 : detail.x(edge) + 6" y="202" :text-anchor="edge < here.zero ? 'end' : 'start'" class="figure">{{ fixed(Math.abs(here.zero - edge), digits) }} {{ unit }}</text>
      </template>
      <text :x="restLeft ? Math.min(detail.x(here.zero), detail.x(here.rest)) - 22 : Math.max(detail.x(here.zero), detail.x(here.rest)) + 22" y="218" :text-anchor="restLeft ? 'end' : 'start'" class="fill-act">comes to rest {{ fixed(Math.abs(here.rest - here.zero), digits + 1) }} {{ unit }} {{ here.rest < here.zero ? 'before' : 'past' }} zero</text>
      <path :d="`M${detail.x(here.rest)} 160V196`" stroke="var(--act)" />
    </g>
    <text v-else-if="here && !here.found" x="362" y="150" text-anchor="middle" class="fill-stop said">{{ here.message }}</text>
    <text v-else-if="here" x="362" y="150" text-anchor="middle" class="said">The axis does not move: zero is where it stands.</text>
  </svg>
  <div class="row entries">
    <NumberField :path="`${at}/homing/searchSpeed`" label="Search speed" :value="axis.homing.searchSpeed" :unit="unit + '/s'" />
    <NumberField :path="`${at}/homing/creepSpeed`" label="Creep speed" :value="axis.homing.creepSpeed" :unit="unit + '/s'" />
    <NumberField :path="`${at}/homing/acceleration`" label="Acceleration" :value="axis.homing.acceleration" :unit="unit + '/s²'" />
    <NumberField :path="`${at}/homing/zeroOffset`" label="Zero offset" :value="axis.homing.zeroOffset" :unit="unit" title="Position the axis has at its zero, 607Ch" />
    <template v-if="method < 0">
      <NumberField :path="`${at}/homing/stopTorque`" label="Torque at the stop" :value="axis.homing.stopTorque" unit="%" title="Share of the rated torque at which the stop counts" />
      <NumberField :path="`${at}/homing/stopTime`" label="pressed for" :value="axis.homing.stopTime" unit="ms" whole />
    </template>
    <NumberField v-if="axis.homing.atPowerUp !== 'NOTHING'" :path="`${at}/homing/encoderOffset`" label="Encoder offset" :value="axis.homing.encoderOffset" :unit="unit" title="Position the axis has where the encoder reads 0" />
    <NumberField :path="`${at}/homing/timeLimit`" label="Time limit" :value="axis.homing.timeLimit" unit="s" title="The search fails when it takes longer" />
    <v-btn variant="flat" color="primary" class="go" @click="bench.start('HOMING', true)">Run on the bench</v-btn>
  </div>
  <p v-if="bench.state?.program === 'homing' && live" class="sub status" role="status" data-testid="homing-status">
      On the bench: {{ live.homingLeg >= 0 ? `searching, leg ${live.homingLeg + 1}` : live.referenced ? `zero found, standing at ${fixed(live.position, 3)} ${unit}` : live.state }}.
  </p>
  <h2 class="gap">Where the hardware stands, {{ endless ? 'within one turn of the load' : 'from the negative stop' }}</h2>
  <div class="row">
    <NumberField :path="`${at}/travel/length`" :label="endless ? 'One turn' : 'Way between the stops'" :value="axis.travel.length" :unit="unit" />
    <NumberField v-if="!endless" :path="`${at}/travel/negativeLimit`" label="Negative limit up to" :value="axis.travel.negativeLimit" :unit="unit" />
    <NumberField :path="`${at}/travel/camFrom`" label="Cam from" :value="axis.travel.camFrom" :unit="unit" />
    <NumberField :path="`${at}/travel/camTo`" label="Cam to" :value="axis.travel.camTo" :unit="unit" />
    <NumberField v-if="!endless" :path="`${at}/travel/positiveLimit`" label="Positive limit from" :value="axis.travel.positiveLimit" :unit="unit" />
    <NumberField :path="`${at}/travel/parkedAt`" label="Axis starts at" :value="axis.travel.parkedAt" :unit="unit" title="Where the axis stands when the bench is switched on" />
  </div>
</template>

<style scoped>
.sentence { font-size: 17px; line-height: 1.75; padding: 6px 12px; }
.method { float: right; font-size: 12px; color: var(--pencil); margin-top: 6px; }
.path { width: 100%; height: auto; margin: 4px 0; }
.row { display: flex; flex-wrap: wrap; gap: 6px 14px; align-items: flex-start; }
.entries { --field-width: 104px; }
.go { margin-top: 17px; }
.gap { margin-top: 6px; }
.status { margin: 4px 0 0; font-weight: 650; color: var(--ink); }
</style>
