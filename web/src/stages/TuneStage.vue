<script setup lang="ts">
import PickOne from '../components/PickOne.vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type IdentificationAnswer, type Moved, type StepAnswer } from '../api/client'
import NumberField from '../components/NumberField.vue'
import AllowedError from '../components/AllowedError.vue'
import TorqueOperation from '../components/TorqueOperation.vue'
import TracePlot, { type Line } from '../components/TracePlot.vue'
import { useAxis } from '../lib/axis'
import { placeOf } from '../router'
import { fixed } from '../lib/numbers'

const { machine, bench, axis, at, unit } = useAxis()
const control = computed(() => axis.value.control)

const supervision = computed(() => axis.value.supervision)
/** Nothing is tried before the load is entered; the core says what is missing. */
const missing = computed(() => machine.advice('tune')?.findings.find((f) => f.title.startsWith('Enter the '))?.title ?? '')
const moved = ref<Moved | null>(null)
const moving = ref(false)

async function tryMovement() {
  moving.value = true
  await machine.flush()
  const answer = await machine.ordered((document, number) => api.movement(document, number, bench.condition[axis.value.name] ?? []))
  moving.value = false
  if (answer) moved.value = answer
}
/** What was tried was tried with these entries and in this condition. */
watch([() => machine.axisIndex, () => JSON.stringify([axis.value.encoder, axis.value.train, axis.value.load, axis.value.wiring, axis.value.brake]), () => JSON.stringify(bench.condition)], () => (moved.value = null))

const found = ref<IdentificationAnswer | null>(null)
const response = ref<StepAnswer | null>(null)
/** The identification that runs, and how to end it. */
const running = shallowRef<{ move: number; of: number; cancel: AbortController } | null>(null)
let question = 0

async function identify() {
  const cancel = new AbortController()
  running.value = { move: 0, of: 6, cancel }
  await machine.flush()
  try {
    found.value = (await machine.ordered(async (document, number) => {
      try {
        return await api.identification(document, number, bench.condition[axis.value.name] ?? [], (move, of) => (running.value = { move, of, cancel }), cancel.signal)
      } catch (error) {
        if (!cancel.signal.aborted) throw error
      }
    })) ?? found.value
  } finally {
    running.value = null
  }
}

/** What is carried out on the bench to see the gains at work. */
const kind = ref<'move' | 'step'>('move')

/** It is made anew for every change of the axis; an answer that has been overtaken is dropped. */
async function respond() {
  const mine = ++question
  const answer = await machine.asked((document, number, wanted) => machine.byKey(document, (asked) => (kind.value === 'move' ? api.response : api.step)(asked, number, wanted)))
  if (mine === question && answer) response.value = answer
}
watch(() => machine.answer, respond, { immediate: true })
watch([() => machine.axisIndex, kind], ([index], [before]) => {
  if (index !== before) found.value = null
  response.value = null
  void respond()
})

const lines = computed<Line[]>(() => {
  const r = response.value
  if (!r) return []
  const torque = { label: 'torque', unit: 'N·m', colour: '--ref', values: r.torque, scale: 'torque' }
  const made = (error: number[]) => r.commanded.map((c, i) => c - error[i])
  const [what, predicted, measured] = kind.value === 'move' ? ['following error', r.predictedError, r.followingError] : ['position', made(r.predictedError), made(r.followingError)]
  return [
    { label: `${what}, predicted`, unit: unit.value, colour: '--cmd', dashed: true, values: predicted, scale: kind.value },
    { label: `${what}, measured`, unit: unit.value, colour: '--act', values: measured, scale: kind.value },
    torque,
  ]
})
const worst = computed(() => (response.value ? Math.max(...response.value.followingError.map(Math.abs)) : 0))

const rows = computed(() => {
  const r = found.value?.result
  if (!r?.done) return []
  return [
    { what: 'Total inertia', value: r.inertia * 1e4, doubt: r.inertiaDoubt * 1e4, unit: 'kg·cm²' },
    { what: 'Coulomb friction', value: r.coulomb, doubt: r.coulombDoubt, unit: 'N·m' },
    { what: 'Viscous friction', value: r.viscous * 1000, doubt: r.viscousDoubt * 1000, unit: 'mN·m·s' },
    { what: 'Torque to hold the load', value: r.gravity, doubt: r.gravityDoubt, unit: 'N·m' },
    { what: 'Highest speed reached', value: r.speed, doubt: null, unit: `${unit.value}/s` },
    { what: 'Highest acceleration reached', value: r.acceleration, doubt: null, unit: `${unit.value}/s²` },
  ]
})
const proposed = computed(() => found.value?.proposed ?? [])
/** What stands in the document now, so that a proposal taken over, or undone, shows. */
const present = (path: string) => path.split('/').slice(3).reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], axis.value)
const taken = computed(() => proposed.value.length > 0 && proposed.value.every((p) => present(p.path) === p.next))

function accept() {
  machine.edit(...proposed.value.map((p) => ({ op: 'replace', path: p.path, value: p.next })))
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
  <section class="sheet response" aria-label="A move or a step on the bench">
    <div class="keys"><span class="tried">On the bench <PickOne label="Tried on the bench" :value="kind" :options="[{ code: 'move', words: 'a short move' }, { code: 'step', words: 'a step, no feed-forward' }]" @pick="(code) => (kind = code as typeof kind)" /></span>
      <span>{{ kind === 'move' ? 'following error' : 'position' }}, {{ unit }}:</span> <b class="cmd">╌ predicted</b> <b class="act">— measured</b> <b class="ref">— torque, N·m</b>
      <span v-if="response" class="numbers" data-testid="response">{{ kind === 'move' ? `error up to ${fixed(worst, 4)}` : `step of ${fixed(Math.abs(response.commanded[response.commanded.length - 1]), 4)}` }} {{ unit }} · {{ fixed(response.peakTorque, 2) }} N·m · {{ response.cutShort ? 'not at rest when the trial ended' : response.settled == null ? 'does not settle' : `settles in ${fixed(response.settled * 1000, 0)} ms` }} · {{ response.inPosition == null ? 'never in position' : `in position after ${fixed(response.inPosition * 1000, 0)} ms` }}</span></div>
    <div class="plot"><TracePlot v-if="response" :time="response.time" :lines="lines" :label="kind === 'move' ? 'Following error and torque of a short move' : 'Position and torque of a step'" /></div>
  </section>
  <div class="columns">
    <div>
    <section aria-label="Identification">
      <div class="head"><h2>Movement test</h2>
        <v-btn :loading="moving" :disabled="missing !== ''" :title="missing || 'Small, slow, both ways, with at most half the rated torque'" @click="tryMovement">{{ moved ? 'Try again' : 'Try a small movement' }}</v-btn></div>
      <p v-if="missing" class="fault-text" role="status">{{ missing }} It stands in the stage <router-link :to="placeOf('scale')">Scale</router-link>.</p>
      <p v-else-if="moved" role="status" data-testid="moved"><b :class="moved.holds ? 'ok' : 'stop'">{{ moved.holds ? 'Free:' : 'Not right:' }}</b> {{ moved.message }}</p>
      <p v-else class="sub">Is it free, which way does it go, does the encoder count the same way?</p>
      <div class="head"><h2>What the axis moves</h2>
        <v-btn v-if="running" @click="running.cancel.abort()">Cancel</v-btn>
        <v-btn v-else variant="flat" color="primary" :disabled="missing !== ''" @click="identify">{{ found ? 'Identify again' : 'Identify' }}</v-btn></div>
      <p v-if="running" role="status">Move {{ running.move }} of {{ running.of }} <v-progress-linear class="far" :model-value="running.move" :max="running.of" color="primary" aria-label="Identification" /></p>
      <p v-else-if="!found" class="sub">The bench moves the axis there and back at three speeds inside its free travel, and fits torque to motion.</p>
      <p v-else-if="!found.result.done" class="fault-text" role="alert">{{ found.result.message }}</p>
      <p v-if="!running && found?.result.done && !found.result.trusted" class="fault-text" role="alert">{{ found.result.message }}</p>
      <v-table v-if="!running && found?.result.done" class="plain" data-testid="identified">
        <tbody><tr v-for="r in rows" :key="r.what"><td>{{ r.what }}</td><td class="mono end">{{ fixed(r.value, Math.abs(r.value) < 1 ? 4 : 2) }}</td><td class="mono end doubt" :title="r.doubt === null ? '' : 'The value lies within this range: twice its standard error, what the two halves of the data differ by, and the grid of the encoder'">{{ r.doubt === null ? '' : `± ${fixed(r.doubt, Math.abs(r.value) < 1 ? 4 : 2)}` }}</td><td class="unit">{{ r.unit }}</td></tr></tbody>
      </v-table>
    </section>
    <TorqueOperation />
    </div>
    <div>
    <section v-if="found?.result.trusted" aria-label="Proposed gains and limits">
      <div class="head"><h2>Proposed for this load</h2>
        <v-btn v-if="proposed.length" :disabled="taken" @click="accept">{{ taken ? 'Taken over' : 'Take them over' }}</v-btn></div>
      <v-table v-if="proposed.length" class="plain" data-testid="proposed">
        <thead><tr><th>Entry</th><th>Now</th><th>Proposed</th><th></th></tr></thead>
        <tbody><tr v-for="p in proposed" :key="p.path"><td>{{ p.label }}</td><td class="mono">{{ present(p.path) }}</td><td class="mono"><b>{{ p.next }}</b></td><td class="unit">{{ p.unit }}</td></tr></tbody>
      </v-table>
      <p class="sub">{{ proposed.length ? 'Gains as fast as 50° of phase and a gain margin of 2.5 allow, at most 60 Hz; accelerations with a fifth of the torque to spare. Undo takes it back.' : 'Gains and limits suit what was found.' }}</p>
    </section>
    <section aria-label="Supervision">
      <h2>Supervision</h2>
      <div class="row">
        <NumberField :path="`${at}/supervision/positionWindow`" label="Position window" :value="supervision.positionWindow" :unit="unit" title="In position: so near the target, 6067h" />
        <NumberField :path="`${at}/supervision/positionDwell`" label="for at least" :value="supervision.positionDwell" unit="ms" whole title="6068h" />
        <NumberField :path="`${at}/supervision/positionTolerance`" label="warning after" :value="supervision.positionTolerance" unit="ms" whole title="The drive warns when the axis is not in position so long after the setpoint stands; 0 for never" />
        <NumberField :path="`${at}/supervision/standstillWindow`" label="Standstill window" :value="supervision.standstillWindow" :unit="unit" />
        <NumberField :path="`${at}/supervision/standstillDwell`" label="standing for" :value="supervision.standstillDwell" unit="ms" whole />
        <NumberField :path="`${at}/supervision/followingError`" label="Following error" :value="supervision.followingError" :unit="unit" title="Allowed at low speed, 6065h" />
        <NumberField :path="`${at}/supervision/followingFrom`" label="grows from" :value="supervision.followingFrom" :unit="unit + '/s'" />
        <NumberField :path="`${at}/supervision/followingErrorAtSpeed`" label="at highest speed" :value="supervision.followingErrorAtSpeed" :unit="unit" />
        <NumberField :path="`${at}/supervision/followingErrorTime`" label="allowed for" :value="supervision.followingErrorTime" unit="ms" whole title="6066h" />
      </div>
      <AllowedError />
    </section>
    </div>
  </div>
</template>

<style scoped>
.far { display: inline-block; width: 140px; vertical-align: middle; }
.tried { display: inline-flex; gap: 6px; align-items: center; white-space: nowrap; }
.row { display: flex; flex-wrap: wrap; gap: 6px 12px; }
.response { margin: 8px 0; padding: 5px 10px; }
.doubt { white-space: nowrap; }
.plot { height: 150px; }
.keys { font-size: 12.5px; color: var(--pencil); display: flex; flex-wrap: wrap; gap: 0 12px; white-space: nowrap; }
.numbers { margin-left: auto; color: var(--ink); }
.cmd { color: var(--cmd); } .ok { color: var(--ok); } .stop { color: var(--stop); } .act { color: var(--act); } .ref { color: var(--ref); }
.columns { display: grid; grid-template-columns: 1fr 1fr; gap: 20px; }
a { color: var(--cmd); font-weight: 700; }
section + section { margin-top: 10px; }
section p { margin: 2px 0 8px; }
section .row { --field-width: 104px; }
.head { display: flex; gap: 12px; align-items: center; margin-bottom: 4px; }
.head h2 { margin: 0; }
.end { text-align: right; }
.unit { color: var(--pencil); font-size: 12px; }
</style>
