<script setup lang="ts">
import PickOne from '../components/PickOne.vue'
import { useChoices } from '../stores/choices'
import { computed, ref, watch } from 'vue'
import { api, type Terminal, type WiringCheck, type Mistake } from '../api/client'
import NumberField from '../components/NumberField.vue'
import { useAxis } from '../lib/axis'
import { fixed, parsed } from '../lib/numbers'
import { placeOf } from '../router'
import { useHand } from '../stores/hand'

const { machine, bench, axis, unit, live } = useAxis()
const hand = useHand()
const root = computed(() => `/axes/${machine.axisIndex}/wiring`)
const at = computed(() => `${root.value}/terminals`)

const choices = useChoices()
const FORCES = [{ code: '', words: 'no' }, { code: '1', words: 'high' }, { code: '0', words: 'low' }]
const digital = (terminal: Terminal) => choices.all.terminals.find((t) => t.kind === terminal.kind)?.digital ?? false
interface Row { terminal: Terminal; index: number; bit: number; level: boolean | null; active: boolean; forced: boolean }
const rows = computed<Row[]>(() => {
  let inputs = 0
  let outputs = 0
  return axis.value.wiring.terminals.map((terminal, index) => {
    const output = terminal.kind === 'OUTPUT'
    const bit = output ? outputs++ : digital(terminal) ? inputs++ : -1
    const has = (mask: number | undefined) => (((mask ?? 0) >> bit) & 1) === 1
    return {
      terminal, index, bit, level: live.value ? has(output ? live.value.outputLevels : live.value.inputLevels) : null,
      active: !output && terminal.function !== 'NONE' && has(live.value?.activeInputs), forced: has(output ? live.value?.forcedOutputs : live.value?.forcedInputs),
    }
  })
})
const inputs = computed(() => rows.value.filter((r) => digital(r.terminal)))
const analogue = computed(() => rows.value.filter((r) => r.terminal.kind === 'ANALOGUE_INPUT'))
const encoders = computed(() => rows.value.filter((r) => r.terminal.kind === 'SECOND_ENCODER'))
const inMove = computed(() => outputs.value.some((r) => /^(ZONE|LIST)_/.test(r.terminal.function)))
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

/** What is wrong on the bench stays in sight. */
const conditionOpen = ref<string | undefined>()
watch(() => (bench.condition[axis.value.name] ?? []).length, (made) => made && (conditionOpen.value = 'condition'), { immediate: true })

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
      <v-table class="plain">
        <thead><tr><th>Input</th><th>Function</th><th>At rest</th><th>Filter</th><th>Response</th><th>Now</th><th v-if="hand.key">Force</th></tr></thead>
        <tbody>
          <tr v-for="r in inputs" :key="r.index" :class="{ marked: doubtful(r.index) }">
            <td class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}<small v-if="r.terminal.kind === 'FAST_INPUT'"> fast</small></td>
            <td><span v-if="r.terminal.kind === 'SAFE_TORQUE_OFF'" title="Takes the torque away in hardware, at once">safe torque off</span>
              <PickOne v-else :value="r.terminal.function" :label="`Function of ${r.terminal.name}`" :options="choices.functionsOf(r.terminal.kind)" @pick="(code) => machine.set(`${at}/${r.index}/function`, code)" /></td>
            <td><span v-if="r.terminal.kind === 'SAFE_TORQUE_OFF'">closed</span><PickOne v-else-if="r.terminal.function !== 'NONE'" :value="r.terminal.normallyClosed ? 'closed' : 'open'" :label="`Contact of ${r.terminal.name}`" :options="['closed', 'open']" @pick="(code) => machine.set(`${at}/${r.index}/normallyClosed`, code === 'closed')" /></td>
            <td><NumberField v-if="r.terminal.function !== 'NONE' && r.terminal.kind !== 'SAFE_TORQUE_OFF'" :path="`${at}/${r.index}/filterMicros`" :label="`Filter of ${r.terminal.name}`" hide-label :value="r.terminal.filterMicros" unit="µs" whole /></td>
            <td class="mono figure" :title="response(r.terminal)?.formula">{{ response(r.terminal)?.value }} {{ response(r.terminal)?.unit }}</td>
            <td><span class="lamp" :class="{ high: r.level }" aria-hidden="true" />{{ r.level === null ? '–' : r.level ? 'high' : 'low' }}<b v-if="r.active" class="active"> active</b><small v-if="effect(r)" class="mono">&ensp;{{ effect(r) }}</small><b v-if="r.forced" class="badge">forced</b></td>
            <td v-if="hand.key"><PickOne :label="`Force ${r.terminal.name}`" :value="r.forced ? (r.level ? '1' : '0') : ''" :options="FORCES" @pick="(code) => force(r, code)" /></td>
          </tr>
        </tbody>
      </v-table>
    </section>
    <section aria-label="Outputs" class="outputs">
      <div v-for="r in outputs" :key="r.index" class="out" :class="{ marked: doubtful(r.index) }">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span>
        <PickOne :value="r.terminal.function" :label="`Function of ${r.terminal.name}`" :options="choices.functionsOf(r.terminal.kind)" @pick="(code) => machine.set(`${at}/${r.index}/function`, code)" />
        <PickOne v-if="r.terminal.function !== 'NONE'" :value="r.terminal.normallyClosed ? 'low' : 'high'" :label="`Polarity of ${r.terminal.name}`" title="Level when the function is true; the hardware answers in 250 µs"
          :options="[{ code: 'high', words: 'high when true' }, { code: 'low', words: 'low when true' }]" @pick="(code) => machine.set(`${at}/${r.index}/normallyClosed`, code === 'low')" />
        <span><span class="lamp" :class="{ high: r.level }" aria-hidden="true" />{{ r.level === null ? '–' : r.level ? 'high' : 'low' }}<b v-if="r.forced" class="badge">forced</b></span>
        <PickOne v-if="hand.key" :label="`Force ${r.terminal.name}`" :value="r.forced ? (r.level ? '1' : '0') : ''" :options="FORCES" @pick="(code) => force(r, code)" />
      </div>
      <p v-if="inMove" class="sub">Zones and list outputs are said in <router-link :to="placeOf('move')">Move</router-link>.</p>
    </section>
    <section aria-label="Analogue input and second encoder" class="outputs others">
      <div v-for="r in analogue" :key="r.index" class="out">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span> ±10 V
        <PickOne :value="r.terminal.function" :label="`Function of ${r.terminal.name}`" :options="choices.functionsOf(r.terminal.kind)" @pick="(code) => machine.set(`${at}/${r.index}/function`, code)" />
        <template v-if="r.terminal.function === 'TORQUE'">
          <NumberField :path="`${root}/analogueTorque`" label="Torque at 10 V" hide-label :value="axis.wiring.analogueTorque" unit="% at 10 V" title="Share of the rated torque that 10 V ask for" wide />
          <span class="mono">{{ live ? `${fixed(live.millivolts / 1000, 2)} V` : '–' }}</span>
          <template v-if="hand.key"><v-text-field v-model="volts" class="snug number typed" aria-label="Voltage at the analogue input" suffix="V" @keydown.enter="voltage !== null && hand.order('VOLTAGE', voltage)" />
            <v-btn size="small" :disabled="voltage === null || Math.abs(voltage) > 10" title="The bench's hand turns the knob, −10 to 10 V" @click="hand.order('VOLTAGE', voltage!)">Turn the knob</v-btn></template>
        </template>
      </div>
      <div v-for="r in encoders" :key="r.index" class="out" :class="{ marked: doubtful(r.index) }">
        <span class="pin mono"><span class="screw" aria-hidden="true" />{{ r.terminal.name }}</span>
        <PickOne :value="r.terminal.function" :label="`Function of ${r.terminal.name}`" :options="choices.functionsOf(r.terminal.kind)" @pick="(code) => machine.set(`${at}/${r.index}/function`, code)" />
        <span v-if="r.terminal.function === 'LOAD_ENCODER'" class="mono">{{ live ? `${live.loadCounts} counts` : '–' }}</span>
      </div>
    </section>
  </div>
  <div class="proof">
    <h2>Wiring proof</h2>
    <v-btn variant="flat" color="primary" :loading="trying" @click="prove">{{ checks ? 'Prove again' : 'Prove the wiring' }}</v-btn>
    <span class="sub">A hand trips each switch: which function answers? Then a slow jog must lead to the positive limit.</span>
  </div>
  <v-expansion-panels v-model="conditionOpen" class="condition" variant="accordion" flat static>
    <v-expansion-panel value="condition">
    <v-expansion-panel-title>Condition of the bench{{ faults.length ? `: ${faults.length} ${faults.length === 1 ? 'mistake' : 'mistakes'} made` : ': wired right' }}</v-expansion-panel-title>
    <v-expansion-panel-text>
    <v-checkbox-btn v-for="m in choices.all.mistakes" :key="m.code" inline :label="m.words" :model-value="faults.includes(m.code as Mistake)" :disabled="Boolean(hand.key)" @update:model-value="toggle(m.code as Mistake)" />
    </v-expansion-panel-text>
    </v-expansion-panel>
  </v-expansion-panels>
  <v-table v-if="checks" class="plain" data-testid="wiring-checks">
    <thead><tr><th>Tried</th><th>Seen</th><th>Verdict</th></tr></thead>
    <tbody>
      <tr v-for="c in checks" :key="c.what" :class="{ failed: !c.holds }">
        <td>{{ c.what }}</td><td>{{ c.seen }}</td>
        <td><b :class="c.holds ? 'ok' : 'stop'">{{ c.holds ? 'right' : 'wrong' }}</b> {{ c.cause }}
          <button v-if="c.mend" type="button" class="link" @click="machine.edit(...c.mend.changes)">{{ c.mend.label }}</button></td>
      </tr>
    </tbody>
  </v-table>
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
.condition { margin-bottom: 6px; }
.condition :deep(.v-expansion-panel) { background: none; color: inherit; }
.condition :deep(.v-expansion-panel-title) { min-height: 30px; padding: 2px 4px; font-size: 13px; font-weight: 700; }
.condition :deep(.v-expansion-panel-text__wrapper) { padding: 2px 4px 8px; display: flex; flex-wrap: wrap; gap: 2px 14px; }
summary { cursor: pointer; font-weight: 650; }
.proof { display: flex; gap: 12px; align-items: center; margin: 10px 0 4px; }
.proof h2, .proof .sub { margin: 0; }
.proof h2 { white-space: nowrap; }
</style>
