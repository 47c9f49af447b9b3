<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '../api/client'
import { api } from '../api/client'
import ProblemNote from '../components/ProblemNote.vue'
import ProgramEditor from '../components/ProgramEditor.vue'
import TextEntry from '../components/TextEntry.vue'
import { downloadBlob } from '../lib/download'
import { kindOf, valueOf } from '../lib/names'
import { useProblem } from '../lib/problems'
import { mdiDebugStepInto, mdiDebugStepOut, mdiDebugStepOver, mdiFormatIndentIncrease, mdiRayEndArrow } from '@mdi/js'
import AxisStates from '../components/program/AxisStates.vue'
import FindInFiles from '../components/program/FindInFiles.vue'
import NameBar from '../components/program/NameBar.vue'
import TagUses from '../components/program/TagUses.vue'
import TaskList from '../components/program/TaskList.vue'
import { useBench } from '../stores/bench'
import { useDebug } from '../stores/debug'
import { useMachine } from '../stores/machine'
import { useProgramFolder } from '../stores/programFolder'

const machine = useMachine()
const bench = useBench()
const folder = useProgramFolder()
const debug = useDebug()
const nameBar = ref<InstanceType<typeof NameBar> | null>(null)
/** what stands in the place of a text */
const other = ref<'tasks' | 'tags' | 'find' | 'states' | null>(null)
const OTHERS = [{ key: 'tasks', words: 'Tasks' }, { key: 'tags', words: 'Tags' }, { key: 'find', words: 'Find' }, { key: 'states', words: 'Axis states' }] as const
const cursor = ref({ line: 1, column: 1 })
const editor = ref<InstanceType<typeof ProgramEditor> | null>(null)
const { problem, tried, tooLarge } = useProblem()
const chosen = ref(0)
const told = ref<string[]>([])
const files = computed(() => machine.draft!.plc.files)
const index = computed(() => Math.min(chosen.value, files.value.length - 1))
const file = computed(() => files.value[index.value]!)
const running = computed(() => bench.state?.program === 'program' && !bench.behind)
const fault = computed(() => (running.value ? (bench.state?.fault ?? null) : null))
const ran = computed(() => (running.value ? (bench.state?.ran.find((r) => r.file === file.value.name)?.lines ?? []) : []))
/** Which values stand in which lines: asked when a program begins to run. */
const lineValues = shallowRef<Schemas['LineValues'][]>([])
watch(() => (running.value ? bench.state!.revision : 0), async (revision) => {
  lineValues.value = revision ? ((await tried(() => api.lineValues(machine.id))) ?? []) : []
}, { immediate: true })
const beside = computed(() => {
  const lines = new Map<number, string>()
  if (!running.value || !lineValues.value.length) return lines
  const values = new Map(bench.state!.values.map((v) => [v.name, v.value]))
  for (const l of lineValues.value) {
    if (l.file === file.value.name) lines.set(l.line, l.names.map((n) => `${n} = ${values.get(n) ?? ''}`).join('  '))
  }
  return lines
})
/** What the editor can propose: the outline of the last answer stands while the next one is asked. */
const outline = shallowRef<Schemas['FileOutline'][]>([])
watch(() => machine.answer?.program.outline, (next) => {
  if (!next?.length) return
  outline.value = next.map((f) => (f.items.length ? f : (outline.value.find((o) => o.file === f.file) ?? f)))
}, { immediate: true })
const KINDS: Record<string, string> = { PROGRAM: 'program', FUNCTION: 'function', FUNCTION_BLOCK: 'block', TYPE: 'type', VAR_GLOBAL: 'globals' }
/** What a file declares, one kind after the other. */
const declaredIn = (name: string) => Object.keys(KINDS).flatMap((kind) => (outline.value.find((o) => o.file === name)?.items ?? []).filter((i) => i.kind === kind).map((i) => ({ ...i, words: KINDS[kind]! })))
const known = computed(() => ({
  outline: outline.value,
  axes: [...machine.draft!.axes.map((a) => a.name), ...machine.draft!.plc.virtualMasters.map((v) => v.name)],
  tags: [...machine.draft!.axes.flatMap((a) => [...a.station.outputs, ...a.station.inputs].map((e) => e.tag)), ...machine.draft!.plc.tags.map((t) => t.name)].filter(Boolean),
  file: file.value.name,
}))
const faultsOf = (name: string) => machine.diagnostics.filter((d) => d.file === name).length

const marked = computed(() => (fault.value?.file === file.value.name ? fault.value.line : debug.held?.file === file.value.name ? debug.held.line : 0))
const programs = computed(() => outline.value.flatMap((f) => f.items).filter((i) => i.kind === 'PROGRAM').map((i) => i.name))
const breakpoints = computed(() => debug.breakpoints.filter((b) => b.file === file.value.name).map((b) => b.line))
/* where a program is held is shown, whatever text was open */
watch(() => debug.held && `${debug.held.file}:${debug.held.line}`, (now) => {
  if (now) void goTo(debug.held!.file, debug.held!.line)
})
/* a place that the pane beside names */
watch(() => debug.place, (place) => {
  if (!place) return
  if (place.line) void goTo(place.file, place.line)
  else other.value = 'tasks'
})
function choose(i: number) {
  other.value = null
  chosen.value = i
}

function put(changed: Schemas['SourceFile'][]) {
  machine.set('/plc/files', changed)
}

/** A name that no file has yet. */
function unused(name: string) {
  const stem = name.replace(/\.st$/i, '')
  const taken = (n: string) => files.value.some((f) => f.name.toLowerCase() === n.toLowerCase())
  let free = `${stem}.st`
  for (let i = 2; taken(free); i++) free = `${stem}_${i}.st`
  return free
}

/** What stands at a place of the text, for who points at it. */
async function describe(line: number, column: number) {
  const name = file.value.name
  const given = await machine.asked((document) => machine.byKey(document, (asked) => api.nameAt(asked, name, line, column)))
  const named = given?.found
  if (!named) return ''
  const value = running.value ? valueOf(named, bench.state!.values) : ''
  return `${named.name}${named.type ? ` : ${named.type}` : ''}${value ? ` = ${value}` : ''} · ${kindOf(named)}${named.comment ? ` · ${named.comment}` : ''}`
}

const STEPS = [
  { how: 'OVER', icon: mdiDebugStepOver, words: 'Step over', title: 'To the next line of this unit (F10)' },
  { how: 'INTO', icon: mdiDebugStepInto, words: 'Step into', title: 'To the next line, also of a unit that is called (F11)' },
  { how: 'OUT', icon: mdiDebugStepOut, words: 'Step out', title: 'To the unit that called this one (Shift+F11)' },
  { how: null, icon: mdiRayEndArrow, words: 'To the cursor', title: 'Runs until the line of the cursor is reached' },
] as const

function add() {
  other.value = null
  put([...files.value, { name: unused('New file'), source: '' }])
  chosen.value = files.value.length - 1
}

function remove() {
  put(files.value.filter((_, i) => i !== index.value))
  chosen.value = Math.max(0, index.value - 1)
}

/** Files of the same name take the place of those that are there; undo brings them back. */
async function bring(given: FileList | File[] | null | undefined) {
  const all: Schemas['SourceFile'][] = [...files.value]
  const words: string[] = []
  let first = -1
  for (const one of Array.from(given ?? [])) {
    if (tooLarge(one, 32, 'Take what is needed out of it.')) return
    const read = await tried(() => api.readProgram(one))
    if (!read) return
    for (const text of read.files) {
      const at = all.findIndex((f) => f.name.toLowerCase() === text.name.toLowerCase())
      if (at >= 0) all[at] = text
      else all.push(text)
      if (first < 0) first = at >= 0 ? at : all.length - 1
      words.push(`${text.name} ${at >= 0 ? 'took the place of the one that was there' : 'was added'}.`)
    }
    words.push(...read.told)
  }
  if (first < 0) return
  put(all)
  chosen.value = first
  told.value = words
}

/** Indents the text that is open; undo takes it back. */
async function format() {
  const at = index.value
  const given = await tried(() => api.formatProgram([file.value]))
  if (given && given.files[0]!.source !== files.value[at]?.source) machine.set(`/plc/files/${at}/source`, given.files[0]!.source)
}

async function takeOut(form: 'zip' | 'xml') {
  const name = machine.draft!.name
  const made = await tried(() => (form === 'zip' ? api.zipProgram(files.value) : api.xmlProgram(name, files.value)))
  if (made) downloadBlob(made, `${name.replace(/[^\w]+/g, '-')}.${form}`)
}

async function goTo(name: string, line: number) {
  const at = files.value.findIndex((f) => f.name === name)
  if (at >= 0) choose(at)
  await nextTick()
  editor.value?.goTo(line)
}
const where = (name: string, line: number) => (files.value.length > 1 && name ? `${name}, line ${line}` : `Line ${line}`)
</script>

<template>
  <div class="program fills" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files)">
    <div>
      <h1>Program</h1>
      <p class="sub">Structured Text, checked as you type. Green marks the lines of the last cycle; click left of a number to hold there.</p>
      <div class="row">
        <v-btn variant="flat" color="primary" :disabled="machine.diagnostics.length > 0" @click="bench.start('PROGRAM', true)">Run program</v-btn>
        <v-btn :disabled="!bench.state" title="Goes on to the next breakpoint" @click="bench.order(bench.state?.running ? 'hold' : 'run')">{{ bench.state?.running ? 'Hold' : 'Go on' }}</v-btn>
        <v-btn v-if="debug.now?.retained" :disabled="machine.diagnostics.length > 0" :title="`Switches everything off and on: the ${debug.now.retained} RETAIN values of the program stay, the rest begins anew`" @click="bench.start('PROGRAM', true, true)">Restart</v-btn>
        <v-btn :disabled="machine.diagnostics.length > 0" title="To the end of a cycle of the main task" @click="bench.oneCycle()">One cycle</v-btn>
        <span class="steps" role="group" aria-label="Steps">
          <v-btn v-for="s in STEPS" :key="s.words" :icon="s.icon" size="small" variant="text" :disabled="machine.diagnostics.length > 0" :aria-label="s.words" :title="s.title" @click="s.how ? debug.step(s.how) : debug.toLine(file.name, editor?.line() ?? 1)" />
        </span>
        <v-btn :icon="mdiFormatIndentIncrease" size="small" variant="text" :disabled="other !== null" aria-label="Format" title="Indents the text by its structure and writes the words of the language in capitals" @click="format" />
        <span v-if="running" class="sub" role="status">{{ debug.held ? `held in ${where(debug.held.file, debug.held.line).replace('Line', 'line')}` : `${bench.state!.statements} statements in the last cycle` }}</span>
      </div>
    </div>
    <ProblemNote v-if="problem" :problem="problem" data-testid="file-refused" @close="problem = null" />
    <div v-if="folder.state" class="told" role="status" data-testid="folder">
      <div>Texts are taken from {{ folder.state.folder }}{{ folder.state.takenAt ? `, last at ${new Date(folder.state.takenAt).toLocaleTimeString()}` : '' }}. What is changed here is not written there.</div>
      <ul v-if="folder.state.told.length"><li v-for="t in folder.state.told.slice(0, 4)" :key="t">{{ t }}</li><li v-if="folder.state.told.length > 4">and {{ folder.state.told.length - 4 }} more.</li></ul>
    </div>
    <div v-if="told.length" class="told" role="status">
      <ul><li v-for="t in told.slice(0, 8)" :key="t">{{ t }}</li><li v-if="told.length > 8">and {{ told.length - 8 }} more.</li></ul>
      <v-btn size="small" @click="told = []">Close</v-btn>
    </div>
    <div class="bench">
      <nav class="files" aria-label="Files of the program">
        <ul>
          <li v-for="(f, i) in files" :key="f.name">
            <button type="button" :aria-current="!other && i === index ? 'true' : undefined" @click="choose(i)">
              <span>{{ f.name }}</span><b v-if="faultsOf(f.name)" class="count" :title="`${faultsOf(f.name)} faults`">{{ faultsOf(f.name) }}</b>
            </button>
            <ul v-if="declaredIn(f.name).length" :aria-label="`Declared in ${f.name}`">
              <li v-for="d in declaredIn(f.name)" :key="`${d.kind} ${d.name}`"><button type="button" :title="`${d.words} in line ${d.line}`" @click="goTo(f.name, d.line)"><span>{{ d.name || d.words }}</span><span v-if="d.name" class="sub">{{ d.words }}</span></button></li>
            </ul>
          </li>
        </ul>
        <ul class="others">
          <li v-for="o in OTHERS.filter((o) => o.key !== 'states' || machine.axis)" :key="o.key"><button type="button" :aria-current="other === o.key ? 'true' : undefined" @click="other = o.key"><i>{{ o.words }}</i><span v-if="o.key === 'tasks'" class="sub">{{ machine.draft!.plc.tasks.length }}</span></button></li>
        </ul>
        <div class="tools">
          <v-btn size="small" @click="add">Add file</v-btn>
          <span class="out">Take out</span>
          <v-btn size="small" title="The texts as a zip of .st files" @click="takeOut('zip')">Zip</v-btn>
          <v-btn size="small" :disabled="machine.diagnostics.length > 0" title="The program as XML of IEC 61131-10, with bodies in Structured Text" @click="takeOut('xml')">XML</v-btn>
          <v-file-input class="snug" :model-value="null" multiple accept=".st,.txt,.zip,.xml,.iecst,.scl,.exp" placeholder="Bring in…" aria-label="Program files" @update:model-value="(f) => bring(f as File[])" />
          <p class="pencil">Structured Text, zips of it, or XML of IEC 61131-10; drop them here.</p>
        </div>
      </nav>
      <TaskList v-if="other === 'tasks'" class="sheet" :programs="programs" />
      <TagUses v-else-if="other === 'tags'" class="sheet" @go-to="goTo" />
      <FindInFiles v-else-if="other === 'find'" class="sheet" @go-to="goTo" />
      <AxisStates v-else-if="other === 'states' && machine.axis" class="sheet" @go-to="goTo" />
      <div v-else class="text">
        <div v-if="files.length > 1" class="row head">
          <TextEntry class="name" :value="file.name" aria-label="Name of the file" @enter="(n) => machine.set(`/plc/files/${index}/name`, n)" />
          <v-btn size="small" @click="remove">Remove file</v-btn>
        </div>
        <ProgramEditor :key="index" ref="editor" :model-value="file.source" :diagnostics="machine.diagnostics.filter((d) => d.file === file.name)" :marked="marked" :breakpoints="breakpoints" :describe="describe" :ran="ran" :beside="beside" :known="known" label="Program, Structured Text" @mend="machine.mend" @toggle="(l) => debug.toggle(file.name, l)" @moved="(lines) => debug.moved(file.name, lines)" @step="(how) => debug.step(how)" @cursor="(line, column) => (cursor = { line, column })" @declaration="nameBar?.declared()" @places="nameBar?.list()" @rename="nameBar?.rename()" @update:model-value="machine.set(`/plc/files/${index}/source`, $event)" />
        <NameBar ref="nameBar" :file="file.name" :line="cursor.line" :column="cursor.column" @go-to="goTo" />
      </div>
    </div>
    <div v-if="fault" class="faults" role="alert">
      <button type="button" class="link" @click="goTo(fault.file, fault.line)">{{ where(fault.file, fault.line) }}</button>: {{ fault.message }} The task stopped and the axes made a quick stop. Mend the line and run again.
    </div>
    <ul v-if="machine.diagnostics.length" class="faults" aria-label="Faults of the program">
      <li v-for="(d, i) in machine.diagnostics.slice(0, 6)" :key="i"><button type="button" class="link" @click="goTo(d.file, d.line)">{{ where(d.file, d.line) }}, column {{ d.column }}</button>: {{ d.message }} <button v-if="d.mend" type="button" class="link" @click="machine.mend(d)">{{ d.mend.label }}</button></li>
      <li v-if="machine.diagnostics.length > 6">and {{ machine.diagnostics.length - 6 }} more.</li>
    </ul>
  </div>
</template>

<style scoped>
.program { display: flex; flex-direction: column; gap: 8px; height: 100%; min-height: 420px; box-sizing: border-box; }
.row { display: flex; gap: 8px; align-items: center; }
.row .sub { margin: 0; }
.bench { display: grid; grid-template-columns: 176px minmax(0, 1fr); gap: 8px; flex: 1; min-height: 0; }
.files { display: flex; flex-direction: column; gap: 8px; min-height: 0; }
.files ul { list-style: none; margin: 0; padding: 0; overflow: auto; flex: 1; min-height: 0; }
.files li button { display: flex; justify-content: space-between; gap: 4px; width: 100%; padding: 4px 8px; text-align: left; background: none; border: 0; border-left: 3px solid transparent; }
.files li button[aria-current] { border-left-color: var(--cmd); background: var(--sheet); font-weight: 600; }
.files li ul { flex: none; overflow: visible; }
.files li li button { padding: 1px 8px 1px 18px; font-size: 12px; }
.files li button:hover { background: var(--sheet); }
.files li span { overflow-wrap: anywhere; }
.files .others { flex: none; border-top: 1px solid var(--hair); }
.files i { font-style: italic; }
.files .sub { margin: 0; }
.steps { display: inline-flex; }
.count { color: var(--stop); }
.tools { display: flex; flex-wrap: wrap; gap: 4px; }
.tools p { margin: 0; font-size: 12px; }
.tools .out { font-size: 12px; color: var(--pencil); align-self: center; }
.tools > .v-btn:first-child { margin-right: 40%; }
.tools .snug { flex: 1 1 100%; }
.text { display: flex; flex-direction: column; gap: 4px; min-height: 0; }
.text > .editor { flex: 1; min-height: 0; }
.head .name { flex: 0 1 280px; width: 280px; max-width: 280px; }
.told { display: flex; flex-wrap: wrap; gap: 8px; align-items: start; justify-content: space-between; border-left: 4px solid var(--ok); padding: 4px 8px; font-size: 13px; }
.told ul { margin: 0; padding-left: 16px; }
.faults { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; margin: 0; font-size: 13px; list-style: none; max-height: 96px; overflow: auto; flex: none; }
</style>
