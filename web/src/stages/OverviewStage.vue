<script setup lang="ts">
import FaultText from '../components/FaultText.vue'
import { computed, ref, watch } from 'vue'
import { api, type Finding, type Schemas } from '../api/client'
import RevisionList from '../components/RevisionList.vue'
import TextEntry from '../components/TextEntry.vue'
import NewAxis from '../components/NewAxis.vue'
import { markOf } from '../lib/marks'
import { moment } from '../lib/times'
import { placeOf, stages, type StageKey } from '../router'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const overview = ref<Schemas['MachineOverview'] | null>(null)
watch(() => machine.draft, async () => {
  const given = await machine.asked((document) => api.overview(document))
  if (given) overview.value = given
}, { immediate: true })

const ofAxes = stages.filter((s) => s.ofAxis)
const found = (stage: StageKey, axis: number): Finding[] | null => machine.adviceOf(stage, axis)?.findings ?? null

/** State of a stage for one axis, as the ribbon says it for all. */
function mark(stage: StageKey, axis: number) {
  const findings = found(stage, axis)
  const count = (severity: Finding['severity']) => findings?.filter((f) => f.severity === severity).length ?? 0
  /* a stage that finds nothing good either has not been planned */
  if (stage === 'guard' && findings?.length === 0) return markOf('not started')
  return markOf(findings ? { faults: count('FAULT'), warnings: count('WARNING') } : 'not known')
}

/** So many proofs are named one by one. */
const FEW = 3
interface Line { stage: StageKey; title: string; axis: string; words: string; kind: 'fault' | 'warning' | 'open' }
const title = (key: string) => stages.find((s) => s.key === key)?.title ?? key
/** What is left to do: not entered yet, then faults, then warnings, each in the order of the work. */
const left = computed<Line[]>(() => {
  const lines: Line[] = (overview.value?.toDo ?? []).map((t) => ({ stage: t.stage as StageKey, title: title(t.stage), axis: t.axis, words: t.words, kind: 'open' }))
  const proofs = machine.draft?.proofs ?? []
  const due = machine.runKnown ? proofs.filter((p) => p.expectations.length && machine.runOf(p.name)?.revision !== machine.revision) : []
  const one = (words: string): Line => ({ stage: 'prove', title: 'Prove', axis: '', words, kind: 'open' })
  /* many proofs are one thing to do, and hide nothing else */
  if (due.length > FEW) lines.push(one(`Run ${due.length} proofs: ${due.some((p) => machine.runOf(p.name)) ? 'the machine has changed since, or they have not run yet' : 'they have not run yet'}`))
  else for (const proof of due) {
    const which = proofs.length > 1 ? `the proof “${proof.name}”` : 'the proof'
    lines.push(one(machine.runOf(proof.name) ? `Run ${which} again: the machine has changed since` : `Run ${which}`))
  }
  for (const severity of ['FAULT', 'WARNING'] as const) {
    for (const stage of stages) {
      machine.draft?.axes.forEach((axis, i) => {
        for (const f of stage.ofAxis ? (found(stage.key, i) ?? []) : []) {
          if (f.severity === severity) lines.push({ stage: stage.key, title: stage.title, axis: axis.name, words: f.title, kind: severity === 'FAULT' ? 'fault' : 'warning' })
        }
      })
      if (severity === 'FAULT' && stage.key === 'prove') for (const v of proofs.flatMap((p) => machine.runOf(p.name)?.verdicts.filter((v) => !v.holds) ?? [])) lines.push({ stage: 'prove', title: 'Prove', axis: '', words: `Does not hold: ${v.sentence}`, kind: 'fault' })
      if (stage.key === 'program') for (const f of machine.answer?.program.findings ?? []) if (f.severity === severity) lines.push({ stage: 'program', title: 'Program', axis: '', words: f.title, kind: severity === 'FAULT' ? 'fault' : 'warning' })
      if (severity === 'FAULT' && stage.key === 'program') for (const d of machine.diagnostics.slice(0, 5)) lines.push({ stage: 'program', title: 'Program', axis: '', words: `Line ${d.line}: ${d.message}`, kind: 'fault' })
    }
  }
  return lines
})
const proven = computed(() => (machine.draft?.proofs ?? []).flatMap((p) => machine.runOf(p.name) ?? []))
const shown = ref(12)
</script>

<template>
  <div class="overview">
    <header>
      <h1><TextEntry class="name" :value="machine.draft!.name" aria-label="Name of the machine" title="Name of the machine" maxlength="80" @enter="machine.set('/name', $event.trim())" /></h1>
      <p class="sub">{{ overview?.bus }} · revision {{ machine.revision }}</p>
      <FaultText v-if="machine.fault('/name')" :fault="machine.fault('/name')!" />
    </header>
    <section v-if="machine.draft!.axes.length === 0" class="begin" aria-label="Begin">
      <h2>Begin with an axis</h2>
      <p class="sub">Name it and say what moves its load. Every other entry begins with a usual value.</p>
      <NewAxis />
    </section>
    <section v-else aria-label="Axes at a glance">
      <v-table density="compact" class="sheet">
        <thead><tr><th>Axis</th><th>Mechanism</th><th>Travel</th><th>Top speed</th><th>Reference</th><th v-for="s in ofAxes" :key="s.key" class="stage-mark">{{ s.title }}</th></tr></thead>
        <tbody>
          <tr v-for="(row, i) in overview?.axes ?? []" :key="row.name">
            <td><button type="button" class="link" :aria-label="`Choose ${row.name}`" @click="machine.axisIndex = i">{{ row.name }}</button></td>
            <td class="whole">{{ row.mechanism }}</td><td class="mono whole">{{ row.travel }}</td><td class="mono whole">{{ row.speed }}</td><td>{{ row.homing }}</td>
            <td v-for="s in ofAxes" :key="s.key" class="stage-mark">
              <router-link :to="placeOf(s.key, row.name)" :title="`${s.title} of ${row.name}: ${mark(s.key, i).words}`" :aria-label="`${s.title} of ${row.name}: ${mark(s.key, i).words}`"><span class="state-mark mono" :class="mark(s.key, i).kind">{{ mark(s.key, i).text }}</span></router-link>
            </td>
          </tr>
        </tbody>
      </v-table>
    </section>
    <div class="columns">
      <section aria-label="Left to do">
        <h2>Left to do</h2>
        <p v-if="left.length === 0" class="empty">{{ machine.answer ? 'Nothing that Rueda knows of. Run the proof, and hand over.' : 'Not known yet.' }}</p>
        <ol v-else class="left">
          <li v-for="(line, i) in left.slice(0, shown)" :key="i"><span class="state-mark" :class="line.kind" :title="line.kind === 'open' ? 'not entered yet' : line.kind" />
            <router-link :to="placeOf(line.stage, line.axis || undefined)">{{ line.title }}{{ line.axis ? ` · ${line.axis}` : '' }}</router-link> {{ line.words }}</li>
        </ol>
        <button v-if="left.length > shown" type="button" class="link" @click="shown = left.length">{{ left.length - shown }} more</button>
        <h2 class="gap">{{ machine.draft!.proofs.length > 1 ? 'Last proofs' : 'Last proof' }}</h2>
        <p v-if="proven.length === 0" class="empty">{{ machine.runKnown ? 'Not run yet.' : 'Not known yet.' }} <router-link :to="placeOf('prove')">Prove</router-link></p>
        <template v-else>
          <template v-for="run in proven" :key="run.id">
          <p class="sub">{{ run.name }} · {{ moment(run.ranAt) }} · revision {{ run.revision }}{{ run.revision === machine.revision ? '' : ', the machine has changed since' }}</p>
          <p v-if="run.stopped" class="fault-text">Stopped: {{ run.stopped }}</p>
          <ol class="left">
            <li v-for="(v, i) in run.verdicts" :key="i"><span class="state-mark" :class="v.holds ? 'good' : 'fault'" :title="v.holds ? 'holds' : 'does not hold'" /> <span class="visually-hidden">{{ v.holds ? 'Holds:' : 'Does not hold:' }}</span> {{ v.sentence }}</li>
          </ol>
          </template>
          <router-link :to="placeOf('prove')">Prove</router-link>
        </template>
      </section>
      <RevisionList />
    </div>
  </div>
</template>

<style scoped>
.name { font: inherit; font-size: 21px; font-weight: 740; border: 0; border-bottom: 1px dashed var(--field-line); background: none; color: var(--ink); width: 100%; max-width: 640px; padding: 0; }
.begin { max-width: 520px; }
.whole { white-space: nowrap; }
.stage-mark, .v-table th.stage-mark { text-align: center; padding: 0 2px !important; }
.stage-mark a { display: inline-block; padding: 4px 8px; text-decoration: none; }
.columns { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 28px; margin-top: 14px; }
.left { list-style: none; margin: 0; padding: 0; }
.left li { padding: 3px 0; border-bottom: 1px dotted var(--hair); }
.left .state-mark { margin-right: 7px; }
a { color: var(--cmd); font-weight: 650; }
.left a { color: var(--cmd); font-weight: 650; }
.gap { margin-top: 16px; }
.empty { padding: 4px 0; }
@media (max-width: 1000px) { .columns { grid-template-columns: minmax(0, 1fr); } }
</style>
