<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import { api, type Schemas } from '../../api/client'
import { parsed } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useRecordings } from '../../stores/recordings'
import { useSentences } from '../../stores/sentences'
import PickOne from '../PickOne.vue'
import ProblemNote from '../ProblemNote.vue'
import TextEntry from '../TextEntry.vue'

type Layout = Schemas['RecordingLayout']
type Use = Schemas['ColumnUse']

/** A file of any recorder: what it looks like, how it is read, which column is which signal. Everything can be changed before it is read. */
const machine = useMachine()
const recordings = useRecordings()
const sentences = useSentences()
const choices = useChoices()
const { problem, tried } = useProblem()
const file = shallowRef<File | null>(null)
const key = ref('')
const name = ref('')
const preview = shallowRef<Schemas['IncomingPreview'] | null>(null)
const progress = ref<{ words: string; done: number; of: number } | null>(null)
let work = new AbortController()
const forms = computed(() => choices.all.recording)
const layout = computed(() => preview.value?.layout ?? null)
const mb = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${Math.round(bytes / 1e6)} MB`)

async function bring(chosen: File | undefined) {
  if (!chosen) return
  giveUp()
  file.value = chosen
  name.value = chosen.name.replace(/\.[^.]*$/, '')
  work = new AbortController()
  progress.value = { words: 'Taking the file in', done: 0, of: chosen.size }
  const sent = await tried(() => api.sendRecording(machine.id, chosen, (done) => (progress.value = { words: 'Taking the file in', done, of: chosen.size }), work.signal))
  progress.value = null
  if (!sent) { file.value = null; return }
  key.value = sent
  preview.value = (await tried(() => api.previewRecording(sent))) ?? null
  if (!preview.value) giveUp(true)
}

function giveUp(keepProblem = false) {
  work.abort()
  if (key.value) void api.dropIncoming(key.value).catch(() => null)
  key.value = ''
  file.value = null
  preview.value = null
  progress.value = null
  if (!keepProblem) problem.value = null
}
onBeforeUnmount(() => giveUp())

/** Changes that are on their way: until they are there nothing is read, and each builds on the one before. */
const changing = ref(0)
let last: Promise<unknown> = Promise.resolve()
function change(part: Partial<Layout> | ((now: Layout) => Partial<Layout>)) {
  changing.value++
  const mine = last.then(async () => {
    const next = await tried(() => api.previewLayout(key.value, { ...layout.value!, ...(typeof part === 'function' ? part(layout.value!) : part) }))
    if (next && key.value) preview.value = next
  }).finally(() => changing.value--)
  last = mine.catch(() => null)
  return mine
}
const changeTime = (part: Partial<Layout['time']>) => change((now) => ({ time: { ...now.time, ...part } }))
const use = (column: number) => layout.value!.columns.find((c) => c.column === column)
const changeUse = (column: number, part: Partial<Use>) => change((now) => ({ columns: now.columns.map((c) => (c.column === column ? { ...c, ...part } : c)) }))
async function take(column: number, on: boolean) {
  const { headings, units } = preview.value!
  return change((now) => {
    const others = now.columns.filter((c) => c.column !== column)
    return { columns: on ? [...others, { column, signal: headings[column]!, unit: units[column]!, scale: 1, offset: 0 }].sort((a, b) => a.column - b.column) : others }
  })
}
/** A signal of the machine brings its unit, and the factor to it. */
async function assign(column: number, signal: string) {
  const given = await tried(() => api.assignColumn(machine.id, { ...use(column)!, unit: preview.value!.units[column] || use(column)!.unit }, signal.trim()))
  if (given) await changeUse(column, given)
}
function number(text: string, to: (value: number) => void) {
  const value = parsed(text)
  if (value !== null) to(value)
}
const wholeNumber = (text: string, to: (value: number) => void) => number(text, (v) => Number.isInteger(v) && v >= 0 && to(v))
const refused = (field: string) => problem.value?.faults.some((f) => f.field.replace(/^\//, '') === field) ?? false
const columns = computed(() => preview.value?.headings.map((heading, i) => ({ code: i, words: heading })) ?? [])
const signals = computed(() => sentences.signals.map((s) => ({ value: s.name, title: s.name })))

async function read() {
  work = new AbortController()
  progress.value = { words: 'Reading', done: 0, of: file.value!.size }
  const made = await tried(() => api.readRecording(key.value, { name: name.value.trim(), layout: layout.value! }, (done, of) => (progress.value = { words: 'Reading', done, of }), work.signal))
  progress.value = null
  if (!made) return
  key.value = ''
  giveUp()
  await recordings.load()
  recordings.chosen = made.id
}
</script>

<template>
  <div>
    <div v-if="!preview" class="bring" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files[0])">
      <v-file-input class="snug file" :model-value="null" accept=".csv,.txt,.tsv,.asc,.dat" placeholder="Bring a recording in…" aria-label="Recording file" @update:model-value="(chosen) => bring(chosen as File)" />
      <span class="pencil">Text with a column for each signal, from any recorder; drop it here.</span>
    </div>
    <p v-if="progress" class="sub" role="status">{{ progress.words }}: {{ mb(progress.done) }} of {{ mb(progress.of) }}
      <v-progress-linear class="far" :model-value="progress.done" :max="progress.of" color="primary" aria-label="Progress of the file" /> <button type="button" class="link" @click="giveUp()">Cancel</button></p>
    <ProblemNote v-if="problem" :problem="problem" data-testid="recording-refused" @close="problem = null" />
    <section v-if="preview && layout && !progress" class="sheet reading" aria-label="How the file is read">
      <div class="line">
        <b>{{ file?.name }}</b>, {{ mb(file?.size ?? 0) }}<template v-if="preview.remembered">, read as the last one with these headings</template>.
        <span class="kept">Keep it as <TextEntry class="name" :value="name" maxlength="200" aria-label="Name of the recording" @enter="name = $event" /></span>
        <v-btn color="primary" variant="flat" :disabled="changing > 0" @click="read">Bring it in</v-btn><v-btn @click="giveUp()">Give up</v-btn>
      </div>
      <div class="line">
        Columns are separated by <PickOne sentence label="Separator" :value="layout.separator" :options="forms.separators" @pick="change({ separator: $event as Layout['separator'] })" />
        decimals begin with a <PickOne sentence label="Decimal mark" :value="layout.decimalComma ? 'comma' : 'point'" :options="['point', 'comma']" @pick="change({ decimalComma: $event === 'comma' })" />
        text is <PickOne sentence label="Encoding" :value="layout.encoding" :options="forms.encodings" @pick="change({ encoding: $event as Layout['encoding'] })" />
      </div>
      <div class="line">
        Headings stand in line <TextEntry class="mono small" :value="layout.headings" aria-label="Line of the headings, 0 for none" @enter="(t) => wholeNumber(t, (headings) => change({ headings }))" />
        units in line <TextEntry class="mono small" :value="layout.units" aria-label="Line of the units, 0 for none" @enter="(t) => wholeNumber(t, (units) => change({ units }))" />
        samples begin in line <TextEntry class="mono small" :value="layout.begins" aria-label="Line of the first sample" @enter="(t) => wholeNumber(t, (begins) => change({ begins }))" /> <span class="pencil">0: there is none</span>
      </div>
      <div class="line">
        Time: <PickOne sentence label="Form of the time" :value="layout.time.form" :options="forms.times" @pick="changeTime({ form: $event as Layout['time']['form'] })" />
        <template v-if="layout.time.form === 'RATE'">every <TextEntry class="mono every" :value="layout.time.interval" aria-label="Time from row to row, seconds" @enter="(t) => number(t, (interval) => changeTime({ interval }))" /> s</template>
        <template v-else>in column <PickOne sentence label="Column of the time" :value="layout.time.column" :options="columns" @pick="changeTime({ column: Number($event) })" />
          <v-checkbox-btn class="zero" :model-value="layout.time.fromZero" label="first row at 0 s" @update:model-value="changeTime({ fromZero: Boolean($event) })" /></template>
      </div>
      <div class="scroll">
        <table class="plain columns">
          <caption class="visually-hidden">Columns of the file</caption>
          <thead><tr><th scope="col">Column</th><th scope="col">Becomes the signal</th><th scope="col">× scale</th><th scope="col">+ offset</th><th scope="col">Unit</th><th scope="col">First rows</th></tr></thead>
          <tbody>
            <tr v-for="(heading, c) in preview.headings" :key="c" :class="{ unused: !use(c) }">
              <td><v-checkbox-btn v-if="layout.time.form === 'RATE' || layout.time.column !== c" :model-value="Boolean(use(c))" :label="heading + (preview.units[c] ? ` in ${preview.units[c]}` : '')" @update:model-value="take(c, Boolean($event))" /><span v-else class="time">{{ heading }}: the time</span></td>
              <template v-if="use(c)">
                <td><TextEntry class="signal mono" :value="use(c)!.signal" :options="signals" :aria-label="`Signal of ${heading}`" :error="refused(`columns/${layout.columns.indexOf(use(c)!)}/signal`)" maxlength="200" @enter="(t) => assign(c, t)" /></td>
                <td><TextEntry class="mono number" :value="use(c)!.scale" :aria-label="`Scale of ${heading}`" @enter="(t) => number(t, (scale) => changeUse(c, { scale }))" /></td>
                <td><TextEntry class="mono number" :value="use(c)!.offset" :aria-label="`Offset of ${heading}`" @enter="(t) => number(t, (offset) => changeUse(c, { offset }))" /></td>
                <td><TextEntry class="mono unit" :value="use(c)!.unit" maxlength="20" :aria-label="`Unit of ${heading}`" @enter="(t) => changeUse(c, { unit: t.trim() })" /></td>
              </template>
              <td v-else colspan="4" class="pencil">{{ layout.time.form !== 'RATE' && layout.time.column === c ? '' : 'left out' }}</td>
              <td class="mono rows">{{ preview.rows.slice(0, 4).map((r) => r[c] ?? '').join('  ') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <details><summary>The file as it begins</summary><pre class="mono">{{ preview.begin.join('\n') }}</pre></details>
    </section>
  </div>
</template>

<style scoped>
.bring { display: flex; gap: 12px; align-items: center; border: 1.5px dashed var(--field-line); border-radius: 5px; padding: 6px 10px; font-size: 13px; }
.file { font-weight: 650; max-width: 320px; } .pencil { color: var(--pencil); }
.far { display: inline-block; width: 160px; vertical-align: middle; }
.reading { padding: 8px 10px; font-size: 13.5px; }
.line { display: flex; flex-wrap: wrap; gap: 4px 6px; align-items: center; margin-bottom: 6px; }
.kept { display: inline-flex; gap: 6px; align-items: center; margin-left: auto; } .name { width: 220px; }
.small { flex: none; width: 64px; } .every { flex: none; width: 100px; } .zero { flex: none; }
.scroll { overflow-x: auto; }
.columns { border-collapse: collapse; width: 100%; font-size: 13px; } .columns th { text-align: left; font-weight: 600; padding: 2px 6px; } .columns td { padding: 1px 6px; border-top: 1px solid var(--hair); }
.columns td:first-child { min-width: 180px; } .signal { width: 190px; } .number { width: 76px; } .unit { width: 70px; }
.rows { color: var(--pencil); white-space: pre; max-width: 120px; overflow: hidden; text-overflow: ellipsis; } .unused { color: var(--pencil); } .time { font-weight: 600; }
pre { font-size: 12px; overflow: auto; margin: 4px 0 0; max-height: 130px; }
</style>
