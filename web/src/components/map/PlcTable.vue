<script setup lang="ts">
import ProblemNote from '../ProblemNote.vue'
import { useProblem } from '../../lib/problems'
import PickOne from '../PickOne.vue'
import { useChoices } from '../../stores/choices'
import { computed, ref } from 'vue'
import { api, type Compared, type TablePreview } from '../../api/client'
import { useAxis } from '../../lib/axis'
import FindingCard from '../FindingCard.vue'
import { usePlcTable } from '../../stores/plcTable'
import { watch } from 'vue'

/** The PLC's own table of a station against the drive's side, place by place. */
const { machine, axis } = useAxis()
const table = usePlcTable()
const choices = useChoices()
const preview = ref<TablePreview | null>(null)
const compared = ref<Compared[]>([])
const { problem, tried, tooLarge } = useProblem()
const COLUMNS = { name: 'Name', type: 'Type', address: 'Address', direction: 'Direction', comment: 'Comment' } as const

async function bring(file: File | undefined) {
  if (!file) return
  if (tooLarge(file, 20, 'Take the tags of this station only.')) return
  const read = await tried(() => api.tableText(file))
  if (!read) return
  table.name = file.name
  table.text = read.text
}

watch(
  () => table.text,
  async (text) => {
    preview.value = text.trim() ? ((await tried(() => api.previewTable(text))) ?? null) : null
    table.columns = preview.value?.csv?.suggested ?? null
  },
  { immediate: true },
)

watch(
  [() => table.text, () => table.columns, () => table.alignment, () => table.counts, () => table.order, () => machine.answer, () => machine.axisIndex, preview],
  async () => {
    if (!preview.value) return
    compared.value = (await machine.asked((document, number) => tried(() => api.compareTable({ machine: document, axis: number, text: table.text, columns: table.columns ?? undefined, alignment: table.alignment, counts: table.counts, order: table.order || undefined, output: true })))) ?? compared.value
  },
  { immediate: true, deep: true },
)
const disagree = computed(() => compared.value.flatMap((c) => c.findings).filter((f) => f.severity !== 'GOOD').length)
</script>

<template>
  <section aria-label="Against the PLC">
    <div class="bring" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files[0])">
      <v-file-input class="snug file" :model-value="null" accept=".csv,.txt,.xml,.st,.exp" placeholder="Bring the PLC's tag table in…" aria-label="File with the PLC's tag table" @update:model-value="(file) => bring(file as File)" />
      <span class="pencil">CSV, XML of IEC 61131-10, or declarations in Structured Text; drop it here, or type below.</span>
    </div>
    <v-textarea v-model.lazy="table.text" class="snug number" variant="outlined" hide-details rows="4" spellcheck="false" aria-label="The PLC's tag table as text" placeholder="VAR_GLOBAL&#10;  Shuttle_Cmd AT %QB64 : Shuttle_Cmd_T;&#10;END_VAR" />
    <ProblemNote v-if="problem" :problem="problem" data-testid="table-refused" @close="problem = null" />
    <template v-if="preview">
      <div class="choices">
        <template v-if="preview.csv && table.columns">
          <span v-for="(words, key) in COLUMNS" :key="key">{{ words }}
            <PickOne :label="`Column: ${words}`" :value="table.columns[key]" :options="[{ code: -1, words: 'none' }, ...preview.csv.headings.map((h, i) => ({ code: i, words: h || `column ${i + 1}` }))]" @pick="(code) => (table.columns![key] = Number(code))" /></span>
        </template>
        <span v-else>The PLC aligns members to <PickOne label="The PLC aligns members to" :value="table.alignment" :options="[1, 2, 4, 8].map((n) => ({ code: n, words: n === 1 ? '1 byte, packed' : `${n} bytes` }))" @pick="(n) => (table.alignment = Number(n))" /></span>
        <span>%QW4 counts <PickOne label="%QW4 counts" :value="table.counts" :options="[{ code: 'BYTES', words: 'bytes' }, { code: 'ELEMENTS', words: 'words' }]" @pick="(code) => (table.counts = code as typeof table.counts)" /></span>
        <span>Bytes in the PLC <PickOne label="Bytes in the PLC" :value="table.order" :options="[{ code: '', words: 'as on the bus' }, ...choices.all.wireOrders]" @pick="(code) => (table.order = code as typeof table.order)" /></span>
      </div>
      <p class="visually-hidden" role="status">{{ disagree }} disagreements</p>
      <div v-for="c in compared" :key="String(c.output)">
        <h2 :class="c.output ? 'cmd' : 'act'">{{ c.output ? 'PLC to drive' : 'Drive to PLC' }}</h2>
        <FindingCard v-for="f in c.findings" :key="f.title" :finding="f" />
        <v-table class="plain" data-testid="comparison">
          <thead><tr><th>Drive's entry</th><th>Place</th><th>Type</th><th>PLC's tag</th><th>Place</th><th>Type</th><th>Sent</th><th>Arrives as</th><th>Difference</th></tr></thead>
          <tbody>
            <tr v-for="(l, i) in c.lines" :key="i" :class="{ marked: !l.agrees }">
              <td>{{ l.title || '–' }}</td><td class="mono">{{ l.place || '–' }}</td><td class="mono">{{ l.type || '–' }}</td>
              <td>{{ l.row || '–' }}</td><td class="mono">{{ l.plcPlace || '–' }}</td><td class="mono">{{ l.plcType || '–' }}</td>
              <td class="mono">{{ l.sent || '–' }}</td><td class="mono" :class="{ wrong: l.sent !== l.arrives }">{{ l.arrives || '–' }}</td><td>{{ l.remark || 'none' }}</td>
            </tr>
          </tbody>
        </v-table>
      </div>
    </template>
    <p v-else-if="!problem" class="empty">The table of {{ axis.name }} is compared with the layout byte by byte. A sample is sent by one side and read by the other: what arrives wrong is what the machine would do.</p>
  </section>
</template>

<style scoped>
.choices > span { display: inline-flex; gap: 6px; align-items: center; }
.bring { display: flex; gap: 12px; align-items: center; border: 1.5px dashed var(--field-line); border-radius: 5px; padding: 6px 10px; font-size: 13px; }
.file { font-weight: 650; } .pencil { color: var(--pencil); }
textarea { width: 100%; font-size: 12px; margin-top: 6px; resize: vertical; }
.choices { display: flex; flex-wrap: wrap; gap: 10px; font-size: 13px; margin: 4px 0 8px; }
.choices label { color: var(--pencil); }
h2.cmd { color: var(--cmd); } h2.act { color: var(--act); margin-top: 10px; }
td, th { padding: 1px 5px !important; } td.mono { font-size: 12px; white-space: nowrap; }
tr.marked { background: var(--stop-wash); } .wrong { color: var(--stop); font-weight: 700; }
.refused { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; font-size: 13px; }
</style>
