<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref } from 'vue'
import { grouped, fixed } from '../../lib/numbers'
import { useBench } from '../../stores/bench'
import { capital } from '../../stores/choices'
import { useDebug } from '../../stores/debug'
import { useMachine } from '../../stores/machine'
import TextEntry from '../TextEntry.vue'
import ValueHistory from './ValueHistory.vue'

/** What a running program does: its tasks and their times, where it is held, watched expressions, and all values, which can be written and forced. */
const machine = useMachine()
const bench = useBench()
const debug = useDebug()
const running = computed(() => bench.state?.program === 'program')
const wanted = ref<string | null>('')
/** Drawing thousands of rows ten times a second helps nobody: the first ones, of those that are wanted. */
const MOST_SHOWN = 200
const found = computed(() => (bench.state?.values ?? []).filter((v) => v.name.toLowerCase().includes((wanted.value ?? '').trim().toLowerCase())))
const shownValues = computed(() => found.value.slice(0, MOST_SHOWN))
const forced = computed(() => new Set(debug.forces.map((f) => f.name.toLowerCase())))
const findings = computed(() => (machine.diagnostics.length ? [] : (machine.answer?.program.findings ?? [])))
const traced = computed(() => new Set(debug.traced.map((t) => t.name.toLowerCase())))
const timed = computed(() => (machine.draft?.plc.statementNanos ?? 0) > 0)
const several = computed(() => (machine.draft?.plc.files.length ?? 0) > 1)
const where = (file: string, line: number) => (several.value && file ? `${file}, line ${line}` : `line ${line}`)

/** the value that is being changed */
const edited = ref('')
const entry = ref('')
function edit(name: string, value: string) {
  edited.value = edited.value === name ? '' : name
  entry.value = value === 'not given' ? '' : value
}
async function put(force: boolean) {
  if (await debug.write(edited.value, entry.value, force)) edited.value = ''
}

const history = ref('')

const added = ref('')
function addWatch() {
  if (added.value.trim()) void debug.setWatches([...debug.watches, added.value.trim()])
  added.value = ''
}
</script>

<template>
  <div v-for="(f, i) in findings" :key="i" class="finding" :class="f.severity.toLowerCase()" data-testid="finding">
    <span class="visually-hidden">{{ f.severity === 'FAULT' ? 'Fault' : 'Warning' }}: </span><b>{{ f.title }}</b><br />
    {{ f.consequence }}
    <button type="button" class="link" @click="debug.show(f.file, f.line)">{{ f.line ? capital(where(f.file, f.line)) : 'Tasks' }}</button>{{ ' ' }}
    <button v-if="f.mend" type="button" class="link" @click="machine.mend(f)">{{ f.mend.label }}</button>
  </div>
  <p v-if="!running" class="empty">Run the program: its times and its values stand here.</p>
  <template v-else>
    <div v-if="debug.held" class="held" role="status" data-testid="held">
      <b>Held in {{ where(debug.held.file, debug.held.line) }}</b>{{ ' ' }}
      <ol v-if="debug.stack.length > 1" aria-label="Calls"><li v-for="(l, i) in debug.stack" :key="i">{{ l.unit }}, {{ where(l.file, l.line) }}</li></ol>
      <span v-else class="sub">of {{ debug.held.unit }}</span>
    </div>
    <v-table class="plain" data-testid="tasks">
      <thead><tr><th>Task</th><th class="end">Last</th><th class="end">Longest</th><th class="end" title="Starts that fell into a cycle that had not ended">Missed</th></tr></thead>
      <tbody>
        <tr v-for="t in debug.now!.tasks" :key="t.name" :title="`${t.programs.join(', ')}: ${grouped(t.cycles)} cycles; began up to ${fixed(t.latestMicros, 1)} µs after it was due`">
          <td>{{ t.name }}</td>
          <td class="mono end" :title="`${grouped(t.statements)} statements`">{{ timed ? `${fixed(t.micros, 1)} µs` : `${t.statements}` }}</td>
          <td class="mono end" :title="t.longestLine ? `most statements of it in ${where(t.longestFile, t.longestLine)}` : ''">{{ timed ? `${fixed(t.longestMicros, 1)} µs` : '' }}</td>
          <td class="mono end" :class="{ wrong: t.missed }">{{ grouped(t.missed) }}</td>
        </tr>
      </tbody>
    </v-table>

    <h2 class="gap">Watch</h2>
    <ul class="watches">
      <li v-for="(w, i) in debug.now!.watches" :key="i"><span>{{ w.expression }}</span><b v-if="w.known" class="mono">{{ w.value }}</b>
        <v-btn :icon="mdiClose" size="x-small" variant="text" :aria-label="`Do not watch ${w.expression}`" title="Remove" @click="debug.setWatches(debug.watches.filter((_, k) => k !== i))" />
        <p v-if="!w.known" class="wrong">{{ w.value }}</p></li>
    </ul>
    <v-text-field v-model="added" class="snug mono" placeholder="Expression, such as Axis.Position > 10" aria-label="Expression to watch" @keydown.enter="addWatch" @blur="addWatch" />

    <template v-if="debug.breakpoints.length">
      <h2 class="gap">Breakpoints</h2>
      <ul class="breakpoints">
        <li v-for="(b, i) in debug.breakpoints" :key="`${b.file}:${b.line}`">
          <span>{{ where(b.file, b.line) }}</span>
          <TextEntry class="mono" :value="b.condition" placeholder="always" :aria-label="`Condition of the breakpoint in ${where(b.file, b.line)}`" title="It holds only when this expression is TRUE" @enter="(c) => debug.condition(b, c)" />
          <v-btn :icon="mdiClose" size="x-small" variant="text" :aria-label="`Remove the breakpoint in ${where(b.file, b.line)}`" title="Remove" @click="debug.toggle(b.file, b.line)" />
          <p v-if="debug.now!.breakpoints[i]?.fault" class="wrong">{{ debug.now!.breakpoints[i]!.fault }}</p>
          <p v-else-if="debug.now!.breakpoints[i]?.standsAt === 0" class="wrong">No statement stands there or behind it.</p>
        </li>
      </ul>
    </template>

    <div class="gap values"><h2>Values</h2><v-btn v-if="debug.forces.length" size="small" color="error" @click="debug.release('')">Release all ({{ debug.forces.length }})</v-btn></div>
    <v-text-field v-if="bench.state!.values.length > 12 || wanted" v-model="wanted" class="snug" placeholder="Part of a name" aria-label="Values whose name has" clearable />
    <v-table class="plain" data-testid="values">
      <tbody>
        <template v-for="value in shownValues" :key="value.name">
          <tr>
            <td>{{ value.name }} <b v-if="forced.has(value.name.toLowerCase())" class="badge">forced</b></td>
            <td class="mono end"><button type="button" class="link" :title="`${value.type}: write or force it`" :aria-expanded="edited === value.name" :aria-label="`${value.name} is ${value.value}: change it`" @click="edit(value.name, value.value)">{{ value.value }}</button></td>
          </tr>
          <tr v-if="edited === value.name" class="change">
            <td colspan="2">
              <v-text-field v-model="entry" class="snug mono" autofocus :aria-label="`New value of ${value.name}`" @keydown.enter="put(false)" @keydown.esc="edited = ''" />
              <v-btn size="small" title="Once; the program may change it again" @click="put(false)">Write</v-btn>
              <v-btn size="small" title="At the beginning and the end of every cycle, until it is released" @click="put(true)">Force</v-btn>
              <v-btn size="small" :title="traced.has(value.name.toLowerCase()) ? 'Takes it out of the trace' : 'Draws it in the trace below'" @click="debug.trace(value.name)">{{ traced.has(value.name.toLowerCase()) ? 'Out of the trace' : 'Trace' }}</v-btn>
              <v-btn size="small" title="When it changed last" :aria-expanded="history === value.name" @click="history = history === value.name ? '' : value.name">History</v-btn>
              <v-btn v-if="forced.has(value.name.toLowerCase())" size="small" @click="debug.release(value.name)">Release</v-btn>
              <ValueHistory v-if="history === value.name" :name="value.name" />
            </td>
          </tr>
        </template>
      </tbody>
    </v-table>
    <p v-if="!found.length" class="empty">No value has this in its name.</p>
    <p v-if="bench.state!.valuesLeftOut" class="empty">{{ grouped(bench.state!.valuesLeftOut) }} further values are not sent here: the program has very many.</p>
    <p v-if="found.length > MOST_SHOWN" class="empty">and {{ grouped(found.length - MOST_SHOWN) }} more: write a part of the name.</p>
  </template>
</template>

<style scoped>
.finding { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; margin: 8px 0; font-size: 13px; }
.finding.fault { border-color: var(--stop); background: var(--stop-wash); }
.gap { margin-top: 12px; }
.end { text-align: right; white-space: nowrap; }
td { overflow-wrap: anywhere; }
.held { border-left: 4px solid var(--warn); background: var(--line-wash); padding: 4px 8px; margin-bottom: 8px; font-size: 13px; }
.held ol { margin: 2px 0 0; padding-left: 18px; }
.held .sub { margin: 0; }
.watches, .breakpoints { list-style: none; margin: 0 0 4px; padding: 0; font-size: 13px; }
.watches li { display: flex; flex-wrap: wrap; gap: 0 6px; align-items: center; border-bottom: 1px dotted var(--hair); }
.watches li span { flex: 1; overflow-wrap: anywhere; }
.watches li b { overflow-wrap: anywhere; text-align: right; max-width: 60%; }
.breakpoints li { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: 6px; align-items: center; }
.watches p { width: 100%; margin: 0 0 4px; }
.breakpoints p { grid-column: 1 / -1; margin: 0 0 4px; }
.wrong { color: var(--stop); font-weight: 600; }
.values { display: flex; justify-content: space-between; align-items: center; }
.badge { color: var(--sheet); background: var(--warn); border-radius: 3px; padding: 0 4px; font-size: 11px; }
.change td { padding-bottom: 6px; }
.change td > * { margin: 2px 4px 2px 0; }
</style>
