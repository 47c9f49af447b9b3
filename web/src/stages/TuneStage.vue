<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type IdentificationAnswer, type StepAnswer } from '../api/client'
import NumberField from '../components/NumberField.vue'
import TracePlot, { type Line } from '../components/TracePlot.vue'
import { fixed } from '../lib/numbers'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const bench = useBench()
const axis = computed(() => machine.axis!)
const at = computed(() => `/axes/${machine.axisIndex}`)
const unit = computed(() => axis.value.unit.symbol)
const control = computed(() => axis.value.control)

const found = ref<IdentificationAnswer | null>(null)
const response = ref<StepAnswer | null>(null)
const working = ref(false)
let question = 0

async function identify() {
  working.value = true
  await machine.flush()
  const answer = await machine.guarded(() => api.identification(machine.draft!, machine.axisIndex, bench.condition[axis.value.name] ?? []))
  working.value = false
  if (answer) found.value = answer
}

/** The move is made anew for every change of the axis; an answer that has been overtaken is dropped. */
watch(
  () => machine.answer,
  async () => {
    if (!machine.draft || machine.faults.length > 0) return
    const mine = ++question
    const answer = await machine.guarded(() => api.response(machine.draft!, machine.axisIndex))
    if (mine === question && answer) response.value = answer
  },
  { immediate: true },
)
watch(() => machine.axisIndex, async () => {
  found.value = null
  response.value = null
  const mine = ++question
  const answer = await machine.guarded(() => api.response(machine.draft!, machine.axisIndex))
  if (mine === question && answer) response.value = answer
})

const lines = computed<Line[]>(() => response.value && [
  { label: 'following error', unit: unit.value, colour: '--act', values: response.value.followingError, scale: 'error' },
  { label: 'torque', unit: 'N·m', colour: '--ref', values: response.value.torque, scale: 'torque' },
] || [])
const worst = computed(() => (response.value ? Math.max(...response.value.followingError.map(Math.abs)) : 0))

const rows = computed(() => {
  const r = found.value?.result
  if (!r?.done) return []
  return [
    { what: 'Total inertia', value: r.inertia * 1e4, unit: 'kg·cm²' },
    { what: 'Coulomb friction', value: r.coulomb, unit: 'N·m' },
    { what: 'Viscous friction', value: r.viscous * 1000, unit: 'mN·m·s' },
    { what: 'Torque to hold the load', value: r.gravity, unit: 'N·m' },
    { what: 'Highest speed reached', value: r.speed, unit: `${unit.value}/s` },
    { what: 'Highest acceleration reached', value: r.acceleration, unit: `${unit.value}/s²` },
  ]
})
const gains = computed(() => {
  const p = found.value?.proposed
  return p ? [
    { what: 'Position gain', now: control.value.positionGain, next: p.positionGain, unit: '1/s' },
    { what: 'Velocity gain', now: control.value.velocityGain, next: p.velocityGain, unit: 'N·m·s' },
    { what: 'Integral time', now: control.value.integralTime, next: p.integralTime, unit: 'ms' },
  ] : []
})
const taken = computed(() => gains.value.length > 0 && gains.value.every((g) => g.now === g.next))

function accept() {
  machine.edit({ op: 'replace', path: `${at.value}/control`, value: { ...found.value!.proposed! } })
}
</script>

<template>
  <h1>Tune · {{ axis.name }}</h1>
  <p class="sub">Gains, what they cause, and what the bench finds out about the load. Feedback acts every 125 µs.</p>
  <div class="row">
    <NumberField :path="`${at}/control/positionGain`" label="Position gain" :value="control.positionGain" unit="1/s" title="Kv: following error without feed-forward = speed ÷ Kv" />
    <NumberField :path="`${at}/control/velocityGain`" label="Velocity gain" :value="control.velocityGain" unit="N·m·s" title="Kp, N·m·s/rad at the motor" />
    <NumberField :path="`${at}/control/integralTime`" label="Integral time" :value="control.integralTime" unit="ms" title="Ti of the velocity loop" />
    <NumberField :path="`${at}/control/feedForward`" label="Speed feed-forward" :value="control.feedForward" title="0 none, 1 the whole commanded speed" />
    <NumberField :path="`${at}/control/torqueForward`" label="Torque feed-forward" :value="control.torqueForward" title="0 none, 1 the whole torque of the commanded acceleration" />
  </div>
  <section class="sheet response" aria-label="A short move on the bench">
    <div class="keys">Short move on the bench <b class="act">— following error, {{ unit }}</b> <b class="ref">— torque, N·m</b>
      <span v-if="response" class="numbers" data-testid="response">{{ fixed(worst, 4) }} {{ unit }} · {{ fixed(response.peakTorque, 2) }} N·m · {{ response.settled == null ? 'does not settle' : `settles in ${fixed(response.settled * 1000, 0)} ms` }}</span></div>
    <div class="plot"><TracePlot v-if="response" :time="response.time" :lines="lines" label="Following error and torque of a short move" /></div>
  </section>
  <div class="columns">
    <section aria-label="Identification">
      <div class="head"><h2>What the axis moves</h2>
        <v-btn variant="flat" color="primary" :loading="working" @click="identify">{{ found ? 'Identify again' : 'Identify' }}</v-btn></div>
      <p v-if="!found" class="sub">The bench moves the axis there and back at three speeds inside its free travel, and fits torque to motion.</p>
      <p v-else-if="!found.result.done" class="fault-text" role="alert">{{ found.result.message }}</p>
      <table v-else class="plain" data-testid="identified">
        <tbody><tr v-for="r in rows" :key="r.what"><td>{{ r.what }}</td><td class="mono end">{{ fixed(r.value, Math.abs(r.value) < 1 ? 4 : 2) }}</td><td class="unit">{{ r.unit }}</td></tr></tbody>
      </table>
    </section>
    <section v-if="gains.length" aria-label="Proposed gains">
      <div class="head"><h2>Gains for this load</h2>
        <v-btn :disabled="taken" @click="accept">{{ taken ? 'Taken over' : 'Take them over' }}</v-btn></div>
      <table class="plain">
        <thead><tr><th>Gain</th><th>Now</th><th>Proposed</th><th></th></tr></thead>
        <tbody><tr v-for="g in gains" :key="g.what"><td>{{ g.what }}</td><td class="mono">{{ g.now }}</td><td class="mono"><b>{{ g.next }}</b></td><td class="unit">{{ g.unit }}</td></tr></tbody>
      </table>
      <p class="sub">As fast as 50° of phase and a gain margin of 2.5 allow, at most 60 Hz. Undo takes it back.</p>
    </section>
  </div>
</template>

<style scoped>
.row { display: flex; flex-wrap: wrap; gap: 6px 12px; }
.response { margin: 8px 0; padding: 5px 10px; }
.plot { height: 150px; }
.keys { font-size: 12.5px; color: var(--pencil); display: flex; flex-wrap: wrap; gap: 0 12px; white-space: nowrap; }
.numbers { margin-left: auto; color: var(--ink); }
.act { color: var(--act); } .ref { color: var(--ref); }
.columns { display: grid; grid-template-columns: 1fr 1fr; gap: 20px; }
.head { display: flex; gap: 12px; align-items: center; margin-bottom: 4px; }
.head h2 { margin: 0; }
.end { text-align: right; }
.unit { color: var(--pencil); font-size: 12px; }
</style>
