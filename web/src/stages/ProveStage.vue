<script setup lang="ts">
import PickOne from '../components/PickOne.vue'
import { useChoices } from '../stores/choices'
import { mdiContentCopy, mdiDelete, mdiDotsVertical, mdiPlus } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Expectation, Schemas } from '../api/client'
import { api } from '../api/client'
import NumberField from '../components/NumberField.vue'
import SentenceField from '../components/SentenceField.vue'
import ProgramEditor from '../components/ProgramEditor.vue'
import TextEntry from '../components/TextEntry.vue'
import { fixed } from '../lib/numbers'
import { placeOf } from '../router'
import { useMachine } from '../stores/machine'
import { useProof } from '../stores/proof'

const machine = useMachine()
const proof = useProof()
const lists = useChoices()
const editing = ref(false)
const expectations = computed(() => machine.proof?.expectations ?? [])
const stale = computed(() => machine.run !== null && machine.run.revision !== machine.revision)
const verdict = computed(() => proof.verdict)
const failed = computed(() => machine.run?.verdicts.filter((v) => !v.holds).length ?? 0)
const unitOf = (e: Expectation) => machine.draft!.axes.find((a) => a.name === e.axis)?.unit.symbol ?? ''

function add(kind: string) {
  const axis = machine.axis!.name
  const made: Record<string, Expectation> = {
    ARRIVES: { kind: 'ARRIVES', axis, after: machine.events.find((e) => e.endsWith('.Execute')) ?? machine.events[0] ?? 'Start', position: 0, tolerance: 0.05, within: 1, stays: 0.1 },
    BOUND: { kind: 'BOUND', axis, quantity: 'SPEED', limit: machine.axis!.limits.max.speed },
    NO_ERROR: { kind: 'NO_ERROR', axis },
    SENTENCE: { kind: 'SENTENCE', text: `ALWAYS(${axis}.position > 0)` },
  }
  machine.edit({ op: 'add', path: `${root.value}/expectations/-`, value: made[kind] })
}
const root = computed(() => `/proofs/${machine.proofIndex}`)
const at = (i: number) => `${root.value}/expectations/${i}`
/** The events of the program, and the one that stands there though the program has it not. */
const eventsFor = (event: string | null | undefined) => [...(event && !machine.events.includes(event) ? [{ code: event, words: `${event}${machine.answer ? ' (not in the program)' : ''}` }] : []), ...machine.events]
const bar = (room: number | null | undefined) => (room == null ? 100 : Math.min(100, Math.max(2, (1 - room) * (room < 0 ? 100 / (1 - room) : 100))))

/** Which file of the program has this name; the first where none has, as in runs of before there were several. */
const fileOf = (name: string) => Math.max(0, machine.draft!.plc.files.findIndex((f) => f.name === name))
/** The file to look at beside a verdict. */
const shownFile = computed(() => fileOf(verdict.value?.order?.file ?? machine.run?.stoppedFile ?? ''))
const inFile = (name: string) => (machine.draft!.plc.files.length > 1 && name ? ` of ${name}` : '')

async function mend() {
  const m = verdict.value?.mend
  if (!m) return
  const at = fileOf(m.file)
  const lines = machine.draft!.plc.files[at]!.source.split('\n')
  if (!lines[m.line - 1]?.includes(m.find)) return
  lines[m.line - 1] = lines[m.line - 1]!.replace(m.find, m.replace)
  machine.set(`/plc/files/${at}/source`, lines.join('\n'))
  await machine.prove()
}
function run(names?: string[]) {
  editing.value = false
  return machine.prove(names)
}

/** How a proof stands, in a word. */
function standing(name: string) {
  const last = machine.runOf(name)
  if (!last) return 'not run yet'
  return (last.holds ? 'holds' : 'does not hold') + (last.revision === machine.revision ? '' : ', the machine has changed since')
}
const choices = computed(() => machine.draft!.proofs
  .map((p, i) => ({ value: i, title: p.group ? `${p.group} · ${p.name}` : p.name, props: { subtitle: standing(p.name), 'data-code': i } }))
  .sort((a, b) => a.title.localeCompare(b.title)))

/** A name that no proof has yet. */
function unused(wanted: string) {
  const taken = machine.draft!.proofs.map((p) => p.name.toLowerCase())
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted} ${n}`
    if (!taken.includes(name.toLowerCase())) return name
  }
}
function put(proof: Schemas['Proof']) {
  machine.edit({ op: 'add', path: '/proofs/-', value: proof })
  machine.proofIndex = machine.draft!.proofs.length - 1
  editing.value = true
}
const begin = () => put({ name: unused('New proof'), group: machine.proof?.group ?? '', duration: 10, expectations: [] })
const copy = () => put({ ...machine.proof!, name: unused(`${machine.proof!.name}, copy`) })
/** What is wrong with the sentences of this proof, and what they may name: asked when they are looked at. */
const texts = computed(() => (editing.value || !machine.run ? expectations.value.flatMap((e) => (e.kind === 'SENTENCE' && e.text ? [e.text] : [])) : []))
const sentences = shallowRef<(Schemas['SentencesAnswer'] & { texts: string[] }) | null>(null)
watch([texts, () => machine.draft?.plc], async () => {
  const about = texts.value
  if (!about.length) return
  const found = await machine.asked((document) => machine.byKey(document, (asked) => api.sentences(asked, about)))
  /* an answer about texts that are no more may come behind a younger one */
  if (found && about === texts.value) sentences.value = { ...found, texts: about }
}, { immediate: true })
const checkOf = (text: string | null | undefined) => sentences.value?.checks[sentences.value.texts.indexOf(text ?? '')]
const mendable = computed(() => {
  const m = verdict.value?.mend
  return Boolean(m && machine.draft!.plc.files[fileOf(m.file)]!.source.split('\n')[m.line - 1]?.includes(m.find))
})
</script>

<template>
  <div class="head">
    <div>
      <div class="which">
        <h1>{{ machine.proof ? `Prove · ${machine.proof.name}` : 'Prove' }}</h1>
        <v-menu v-if="machine.proof">
          <template #activator="{ props }"><v-btn v-bind="props" :icon="mdiDotsVertical" size="x-small" variant="text" aria-label="What can be done with proofs" /></template>
          <v-list density="compact">
            <v-list-item :prepend-icon="mdiPlus" title="New proof" @click="begin" />
            <v-list-item :prepend-icon="mdiContentCopy" title="Copy this proof" @click="copy" />
            <v-list-item :prepend-icon="mdiDelete" title="Remove this proof" @click="machine.edit({ op: 'remove', path: root })" />
          </v-list>
        </v-menu>
      </div>
      <p class="sub" role="status" data-testid="proof-summary">
        <template v-if="!machine.proof">A proof runs the program on the bench and says whether the machine moves as it is meant to.</template>
        <template v-else-if="machine.proving">
          <template v-if="machine.draft!.proofs.length > 1">{{ machine.proving.name }}: </template>
          <template v-if="machine.proving.before">Waiting: {{ machine.proving.before === 1 ? 'another proof runs' : `${machine.proving.before} other proofs run` }} first.</template>
          <template v-else-if="machine.proving.of">Running the program on the bench: {{ fixed(machine.proving.time, 1) }} of {{ fixed(machine.proving.of, 1) }} s <v-progress-linear class="far" :model-value="machine.proving.time" :max="machine.proving.of" color="primary" aria-label="Progress of the proof" /></template>
          <template v-else>Running the program on the bench…</template>
        </template>
        <template v-else-if="!machine.run">Not run yet. Run the proof to see whether the program keeps what is expected.</template>
        <template v-else>
          The program ran for {{ fixed(machine.run.duration, 1) }} s of machine time, computed in {{ fixed(machine.run.computedMillis / 1000, 2) }} s.
          {{ machine.run.verdicts.length - failed }} of {{ machine.run.verdicts.length }} expectations held.
          <b v-if="stale">Revision {{ machine.run.revision }} was proven; the machine has changed since.</b>
        </template>
      </p>
    </div>
    <div v-if="!machine.proof" class="row"><v-btn variant="flat" color="primary" @click="begin">New proof</v-btn></div>
    <div v-else class="row">
      <v-btn v-if="machine.proving" @click="machine.proving.cancel.abort()">Cancel</v-btn>
      <v-btn v-else variant="flat" color="primary" :disabled="machine.diagnostics.length > 0 || machine.faults.length > 0" @click="run()">{{ machine.run ? 'Run again' : 'Run proof' }}</v-btn>
      <v-btn :aria-pressed="editing" @click="editing = !editing">{{ editing ? 'Show verdicts' : 'Change expectations' }}</v-btn>
    </div>
  </div>
  <div v-if="machine.draft!.proofs.length > 1" class="inline chooser">Proof
      <v-select v-model="machine.proofIndex" class="snug proofs" aria-label="Proof" :items="choices" :menu-props="{ contentClass: 'small-list' }" />
      <v-btn v-if="!machine.proving" :disabled="machine.diagnostics.length > 0 || machine.faults.length > 0" @click="run(machine.draft!.proofs.map((p) => p.name))">Run all {{ machine.draft!.proofs.length }}</v-btn>
  </div>
  <p v-if="machine.run?.stopped" class="stopped" role="alert">The program was stopped in line {{ machine.run.stoppedLine }}{{ inFile(machine.run.stoppedFile) }}: {{ machine.run.stopped }}</p>

  <section v-if="machine.proof && (editing || !machine.run)" aria-label="Expectations">
    <div class="inline names">
      <span class="inline">Name <TextEntry class="named" :value="machine.proof.name" maxlength="200" aria-label="Name of the proof" @enter="machine.set(root + '/name', $event.trim())" /></span>
      <span class="inline">Group <TextEntry class="grouped" :value="machine.proof.group" maxlength="80" aria-label="Group of the proof" placeholder="none" @enter="machine.set(root + '/group', $event.trim())" /></span>
      <span class="inline">The program runs for <NumberField hide-label :path="root + '/duration'" label="Duration" :value="machine.proof.duration" unit="s" /></span>
    </div>
    <p v-if="expectations.length === 0" class="empty">Nothing is expected yet. Add a first expectation below.</p>
    <div v-for="(e, i) in expectations" :key="i" class="sheet sentence">
      <SentenceField v-if="e.kind === 'SENTENCE'" :text="e.text ?? ''" :number="i + 1" :check="checkOf(e.text)" :signals="sentences?.signals ?? []" :functions="sentences?.functions ?? []" @enter="(t) => machine.set(at(i) + '/text', t)" />
      <PickOne v-if="e.kind !== 'SENTENCE'" sentence :value="e.axis ?? null" :label="`Axis of expectation ${i + 1}`" :options="machine.draft!.axes.map((a) => a.name)" @pick="(name) => machine.set(at(i) + '/axis', name)" />
      <template v-if="e.kind === 'ARRIVES'">
        arrives at <NumberField hide-label :path="at(i) + '/position'" label="Position" :value="e.position!" :unit="unitOf(e)" /> ± <NumberField hide-label :path="at(i) + '/tolerance'" label="Tolerance" :value="e.tolerance!" :unit="unitOf(e)" />
        within <NumberField hide-label :path="at(i) + '/within'" label="Time" :value="e.within!" unit="s" /> after
        <PickOne sentence :value="e.after ?? null" :label="`Event of expectation ${i + 1}`" :options="eventsFor(e.after)" @pick="(name) => machine.set(at(i) + '/after', name)" />
        and stays <NumberField hide-label :path="at(i) + '/stays'" label="Stays" :value="e.stays!" unit="s" />
      </template>
      <template v-else-if="e.kind === 'BOUND'">
        keeps its
        <PickOne sentence :value="e.quantity ?? null" :label="`Quantity of expectation ${i + 1}`" :options="lists.all.quantities" @pick="(code) => machine.set(at(i) + '/quantity', code)" />
        at or below <NumberField hide-label :path="at(i) + '/limit'" label="Limit" :value="e.limit!" :unit="e.quantity === 'TORQUE' ? 'N·m' : e.quantity === 'SPEED' ? unitOf(e) + '/s' : unitOf(e)" />
      </template>
      <template v-else-if="e.kind === 'NO_ERROR'">and its function blocks report no error</template>
      <v-btn :icon="mdiDelete" class="remove" variant="text" size="x-small" :aria-label="`Remove expectation ${i + 1}`" @click="machine.edit({ op: 'remove', path: at(i) })" />
    </div>
    <div class="row">
      <span v-if="!machine.axis" class="sub">An expectation is about an axis: <router-link :to="placeOf('overview')">add one first</router-link>.</span>
      <PickOne v-else class="adding" label="Add an expectation" :value="null" placeholder="Add an expectation…" :options="lists.all.expectations" @pick="add" />
    </div>
  </section>

  <template v-else-if="machine.run">
    <v-table class="plain verdicts" :class="{ stale }">
      <thead><tr><th>What must be true</th><th>Limit</th><th>Measured</th><th>Room left</th><th>Where</th></tr></thead>
      <tbody>
        <tr v-for="(v, i) in machine.run.verdicts" :key="i" :class="{ failed: !v.holds, on: i === proof.index }" data-testid="verdict" @click="proof.chosen = i">
          <td><button type="button" class="pick" :aria-pressed="i === proof.index" @click.stop="proof.chosen = i"><span aria-hidden="true">{{ v.holds ? '✓' : '✗' }}</span><span class="visually-hidden">{{ v.holds ? 'holds: ' : 'does not hold: ' }}</span> {{ v.sentence }}</button></td>
          <td class="mono">{{ v.limit == null ? '–' : `${fixed(v.limit, v.unit === 'errors' ? 0 : 3)} ${v.unit}` }}</td>
          <td class="mono"><b>{{ v.measured == null ? (v.limit == null ? '–' : 'never') : fixed(v.measured, v.unit === 'errors' ? 0 : 3) }}</b> {{ v.measured == null ? '' : v.unit }}</td>
          <td>
            <span v-if="v.room != null || v.limit != null" class="bar" role="img" :aria-label="v.room == null ? 'no measure' : `${fixed(v.room * 100, 0)} % of the limit left`">
              <span :class="{ over: !v.holds }" :style="{ width: bar(v.room) + '%' }" />
              <i :style="{ left: v.room != null && v.room < 0 ? 100 / (1 - v.room) + '%' : '100%' }" />
            </span>
            <span v-if="v.margin != null" class="mono margin">{{ fixed(v.margin, 3) }} {{ v.unit }}</span><template v-else-if="v.limit == null">–</template>
          </td>
          <td class="mono">{{ fixed(v.time, 3) }} s</td>
        </tr>
      </tbody>
    </v-table>
    <div v-if="verdict" class="below">
      <ProgramEditor class="code" readonly :key="shownFile" :model-value="machine.draft!.plc.files[shownFile]!.source" :diagnostics="[]" :marked="stale ? 0 : (verdict.order?.line ?? machine.run.stoppedLine)" label="Program line responsible" />
      <div class="sheet why">
        <h2>{{ verdict.holds ? 'What was in force there' : 'Why it does not hold' }}</h2>
        <p v-if="verdict.cause">{{ verdict.cause }}</p>
        <p v-if="verdict.order" class="sub">In force at {{ fixed(verdict.time, 3) }} s: {{ verdict.order.words }}, by {{ verdict.order.block }} in line {{ verdict.order.line }}{{ inFile(verdict.order.file) }}.</p>
        <p v-else-if="!verdict.cause" class="sub">No order of the program was in force.</p>
        <p v-if="verdict.mend && mendable" class="mend">{{ verdict.mend.words }} <button type="button" class="link" @click="mend">Try it</button></p>
      </div>
    </div>
  </template>
</template>

<style scoped>
.far { display: inline-block; width: 140px; vertical-align: middle; }
.head { display: flex; justify-content: space-between; gap: 12px; }
.row { display: flex; gap: 8px; align-items: flex-start; margin-top: 4px; }
.inline, .sentence { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
.which { display: flex; align-items: center; gap: 4px; }
.proofs { width: 340px; flex: none; }
.chooser { margin-bottom: 8px; }
.names { margin-bottom: 8px; }
.named { width: 300px; } .grouped { width: 160px; } .adding { width: 220px; }
.sentence { padding: 5px 10px; margin-bottom: 5px; }
.sentence :deep(.field) { width: 108px; }
.remove { margin-left: auto; }
.verdicts tr.failed { background: var(--stop-wash); }
.verdicts tr.on td:first-child { box-shadow: inset 4px 0 var(--ink); }
.verdicts.stale { opacity: 0.75; }
.pick { border: 0; background: none; font: inherit; color: inherit; text-align: left; cursor: pointer; padding: 2px 4px; }
td.mono { white-space: nowrap; }
.bar { position: relative; display: block; width: 84px; height: 12px; background: var(--hair); }
.bar span { position: absolute; inset: 0 auto 0 0; background: var(--ok); }
.bar span.over { background: var(--stop); }
.margin { font-size: 12px; white-space: nowrap; }
.bar i { position: absolute; top: -3px; bottom: -3px; width: 2px; background: var(--ink); }
.below { display: grid; grid-template-columns: 1.15fr 1fr; gap: 10px; margin-top: 8px; height: 216px; }
.code { height: 216px; min-width: 0; }
.why { padding: 6px 10px; overflow: auto; font-size: 13px; }
.why p { margin: 4px 0; }
.mend { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; }
.stopped { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; }
</style>
