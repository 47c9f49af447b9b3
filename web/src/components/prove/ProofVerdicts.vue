<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { api, type RunView, type Schemas } from '../../api/client'
import { fixed } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'
import { useProof } from '../../stores/proof'
import PickOne from '../PickOne.vue'
import { useTraces, type Shown } from '../../stores/traces'
import { placeOf } from '../../router'
import ProgramEditor from '../ProgramEditor.vue'

/** The verdicts of the chosen proof's newest run; of the chosen one the line of the program and why. */
const machine = useMachine()
const proof = useProof()
const stale = computed(() => machine.run !== null && machine.run.revision !== machine.revision)
const verdict = computed(() => proof.verdict)

/* ---- another run beside it */
const others = shallowRef<Schemas['RunSummary'][]>([])
const other = shallowRef<RunView | null>(null)
watch(() => [machine.run?.id, machine.proof?.name], async () => {
  other.value = null
  const id = machine.run?.id
  const found = machine.run ? await machine.guarded(() => api.runs(machine.id, machine.run!.name)) : undefined
  if (found && machine.run?.id === id) others.value = found.filter((r) => r.id !== id)
}, { immediate: true })
const moment = (at: string) => new Date(at).toLocaleString(undefined, { month: 'short', day: 'numeric', hour: '2-digit', minute: '2-digit', second: '2-digit' })
const compared = computed(() => [{ code: '', words: 'no other run' }, ...others.value.map((r) => ({ code: r.id, words: `${r.holds ? '✓' : '✗'} revision ${r.revision}, ${moment(r.ranAt)}${r.circumstances ? `, ${r.circumstances}` : ''}` }))])
async function compare(code: string) {
  other.value = code ? ((await machine.guarded(() => api.run(Number(code)))) ?? null) : null
}
/** The same sentence in the other run: by its words, else by its place. */
function then(v: Schemas['Verdict'], i: number) {
  return other.value?.verdicts.find((o) => o.sentence === v.sentence) ?? other.value?.verdicts[i] ?? null
}
const difference = (v: Schemas['Verdict'], i: number) => {
  const before = then(v, i)
  if (!before) return '–'
  const change = v.margin != null && before.margin != null ? v.margin - before.margin : null
  return `${before.holds ? '✓' : '✗'} ${before.margin == null ? '' : fixed(before.margin, 3)}${change === null || Math.abs(change) < 5e-4 ? '' : ` (${change > 0 ? '+' : ''}${fixed(change, 3)})`}`
}
const axisOf = computed(() => {
  const name = verdict.value?.signal.split('.')[0]
  return machine.draft!.axes.find((a) => a.name.toLowerCase() === name?.toLowerCase())?.name ?? ''
})
/** The signals that tell of the verdict, in the order of the work. */
function look() {
  const run = { kind: 'RUN' as const, id: machine.run!.id, shift: 0, less: null }
  const axis = axisOf.value
  const named = axis ? [[`${axis}.commandedSpeed`, 0], [`${axis}.speed`, 0], [`${axis}.followingError`, 1], [`${axis}.torque`, 2]] as const : verdict.value?.signal ? [[verdict.value.signal, 0]] as const : []
  void useTraces().show(named.map<Omit<Shown, 'colour'>>(([signal, pane]) => ({ ...run, signal, pane })))
}
const taken = (kind: 'csv' | 'json', axis: string) => `/api/runs/${machine.run!.id}/recording.${kind}${axis ? `?axis=${encodeURIComponent(axis)}` : ''}`
const bar = (room: number | null | undefined) => (room == null ? 100 : Math.min(100, Math.max(2, (1 - room) * (room < 0 ? 100 / (1 - room) : 100))))

/** Which file of the program has this name; the first where none has, as in runs of before there were several. */
const fileOf = (name: string) => Math.max(0, machine.draft!.plc.files.findIndex((f) => f.name === name))
/** The file to look at beside a verdict. */
const shownFile = computed(() => fileOf(verdict.value?.order?.file ?? machine.run?.stoppedFile ?? ''))
const inFile = (name: string) => (machine.draft!.plc.files.length > 1 && name ? ` of ${name}` : '')

async function mend() {
  const { mend: m, change } = verdict.value!
  if (change) machine.edit(...change.changes)
  else if (m) exchange(m)
  await machine.prove()
}
function exchange(m: Schemas['Replacement']) {
  const at = fileOf(m.file)
  const lines = machine.draft!.plc.files[at]!.source.split('\n')
  if (!lines[m.line - 1]?.includes(m.find)) return
  lines[m.line - 1] = lines[m.line - 1]!.replace(m.find, m.replace)
  machine.set(`/plc/files/${at}/source`, lines.join('\n'))
}
/** A change of the document goes by places in it, so only while it is as it was; a line of the program can be looked for. */
const mendable = computed(() => {
  const m = verdict.value?.mend
  if (verdict.value?.change) return !stale.value
  return Boolean(m && machine.draft!.plc.files[fileOf(m.file)]!.source.split('\n')[m.line - 1]?.includes(m.find))
})
</script>

<template>
  <template v-if="machine.run">
    <v-table class="plain verdicts">
      <thead><tr><th>What must be true</th><th v-if="!other">Limit</th><th>Measured</th><th>Room left</th><th>Where</th><th v-if="other">Room of the other</th></tr></thead>
      <tbody>
        <tr v-for="(v, i) in machine.run.verdicts" :key="i" :class="{ failed: !v.holds, on: i === proof.index }" data-testid="verdict" @click="proof.chosen = i">
          <td><button type="button" class="pick" :aria-pressed="i === proof.index" @click.stop="proof.chosen = i"><span aria-hidden="true">{{ v.holds ? '✓' : '✗' }}</span><span class="visually-hidden">{{ v.holds ? 'holds: ' : 'does not hold: ' }}</span> {{ v.sentence }}</button></td>
          <td v-if="!other" class="mono">{{ v.limit == null ? '–' : `${fixed(v.limit, v.unit === 'errors' ? 0 : 3)} ${v.unit}` }}</td>
          <td class="mono"><b>{{ v.measured == null ? (v.limit == null ? '–' : 'never') : fixed(v.measured, v.unit === 'errors' ? 0 : 3) }}</b> {{ v.measured == null ? '' : v.unit }}</td>
          <td>
            <span v-if="v.room != null || v.limit != null" class="bar" role="img" :aria-label="v.room == null ? 'no measure' : `${fixed(v.room * 100, 0)} % of the limit left`">
              <span :class="{ over: !v.holds }" :style="{ width: bar(v.room) + '%' }" />
              <i :style="{ left: v.room != null && v.room < 0 ? 100 / (1 - v.room) + '%' : '100%' }" />
            </span>
            <span v-if="v.margin != null" class="mono margin">{{ fixed(v.margin, 3) }} {{ v.unit }}</span><template v-else-if="v.limit == null">–</template>
          </td>
          <td class="mono">{{ fixed(v.time, 3) }} s</td>
          <td v-if="other" class="mono" data-testid="other-room">{{ difference(v, i) }}</td>
        </tr>
      </tbody>
    </v-table>
    <div class="tools">
      <template v-if="others.length">Compare with <PickOne class="compared" label="Run to compare with" :value="other?.id ?? ''" :options="compared" @pick="compare" /></template>
      <span class="out">Recording:
        <template v-if="axisOf"><a class="link" :href="taken('csv', axisOf)" download>{{ axisOf }} as CSV</a>, </template>
        <a class="link" :href="taken('csv', '')" download>all as CSV</a>, <router-link class="link" :to="placeOf('traces')" @click="look">Traces</router-link>, <a class="link" :href="taken('json', axisOf)" download>{{ axisOf || 'all' }} as JSON</a></span>
    </div>
    <div v-if="verdict" class="below">
      <ProgramEditor class="code" readonly :key="shownFile" :model-value="machine.draft!.plc.files[shownFile]!.source" :diagnostics="[]" :marked="stale ? 0 : (verdict.order?.line ?? machine.run.stoppedLine)" label="Program line responsible" />
      <div class="sheet why">
        <h2>{{ verdict.holds ? 'What was in force there' : 'Why it does not hold' }}</h2>
        <p v-if="verdict.cause">{{ verdict.cause }}</p>
        <p v-if="verdict.order" class="sub">In force at {{ fixed(verdict.time, 3) }} s: {{ verdict.order.words }}, {{ verdict.order.block ? `by ${verdict.order.block} ` : '' }}in line {{ verdict.order.line }}{{ inFile(verdict.order.file) }}.</p>
        <p v-else-if="!verdict.cause" class="sub">No order of the program was in force.</p>
        <p v-if="machine.run.happened.length" class="sub">Script: {{ machine.run.happened.slice(0, 6).map((h) => `at ${fixed(h.time, 3)} s ${h.words}`).join('; ') }}{{ machine.run.happened.length > 6 ? `; and ${machine.run.happened.length - 6} more` : '' }}.</p>
        <p v-if="mendable" class="mend">{{ verdict.change?.label ?? verdict.mend!.words }} <button type="button" class="link" @click="mend">Try it</button></p>
      </div>
    </div>
  </template>
</template>

<style scoped>
.verdicts tr.failed { background: var(--stop-wash); }
.verdicts tr.on td:first-child { box-shadow: inset 4px 0 var(--ink); }
.pick { border: 0; background: none; font: inherit; color: inherit; text-align: left; cursor: pointer; padding: 2px 4px; }
td.mono { white-space: nowrap; }
.bar { position: relative; display: block; width: 84px; height: 12px; background: var(--hair); }
.bar span { position: absolute; inset: 0 auto 0 0; background: var(--ok); }
.bar span.over { background: var(--stop); }
.margin { font-size: 12px; white-space: nowrap; }
.bar i { position: absolute; top: -3px; bottom: -3px; width: 2px; background: var(--ink); }
.tools { display: flex; gap: 6px; align-items: center; margin-top: 6px; font-size: 13px; }
.compared { width: 300px; flex: none; } .out { margin-left: auto; } .out a { color: var(--cmd); }
.below { display: grid; grid-template-columns: 1.15fr 1fr; gap: 10px; margin-top: 8px; height: 216px; }
.code { height: 216px; min-width: 0; }
.why { padding: 6px 10px; overflow: auto; font-size: 13px; }
.why p { margin: 4px 0; }
.mend { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; }
</style>
