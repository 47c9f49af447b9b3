<script setup lang="ts">
import PickOne from '../PickOne.vue'
import { mdiArrowDown, mdiArrowUp, mdiDelete } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import { api, Problem, type Entry, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { download } from '../../lib/download'
import NumberField from '../NumberField.vue'
import NowTravels from './NowTravels.vue'
import TextEntry from '../TextEntry.vue'
import { useBus, type BusDirection } from '../../stores/bus'
import { useChoices } from '../../stores/choices'
import { useDevices } from '../../stores/devices'

/** The bytes of both directions as lanes and tables: entries are added, removed, moved, renamed and bound here. */
const { machine, axis, unit } = useAxis()
const lists = useChoices()
const bus = useBus()
const devices = useDevices()
const dragged = ref<{ direction: BusDirection; index: number; tag: boolean } | null>(null)
const over = ref('')

interface Row { entry: Entry; index: number; at: string }

function rows(direction: BusDirection): Row[] {
  const entries = axis.value.station[direction]
  /* after an entry has come or gone its places are known a moment later */
  const places = bus.layout?.layout[direction].places
  return entries.map((entry, index) => ({ entry, index, at: places?.length === entries.length ? places[index].at : '' }))
}

const directions = computed(() => [
  { key: 'outputs' as const, title: 'PLC to drive', words: bus.family!.outputsWord, colour: 'cmd', bytes: bus.layout?.layout.outputs.bytes, rows: rows('outputs') },
  { key: 'inputs' as const, title: 'Drive to PLC', words: bus.family!.inputsWord, colour: 'act', bytes: bus.layout?.layout.inputs.bytes, rows: rows('inputs') },
])
const message = (direction: BusDirection, pdo: number) => bus.layout?.layout[direction].messages.find((m) => m.pdo === pdo)
const messages = (list: Row[]) => [...new Set(list.map((r) => r.entry.pdo))].map((pdo) => ({ pdo, rows: list.filter((r) => r.entry.pdo === pdo) }))
const bits = (list: Row[]) => list.reduce((sum, r) => sum + r.entry.bits, 0)
const path = (direction: string, index: number | string) => `/axes/${machine.axisIndex}/station/${direction}/${index}`
const many = computed(() => bus.family!.mostMessages > 1)
const choices = (direction: BusDirection) => bus.family!.items.filter((i) => (direction === 'outputs' ? i.toDrive : i.toPlc) && !axis.value.station[direction].some((e) => e.object === i.object && e.subIndex === i.subIndex))

function select(direction: BusDirection, index: number) {
  bus.chosen = { direction, index }
}
const isChosen = (direction: BusDirection, index: number) => bus.chosen.direction === direction && bus.chosen.index === index

function moveTo(direction: BusDirection, from: number, to: number) {
  if (from === to) return
  const entry = { ...axis.value.station[direction][from], pdo: axis.value.station[direction][to].pdo }
  machine.edit({ op: 'remove', path: path(direction, from) }, { op: 'add', path: path(direction, to), value: entry })
  select(direction, to)
}

/** A tag dropped on an entry goes there; an entry dropped on an entry takes its place. */
function drop(direction: BusDirection, index: number) {
  if (held.value) return bindHeld(direction, index)
  const from = dragged.value
  dragged.value = null
  over.value = ''
  if (!from || from.direction !== direction) return
  if (!from.tag) return moveTo(direction, from.index, index)
  const entries = axis.value.station[direction]
  const moved = entries[from.index]
  const target = entries[index]
  if (target.object === 0 || from.index === index) return
  machine.edit(
    { op: 'replace', path: path(direction, from.index), value: { ...moved, tag: target.tag, tagType: target.tagType, unit: target.unit, factor: target.factor } },
    { op: 'replace', path: path(direction, index), value: { ...target, tag: moved.tag, tagType: moved.tagType, unit: moved.unit, factor: moved.factor } },
  )
}

function add(direction: BusDirection, code: string) {
  const [object, subIndex, width] = code.split('/').map(Number)
  const entries = axis.value.station[direction]
  const item = bus.family!.items.find((i) => i.object === object && i.subIndex === subIndex)
  machine.edit({ op: 'add', path: path(direction, '-'), value: { pdo: entries.at(-1)?.pdo ?? 1, object, subIndex, bits: width, name: '', tag: '', tagType: item ? item.dataType : '', unit: '', factor: 1 } })
}

function bind(direction: BusDirection, index: number, entry: Entry, tag: string) {
  const item = bus.itemOf(entry)
  const declared = machine.draft!.plc.tags.find((t) => t.name === tag.trim())
  const type = declared?.type || entry.tagType || (item ? item.dataType : 'DINT')
  machine.edit({ op: 'replace', path: path(direction, index) + '/tag', value: tag.trim() }, { op: 'replace', path: path(direction, index) + '/tagType', value: type })
}

/** The core has changed many entries at once. */
function take(station: Schemas['Station'] | undefined) {
  if (!station) return
  const root = `/axes/${machine.axisIndex}/station`
  machine.edit({ op: 'replace', path: `${root}/outputs`, value: station.outputs }, { op: 'replace', path: `${root}/inputs`, value: station.inputs })
}
/** Every entry without a tag gets one named after the axis and the entry. */
const makeTags = async () => take(await machine.ordered((document, number) => machine.byKey(document, (asked) => api.layoutTags(asked, number))))
const unbound = computed(() => bus.layout?.unbound ?? 0)

const telegram = computed(() => bus.layout?.layout.telegram ?? 0)
/** Another telegram; tags stay with the words that both have. */
const chooseTelegram = async (chosen: number) => take(await machine.ordered((document, number) => machine.byKey(document, (asked) => api.layoutTelegram(asked, number, chosen))))

/** Something is said of this entry. */
const finding = (direction: string, index: number) =>
  machine.advice('map')?.findings.some((f) => f.severity !== 'GOOD' && f.mend?.changes.some((c) => c.path === path(direction, index) || c.path.startsWith(path(direction, index) + '/')))

async function exportTags(format: 'CSV' | 'XML' | 'STRUCTURED_TEXT') {
  const answer = await machine.ordered((document) => api.exportTags(document, format))
  if (answer) download(answer)
}
const registers = computed(() => machine.draft!.bus.family === 'MODBUS_TCP')
/* ---- tags declared by hand ---- */
const declaring = ref('')
const refusal = ref('')
const boundNames = computed(() => new Set(machine.draft!.axes.flatMap((a) => [...a.station.outputs, ...a.station.inputs]).map((e) => e.tag.toUpperCase())))
const free = computed(() => machine.draft!.plc.tags.filter((t) => !boundNames.value.has(t.name.toUpperCase())))
const held = ref('')

async function declare() {
  refusal.value = ''
  try {
    const tags = await api.declared(declaring.value)
    const taken = tags.find((t) => machine.draft!.plc.tags.some((d) => d.name.toUpperCase() === t.name.toUpperCase()))
    if (taken) {
      refusal.value = `${taken.name} is declared already. Allowed: each name once.`
      return
    }
    machine.edit({ op: 'replace', path: '/plc/tags', value: [...machine.draft!.plc.tags, ...tags] })
    declaring.value = ''
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    refusal.value = error.detail
  }
}

function forgetTag(name: string) {
  machine.edit({ op: 'replace', path: '/plc/tags', value: machine.draft!.plc.tags.filter((t) => t.name !== name) })
}

/** The declared tag that was taken up is bound to an entry. */
function bindHeld(direction: BusDirection, index: number) {
  const tag = machine.draft!.plc.tags.find((t) => t.name === held.value)
  held.value = ''
  over.value = ''
  if (!tag || axis.value.station[direction][index].object === 0) return
  machine.edit({ op: 'replace', path: path(direction, index) + '/tag', value: tag.name }, { op: 'replace', path: path(direction, index) + '/tagType', value: tag.type })
}

/* ---- layouts that the device offers ---- */
const described = computed(() => devices.of(axis.value.station.identity))
const offered = (direction: BusDirection) => described.value?.pdos.filter((p) => p.output === (direction === 'outputs') && p.entries.length && bus.family!.telegrams.length === 0 && p.entries.every((e) => e.index === 0 || e.index >= 0x1000)) ?? []

/** A layout of the device, whole; tags stay with the objects that both have. */
function takeLayout(direction: BusDirection, number: number) {
  const chosen = offered(direction)[number]
  if (!chosen) return
  const before = axis.value.station[direction]
  const pdo = many.value ? (chosen.number % 0x200) + 1 : 1
  const taken = chosen.entries.map((e) => ({
    ...(before.find((b) => b.object !== 0 && b.object === e.index && b.subIndex === e.subIndex) ?? { object: e.index, subIndex: e.subIndex, bits: e.bits, name: '', tag: '', tagType: e.index ? e.dataType : '', unit: '', factor: 1 }), pdo,
  }))
  const rest = many.value ? before.filter((e) => e.pdo !== pdo && !taken.some((t) => t.object !== 0 && t.object === e.object && t.subIndex === e.subIndex)) : []
  machine.edit({ op: 'replace', path: `/axes/${machine.axisIndex}/station/${direction}`, value: [...rest, ...taken].sort((a, b) => a.pdo - b.pdo) })
}
onMounted(devices.load)
</script>

<template>
  <div class="bar">
    <span v-if="bus.family!.telegrams.length" class="telegram">Telegram <PickOne label="Telegram" :value="telegram" :options="[...(telegram === 0 ? [{ code: 0, words: 'none of the standard', disabled: true }] : []), ...bus.family!.telegrams.map((t) => ({ code: t.number, words: `${t.number}: ${t.words}` }))]" @pick="(n) => chooseTelegram(Number(n))" /></span>
    <v-btn v-if="unbound" size="small" @click="makeTags">Make {{ unbound }} {{ unbound === 1 ? 'tag' : 'tags' }} from this layout</v-btn>
    <span class="push" title="The bound tags of all stations, with their addresses">Take tags out as</span>
    <button type="button" class="link" @click="exportTags('CSV')">CSV</button>
    <button type="button" class="link" title="XML of IEC 61131-10" @click="exportTags('XML')">XML</button>
    <button type="button" class="link" @click="exportTags('STRUCTURED_TEXT')">Structured Text</button>
  </div>
  <section v-for="d in directions" :key="d.key" :aria-label="d.title">
    <h2 :class="d.colour">{{ d.title }} · {{ d.bytes }} bytes <span class="words">{{ d.words }}</span></h2>
    <div class="lanes">
      <div v-for="m in messages(d.rows)" :key="m.pdo" class="message" :style="{ flexGrow: bits(m.rows) }">
        <span v-if="many" class="pdo">{{ d.words }} {{ m.pdo }} · {{ message(d.key, m.pdo)?.identifier }} · {{ message(d.key, m.pdo)?.bytes }} of 8 bytes</span>
        <div class="lane sheet" role="img" :aria-label="`${d.title}: ` + m.rows.map((r) => `${bus.titleOf(r.entry)} ${r.entry.bits} bits`).join(', ')">
          <div
            v-for="r in m.rows" :key="r.index" class="box" draggable="true" :title="`${bus.titleOf(r.entry)} ${bus.symbolOf(r.entry)}, ${r.entry.bits} bit, at ${r.at}`"
            :class="[d.colour, { filler: r.entry.object === 0, marked: finding(d.key, r.index), on: isChosen(d.key, r.index), over: over === d.key + r.index }]" :style="{ flexGrow: r.entry.bits }"
            @click="select(d.key, r.index)" @dragstart="dragged = { direction: d.key, index: r.index, tag: false }" @dragover.prevent="over = d.key + r.index" @dragleave="over = ''" @drop.prevent="drop(d.key, r.index)" @dragend="dragged = null"
          >
            <b>{{ bus.titleOf(r.entry) }}</b><span class="mono">{{ r.at.split(' ')[0] }}</span>
          </div>
        </div>
      </div>
    </div>
    <v-table class="plain">
      <thead><tr><th v-if="many">PDO</th><th>{{ registers ? 'Register' : 'Bytes' }}</th><th>Entry</th><th>PLC tag</th><th>Type</th><th title="raw: the tag holds what travels. A tag in units: what travels for 1 unit of it">Tag unit</th><th>On the wire</th><th>Now</th><th><span class="visually-hidden">Order</span></th></tr></thead>
      <tbody>
        <tr v-for="r in d.rows" :key="r.index" :class="{ marked: finding(d.key, r.index), on: isChosen(d.key, r.index) }" @focusin="select(d.key, r.index)" @click="select(d.key, r.index)">
          <td v-if="many"><PickOne many :value="r.entry.pdo" :label="`PDO of ${bus.titleOf(r.entry)}`" :options="Array.from({ length: bus.family!.mostMessages }, (_, n) => n + 1)" @pick="(n) => machine.set(path(d.key, r.index) + '/pdo', Number(n))" /></td>
          <td class="mono">{{ r.at }}</td>
          <td><span v-if="r.entry.object === 0" class="pencil">filler, {{ r.entry.bits }} bit</span>
            <TextEntry v-else many class="name" :value="bus.titleOf(r.entry)" :title="`${bus.titleOf(r.entry)} ${bus.symbolOf(r.entry)}`" :aria-label="`Name of ${bus.titleOf(r.entry)}`" @enter="(t) => machine.set(path(d.key, r.index) + '/name', t.trim())" /></td>
          <td><span v-if="r.entry.object" class="bound" @dragover.prevent @drop.prevent="drop(d.key, r.index)">
            <span v-if="r.entry.tag" class="grip" draggable="true" aria-hidden="true" title="Drag onto another entry to bind it there" @dragstart="dragged = { direction: d.key, index: r.index, tag: true }">⠿</span>
            <TextEntry many class="tag" :value="r.entry.tag" placeholder="not bound" list="free-tags" :aria-label="`PLC tag of ${bus.titleOf(r.entry)}`" @enter="(t) => bind(d.key, r.index, r.entry, t)" /></span>
            <span v-if="machine.fault(path(d.key, r.index) + '/tag')" class="fault-text" role="alert">{{ machine.fault(path(d.key, r.index) + '/tag')!.allowed }}</span></td>
          <td><PickOne v-if="r.entry.object && r.entry.tag" many :value="r.entry.tagType" :label="`Type of ${r.entry.tag}`" :options="lists.all.tagTypes" @pick="(type) => machine.set(path(d.key, r.index) + '/tagType', type)" /></td>
          <td class="scale"><template v-if="r.entry.object && r.entry.tag">
            <PickOne many :value="r.entry.unit" :label="`Unit of ${r.entry.tag}`" :options="[{ code: '', words: 'raw' }, ...[...new Set([unit, unit + '/s', '%', r.entry.unit])].filter(Boolean)]" @pick="(code) => machine.set(path(d.key, r.index) + '/unit', code)" />
            <NumberField v-if="r.entry.unit || r.entry.factor !== 1" class="factor" :path="path(d.key, r.index) + '/factor'" :label="`On the wire per unit of ${r.entry.tag}`" :title="`on the wire per 1 ${r.entry.unit}`" :value="r.entry.factor" hide-label />
          </template></td>
          <NowTravels :direction="d.key" :index="r.index" :filler="r.entry.object === 0" />
          <td class="tools">
            <v-btn :icon="mdiArrowUp" variant="text" size="x-small" density="compact" :disabled="r.index === 0" :aria-label="`Move ${bus.titleOf(r.entry)} up`" @click="moveTo(d.key, r.index, r.index - 1)" />
            <v-btn :icon="mdiArrowDown" variant="text" size="x-small" density="compact" :disabled="r.index === d.rows.length - 1" :aria-label="`Move ${bus.titleOf(r.entry)} down`" @click="moveTo(d.key, r.index, r.index + 1)" />
            <v-btn :icon="mdiDelete" variant="text" size="x-small" density="compact" :aria-label="`Remove ${bus.titleOf(r.entry)}`" @click="machine.edit({ op: 'remove', path: path(d.key, r.index) })" />
          </td>
        </tr>
        <tr v-if="d.rows.length === 0"><td colspan="9" class="empty">Nothing travels this way yet. Add an entry below.</td></tr>
      </tbody>
    </v-table>
    <PickOne class="add" :label="`Add an entry, ${d.title}`" :value="null" placeholder="Add an entry…" :options="[{ code: '0/0/8', words: 'Filler, 8 bit' }, { code: '0/0/16', words: 'Filler, 16 bit' }, ...choices(d.key).map((o) => ({ code: `${o.object}/${o.subIndex}/${o.bits}`, words: `${o.title} ${o.symbol}, ${o.bits} bit` }))]" @pick="(code) => add(d.key, code)" />
    <PickOne v-if="offered(d.key).length" class="add" :label="`Layout of the device, ${d.title}`" :value="null" placeholder="Take a layout of the device…" :options="offered(d.key).map((p, n) => ({ code: n, words: `${p.number.toString(16).toUpperCase()}h ${p.name}${p.fixed ? ', fixed' : ''}: ${p.entries.map((e) => e.name + ' ' + e.bits).join(', ')}` }))" @pick="(n) => takeLayout(d.key, Number(n))" />
  </section>
  <section aria-label="Declared tags">
    <h2 class="gap">Tags without an entry</h2>
    <form class="declare" @submit.prevent="declare"><v-text-field v-model="declaring" class="snug number" placeholder="Probe : ARRAY[1..2] OF DINT; Lamp : BOOL" aria-label="Declare tags, Structured Text" /><v-btn type="submit" size="small" :disabled="!declaring.trim()">Declare</v-btn></form>
    <p v-if="refusal" class="fault-text" role="alert">{{ refusal }}</p>
    <ul v-if="free.length" class="chips"><li v-for="t in free" :key="t.name" draggable="true" @dragstart="held = t.name" @dragend="held = ''">{{ t.name }} <span class="pencil">{{ t.type }}</span> <button type="button" class="link" :aria-label="`Forget ${t.name}`" @click="forgetTag(t.name)">×</button></li></ul>
    <p class="pencil small">Drag a tag onto an entry, or choose it in the entry's field. The program can use it unbound, too.</p>
    <datalist id="free-tags"><option v-for="t in free" :key="t.name" :value="t.name">{{ t.type }}</option></datalist>
  </section>
</template>

<style scoped>
.declare { display: flex; gap: 8px; align-items: center; margin-top: 6px; font-size: 13px; } .declare .v-input { flex: 1; }
.chips { list-style: none; display: flex; flex-wrap: wrap; gap: 6px; padding: 0; margin: 6px 0; }
.chips li { border: 1.5px solid var(--ref); border-radius: 4px; padding: 0 6px; font-size: 12.5px; cursor: grab; }
.bar label { white-space: nowrap; } .bar .link { white-space: nowrap; } .bar select { max-width: 250px; } .bar { display: flex; align-items: center; gap: 8px; margin-bottom: 6px; font-size: 13px; }
.push { margin-left: auto; color: var(--pencil); }
.lanes { display: flex; gap: 6px; margin-bottom: 4px; }
.message { flex: 1 1 90px; min-width: 0; }
.pdo { font-size: 11px; color: var(--pencil); white-space: nowrap; }
.lane { display: flex; gap: 3px; padding: 5px; }
.box { flex: 1 1 58px; min-width: 0; border: 1.5px solid var(--cmd); border-radius: 3px; padding: 2px 5px; overflow: hidden; background: var(--cmd-wash); font-size: 12px; line-height: 1.15; cursor: grab; display: flex; flex-direction: column; justify-content: space-between; }
.box b { display: block; overflow-wrap: anywhere; hyphens: auto; font-weight: 650; }
.box span { font-size: 11px; letter-spacing: -0.6px; color: var(--pencil); white-space: nowrap; }
.box.act { border-color: var(--act); background: none; }
.box.filler { border-style: dashed; border-color: var(--pencil); background: repeating-linear-gradient(45deg, transparent 0 5px, var(--hair) 5px 6px); }
.box.marked { border-color: var(--stop); border-width: 2.5px; }
.box.on { outline: 2px solid var(--ink); }
.box.over { outline: 2px dashed var(--ref); }
h2.cmd { color: var(--cmd); } h2.act { color: var(--act); margin-top: 10px; }
.words { font-weight: 400; color: var(--pencil); }
tr.marked { background: var(--stop-wash); } tr.on { background: var(--cmd-wash); }
.bound { display: flex; align-items: center; gap: 2px; }
.grip { cursor: grab; color: var(--ref); font-size: 13px; }
.tag { width: 134px; } .name { field-sizing: content; min-width: 60px; max-width: 150px; border-color: transparent; background: none; padding-left: 0; }
.name:hover, .name:focus { border-color: var(--field-line); background: var(--sheet); }
.scale { white-space: nowrap; } .scale select { width: 64px; } .scale { --field-width: 74px; } .factor { display: inline-block; vertical-align: middle; }
td.mono { white-space: nowrap; font-size: 12px; letter-spacing: -0.3px; }
table { table-layout: auto; }
.pencil { color: var(--pencil); }
.tools { white-space: nowrap; text-align: right; }
.add { display: inline-grid; width: 330px; margin: 4px 8px 0 0; } .telegram { display: inline-flex; gap: 6px; align-items: center; white-space: nowrap; } .small { font-size: 12.5px; margin: 0; } .gap { margin-top: 14px; }
td, th { padding: 1px 4px !important; }
</style>
