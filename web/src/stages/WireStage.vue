<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Terminal, type WiringCheck, type Mistake } from '../api/client'
import NumberField from '../components/NumberField.vue'
import { useAxis } from '../lib/axis'
import { fixed, parsed } from '../lib/numbers'
import { useHand } from '../stores/hand'

const { machine, bench, axis, unit, live } = useAxis()
const hand = useHand()
const root = computed(() => `/axes/${machine.axisIndex}/wiring`)
const at = computed(() => `${root.value}/terminals`)

const INPUTS = { NONE: 'not used', NEGATIVE_LIMIT: 'negative limit', POSITIVE_LIMIT: 'positive limit', REFERENCE_CAM: 'reference cam', ENABLE: 'enable', QUICK_STOP: 'quick stop', FAULT_RESET: 'fault reset',
  PROBE_1: 'probe 1', PROBE_2: 'probe 2', JOG_NEGATIVE: 'jog negative', JOG_POSITIVE: 'jog positive', CUE: 'cue', TRIM_BACK: 'trim back', TRIM_FORWARD: 'trim forward',
  SELECTOR_1: 'selector 1', SELECTOR_2: 'selector 2', SELECTOR_4: 'selector 4', SELECTOR_8: 'selector 8', SELECTOR_16: 'selector 16', SELECTOR_32: 'selector 32' }
const OUTPUTS = { NONE: 'not used', READY: 'ready', REFERENCED: 'referenced', IN_POSITION: 'in position', IN_ZONE: 'in zone', MOVING: 'moving', FAULT: 'fault', BRAKE: 'brake' }
const FAULTS: [Mistake, string][] = [
  ['SWAPPED_LIMITS', 'limit switches swapped'], ['NEGATIVE_LIMIT_BROKEN', 'wire of the negative limit broken'], ['POSITIVE_LIMIT_BROKEN', 'wire of the positive limit broken'],
  ['CAM_BROKEN', 'wire of the reference cam broken'], ['NEGATIVE_LIMIT_OTHER_CONTACT', 'negative limit has the other kind of contact'],
  ['CAM_BOUNCES', 'contact of the reference cam bounces'], ['ENCODER_REVERSED', 'encoder counts backward'],
  ['LOAD_ENCODER_REVERSED', 'encoder on the load counts backward'], ['LOAD_ENCODER_BROKEN', 'a line of the encoder on the load broken'],
  ['HOMING_BIT_HELD', 'PLC leaves the homing bit set'],
]

const DIGITAL = ['INPUT', 'FAST_INPUT', 'SAFE_TORQUE_OFF']
interface Row { terminal: Terminal; index: number; bit: number; level: boolean | null; active: boolean; forced: boolean }
const rows = computed<Row[]>(() => {
  let inputs = 0
  let outputs = 0
  return axis.value.wiring.terminals.map((terminal, index) => {
    const output = terminal.kind === 'OUTPUT'
    const bit = output ? outputs++ : DIGITAL.includes(terminal.kind) ? inputs++ : -1
    const has = (mask: number | undefined) => (((mask ?? 0) >> bit) & 1) === 1
    return {
      terminal, index, bit, level: live.value ? has(output ? live.value.outputLevels : live.value.inputLevels) : null,
      active: !output && terminal.function !== 'NONE' && has(live.value?.activeInputs), forced: has(output ? live.value?.forcedOutputs : live.value?.forcedInputs),
    }
  })
})
const inputs = computed(() => rows.value.filter((r) => DIGITAL.includes(r.terminal.kind)))
const analogue = computed(() => rows.value.filter((r) => r.terminal.kind === 'ANALOGUE_INPUT'))
const encoders = computed(() => rows.value.filter((r) => r.terminal.kind === 'SECOND_ENCODER'))
const zone = computed(() => outputs.value.some((r) => r.terminal.function === 'IN_ZONE'))
const volts = ref('0')
const voltage = computed(() => parsed(volts.value))
/** What a function does besides its level, in words. */
function effect(row: Row): string {
  const bit = machine.advice('wire')?.figures.find((f) => f.label === `${row.terminal.name} stands in`)
  if (bit) return bit.value
  if (row.terminal.function === 'PROBE_1' && live.value?.probe1 != null) return `at ${fixed(live.value.probe1, 3)} ${unit.value}`
  if (row.terminal.function === 'PROBE_2' && live.value?.probe2 != null) return `at ${fixed(live.value.probe2, 3)} ${unit.value}`
  return ''
}
const outputs = computed(() => rows.value.filter((r) => r.terminal.kind === 'OUTPUT'))
const doubtful = (index: number) => machine.advice('wire')?.findings.some((f) => f.severity !== 'GOOD' && f.mend?.changes.some((c) => c.path.startsWith(`${at.value}/${index}/`)))

const response = (terminal: Terminal) => machine.advice('wire')?.figures.find((f) => f.label === `${terminal.name} answers in`)

const checks = ref<WiringCheck[] | null>(null)
const trying = ref(false)
const faults = computed<Mistake[]>(() => (bench.condition[axis.value.name] ?? []) as Mistake[])

async function prove() {
  trying.value = true
  await machine.flush()
  const result = await machine.ordered((document, number) => api.wiring(document, number, faults.value))
  trying.value = false
  if (result) checks.value = result
}

function toggle(fault: Mistake) {
  const next = faults.value.includes(fault) ? faults.value.filter((f) => f !== fault) : [...faults.value, fault]
  void bench.setCondition(axis.value.name, next)
}

/** What was proven is proven for these entries and this condition only. */
watch([() => JSON.stringify(axis.value.wiring), () => machine.axisIndex, () => faults.value.join()], () => (checks.value = null))

function force(row: Row, value: string) {
  void hand.order('FORCE', value === '' ? undefined : Number(value), undefined, row.terminal.name)
}
</script>

<template>
  <h1>Wire · {{ axis.name }}</h1>
  <p class="sub">What is wired to the station's terminals, how late it answers, and the proof that it is wired right.</p>
  <div class="station sheet">
    <section aria-label="Inputs">
      <table class="plain">
        <thead><tr><th>Input</th><th>Function</th><th>At rest</th><th>Filter</th><th>Response</th><th>Now</th><th v-if="hand.key">Force</th></tr></thead>
        <tbody>
          <tr v-for="r in inputs" :key="r.index" :class="{ marked: doubtful(r.index) }">
            <td class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}<small v-if="r.terminal.kind === 'FAST_INPUT'"> fast</small></td>
            <td><span v-if="r.terminal.kind === 'SAFE_TORQUE_OFF'" title="Takes the torque away in hardware, at once">safe torque off</span>
              <select v-else class="plain" :value="r.terminal.function" :aria-label="`Function of ${r.terminal.name}`" @change="machine.set(`${at}/${r.index}/function`, ($event.target as HTMLSelectElement).value)">
              <option v-for="(words, key) in INPUTS" :key="key" :value="key">{{ words }}</option></select></td>
            <td><span v-if="r.terminal.kind === 'SAFE_TORQUE_OFF'">closed</span><select v-else-if="r.terminal.function !== 'NONE'" class="plain" :value="r.terminal.normallyClosed ? 'closed' : 'open'" :aria-label="`Contact of ${r.terminal.name}`"
              @change="machine.set(`${at}/${r.index}/normallyClosed`, ($event.target as HTMLSelectElement).value === 'closed')">
              <option value="closed">closed</option><option value="open">open</option></select></td>
            <td><NumberField v-if="r.terminal.function !== 'NONE' && r.terminal.kind !== 'SAFE_TORQUE_OFF'" :path="`${at}/${r.index}/filterMicros`" :label="`Filter of ${r.terminal.name}`" hide-label :value="r.terminal.filterMicros" unit="µs" whole /></td>
            <td class="mono figure" :title="response(r.terminal)?.formula">{{ response(r.terminal)?.value }} {{ response(r.terminal)?.unit }}</td>
            <td><span class="lamp" :class="{ high: r.level }" aria-hidden="true" />{{ r.level === null ? '–' : r.level ? 'high' : 'low' }}<b v-if="r.active" class="active"> active</b><small v-if="effect(r)" class="mono">&ensp;{{ effect(r) }}</small><b v-if="r.forced" class="badge">forced</b></td>
            <td v-if="hand.key"><select class="plain" :aria-label="`Force ${r.terminal.name}`" :value="r.forced ? (r.level ? '1' : '0') : ''" @change="force(r, ($event.target as HTMLSelectElement).value)">
              <option value="">no</option><option value="1">high</option><option value="0">low</option></select></td>
          </tr>
        </tbody>
      </table>
    </section>
    <section aria-label="Outputs" class="outputs">
      <div v-for="r in outputs" :key="r.index" class="out" :class="{ marked: doubtful(r.index) }">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span>
        <select class="plain" :value="r.terminal.function" :aria-label="`Function of ${r.terminal.name}`" @change="machine.set(`${at}/${r.index}/function`, ($event.target as HTMLSelectElement).value)">
          <option v-for="(words, key) in OUTPUTS" :key="key" :value="key">{{ words }}</option></select>
        <select v-if="r.terminal.function !== 'NONE'" class="plain" :value="r.terminal.normallyClosed ? 'low' : 'high'" :aria-label="`Polarity of ${r.terminal.name}`" title="Level when the function is true; the hardware answers in 250 µs"
          @change="machine.set(`${at}/${r.index}/normallyClosed`, ($event.target as HTMLSelectElement).value === 'low')"><option value="high">high when true</option><option value="low">low when true</option></select>
        <span><span class="lamp" :class="{ high: r.level }" aria-hidden="true" />{{ r.level === null ? '–' : r.level ? 'high' : 'low' }}<b v-if="r.forced" class="badge">forced</b></span>
        <select v-if="hand.key" class="plain" :aria-label="`Force ${r.terminal.name}`" :value="r.forced ? (r.level ? '1' : '0') : ''" @change="force(r, ($event.target as HTMLSelectElement).value)">
          <option value="">not forced</option><option value="1">high</option><option value="0">low</option></select>
      </div>
    </section>
    <section aria-label="Analogue input and second encoder" class="outputs others">
      <div v-for="r in analogue" :key="r.index" class="out">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span> ±10 V
        <select class="plain" :value="r.terminal.function" :aria-label="`Function of ${r.terminal.name}`" @change="machine.set(`${at}/${r.index}/function`, ($event.target as HTMLSelectElement).value)">
          <option value="NONE">not used</option><option value="TORQUE">torque</option></select>
        <template v-if="r.terminal.function === 'TORQUE'">
          <NumberField :path="`${root}/analogueTorque`" label="Torque at 10 V" hide-label :value="axis.wiring.analogueTorque" unit="% at 10 V" title="Share of the rated torque that 10 V ask for" wide />
          <span class="mono">{{ live ? `${fixed(live.millivolts / 1000, 2)} V` : '–' }}</span>
          <template v-if="hand.key"><input v-model="volts" class="plain mono" size="4" aria-label="Voltage at the analogue input" @keydown.enter="voltage !== null && hand.order('VOLTAGE', voltage)" /> V
            <v-btn size="small" :disabled="voltage === null || Math.abs(voltage) > 10" title="The bench's hand turns the knob, −10 to 10 V" @click="hand.order('VOLTAGE', voltage!)">Turn the knob</v-btn></template>
        </template>
      </div>
      <div v-for="r in encoders" :key="r.index" class="out" :class="{ marked: doubtful(r.index) }">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span>
        <select class="plain" :value="r.terminal.function" :aria-label="`Function of ${r.terminal.name}`" @change="machine.set(`${at}/${r.index}/function`, ($event.target as HTMLSelectElement).value)">
          <option value="NONE">not used</option><option value="LOAD_ENCODER">encoder on the load</option></select>
        <span v-if="r.terminal.function === 'LOAD_ENCODER'" class="mono">{{ live ? `${live.loadCounts} counts` : '–' }}</span>
      </div>
      <div v-if="zone" class="out">Zone
        <NumberField :path="`${root}/zoneFrom`" label="Zone from" hide-label :value="axis.wiring.zoneFrom" :unit="unit" /> to
        <NumberField :path="`${root}/zoneTo`" label="Zone to" hide-label :value="axis.wiring.zoneTo" :unit="unit" />
      </div>
    </section>
  </div>
  <div class="proof">
    <h2>Wiring proof</h2>
    <v-btn variant="flat" color="primary" :loading="trying" @click="prove">{{ checks ? 'Prove again' : 'Prove the wiring' }}</v-btn>
    <span class="sub">A hand trips each switch: which function answers? Then a slow jog must lead to the positive limit.</span>
  </div>
  <details class="condition" :open="faults.length > 0">
    <summary>Condition of the bench{{ faults.length ? `: ${faults.length} ${faults.length === 1 ? 'mistake' : 'mistakes'} made` : ': wired right' }}</summary>
    <label v-for="[fault, words] in FAULTS" :key="fault"><input type="checkbox" :checked="faults.includes(fault)" :disabled="Boolean(hand.key)" @change="toggle(fault)" /> {{ words }}</label>
  </details>
  <table v-if="checks" class="plain" data-testid="wiring-checks">
    <thead><tr><th>Tried</th><th>Seen</th><th>Verdict</th></tr></thead>
    <tbody>
      <tr v-for="c in checks" :key="c.what" :class="{ failed: !c.holds }">
        <td>{{ c.what }}</td><td>{{ c.seen }}</td>
        <td><b :class="c.holds ? 'ok' : 'stop'">{{ c.holds ? 'right' : 'wrong' }}</b> {{ c.cause }}
          <button v-if="c.mend" type="button" class="link" @click="machine.edit(...c.mend.changes)">{{ c.mend.label }}</button></td>
      </tr>
    </tbody>
  </table>
  <p v-else class="empty">Not proven yet for these entries.</p>
</template>

<style scoped>
.station { padding: 6px 12px 8px; --field-width: 70px; border-left: 8px solid var(--ink); }
.outputs { display: flex; flex-wrap: wrap; gap: 4px 18px; border-top: 1px solid var(--hair); margin-top: 6px; padding-top: 6px; font-size: 13px; }
.others { --field-width: 92px; }
.out { display: flex; gap: 6px; align-items: center; white-space: nowrap; }
.out.marked { background: var(--warn-wash); }
.plain td { padding: 2px 3px; border: 0; }
.plain th { padding: 2px 4px; }
.pin { white-space: nowrap; font-weight: 650; }
.pin small { color: var(--pencil); font-weight: 400; }
.screw { display: inline-block; width: 11px; height: 11px; border: 1.5px solid var(--ink); border-radius: 50%; margin-right: 6px; background: linear-gradient(45deg, transparent 44%, var(--ink) 44% 56%, transparent 56%); }
td:nth-child(2) select.plain { width: 100%; min-width: 116px; }
td:nth-child(3) select.plain { width: 76px; }
td { white-space: nowrap; }
.proof ~ table td { white-space: normal; }
.figure { white-space: nowrap; }
.lamp { display: inline-block; width: 10px; height: 10px; border-radius: 50%; border: 1.5px solid var(--pencil); margin-right: 5px; }
.lamp.high { background: var(--act); border-color: var(--act); }
.active { color: var(--cmd); }
.badge { background: var(--warn); color: var(--sheet); border-radius: 3px; padding: 0 4px; margin-left: 4px; font-size: 11px; }
tr.marked { background: var(--warn-wash); }
tr.failed { background: var(--stop-wash); }
.ok { color: var(--ok); } .stop { color: var(--stop); }
.condition { font-size: 13px; margin-bottom: 6px; }
.condition label { display: inline-block; margin-right: 16px; }
summary { cursor: pointer; font-weight: 650; }
.proof { display: flex; gap: 12px; align-items: center; margin: 10px 0 4px; }
.proof h2, .proof .sub { margin: 0; }
.proof h2 { white-space: nowrap; }
</style>
