<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiDelete } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Entry } from '../api/client'
import { useAxis } from '../lib/axis'
import { objects, objectName } from '../lib/objects'
import { fixed } from '../lib/numbers'

const { machine, bench, axis, live } = useAxis()
const chosen = ref('')
const TYPES = ['BOOL', 'SINT', 'INT', 'DINT', 'LINT', 'USINT', 'UINT', 'UDINT', 'ULINT', 'BYTE', 'WORD', 'DWORD', 'LWORD', 'REAL', 'LREAL']

interface Row { entry: Entry; index: number; first: number; bytes: string[]; now: string; bits: number }

function rows(entries: Entry[], image: string): Row[] {
  const wire = image ? image.split(' ') : []
  let bit = 0
  return entries.map((entry, index) => {
    const first = Math.floor(bit / 8)
    const last = Math.floor((bit + entry.bits - 1) / 8)
    const bytes = bench.behind ? [] : wire.slice(first, last + 1)
    const aligned = bit % 8 === 0
    bit += entry.bits
    return { entry, index, first, bytes, now: aligned && bytes.length ? meaning(entry, bytes) : '', bits: entry.bits }
  })
}

function meaning(entry: Entry, bytes: string[]): string {
  if (entry.object === 0) return ''
  const object = objects.find((o) => o.object === entry.object && o.subIndex === entry.subIndex)
  let value = bytes.reduceRight((sum, byte) => sum * 256 + parseInt(byte, 16), 0)
  if (object?.signed && value >= 2 ** (entry.bits - 1)) value -= 2 ** entry.bits
  if (entry.object === 0x6040) return ordered(value)
  if (entry.object === 0x6041) return live.value?.driveState ?? ''
  if (object?.position) return `${fixed(value / 10 ** axis.value.unit.decimals, 3)} ${axis.value.unit.symbol}${object.speed ? '/s' : ''}`
  if (entry.object === 0x6077 || entry.object === 0x6072 || entry.object === 0x6071) return `${fixed(value / 10, 1)} % of rated`
  if (entry.object === 0x60fd) return ['negative limit', 'positive limit', 'reference cam'].filter((_, i) => (value >> i) & 1).join(', ') || 'no switch active'
  if (entry.object === 0x6060 || entry.object === 0x6061) return value === 8 ? 'cyclic synchronous position' : value === 6 ? 'homing' : value === 10 ? 'cyclic synchronous torque' : String(value)
  return String(value)
}

/** The command a controlword gives, by the table of the standard. */
function ordered(word: number): string {
  if (word & 0x80) return 'fault reset'
  if (!(word & 2)) return 'disable voltage'
  if (!(word & 4)) return 'quick stop'
  if (!(word & 1)) return 'shutdown'
  if (!(word & 8)) return 'switch on'
  return word & 0x10 ? 'enable operation, start homing' : 'enable operation'
}

const directions = computed(() => [
  { key: 'outputs' as const, title: 'PLC to drive', colour: 'cmd', rows: rows(axis.value.station.outputs, live.value?.outputBytes ?? '') },
  { key: 'inputs' as const, title: 'Drive to PLC', colour: 'act', rows: rows(axis.value.station.inputs, live.value?.inputBytes ?? '') },
])
const bytes = (list: Row[]) => Math.ceil(list.reduce((sum, r) => sum + r.bits, 0) / 8)
const path = (direction: string, index: number | string) => `/axes/${machine.axisIndex}/station/${direction}/${index}`

function move(direction: 'outputs' | 'inputs', index: number, by: number) {
  const entry = axis.value.station[direction][index]
  machine.edit({ op: 'remove', path: path(direction, index) }, { op: 'add', path: path(direction, index + by), value: entry })
}

function add(direction: 'outputs' | 'inputs', event: Event) {
  const select = event.target as HTMLSelectElement
  const [object, subIndex, bits] = select.value.split('/').map(Number)
  const known = objects.find((o) => o.object === object && o.subIndex === subIndex)
  machine.edit({ op: 'add', path: path(direction, '-'), value: { object, subIndex, bits, tag: '', tagType: known?.type ?? '' } })
  select.value = ''
}

function bind(direction: string, index: number, entry: Entry, tag: string) {
  const type = entry.tagType || objects.find((o) => o.object === entry.object && o.subIndex === entry.subIndex)?.type || 'DINT'
  machine.edit({ op: 'replace', path: path(direction, index) + '/tag', value: tag.trim() }, { op: 'replace', path: path(direction, index) + '/tagType', value: type })
}
const finding = (direction: string, index: number) =>
  machine.advice('map')?.findings.some((f) => f.severity !== 'GOOD' && f.mend?.changes.some((c) => c.path === path(direction, index) || c.path.startsWith(path(direction, index) + '/')))
</script>

<template>
  <h1>Map · {{ axis.name }}</h1>
  <p class="sub">Bytes as they travel each cycle on EtherCAT, and the PLC tags bound to them.</p>
  <section v-for="d in directions" :key="d.key" :aria-label="d.title">
    <h2 :class="d.colour">{{ d.title }} · {{ bytes(d.rows) }} bytes</h2>
    <div class="lane sheet" role="img" :aria-label="`${d.title}: ` + d.rows.map((r) => `${objectName(r.entry)} ${r.bits} bits`).join(', ')">
      <div v-for="r in d.rows" :key="r.index" class="box" :class="[d.colour, { filler: r.entry.object === 0, marked: finding(d.key, r.index), on: chosen === d.key + r.index }]" :style="{ flexGrow: r.bits }" @click="chosen = d.key + r.index">
        <b>{{ objectName(r.entry) }}</b><span class="mono">{{ r.first }} · {{ r.bits }} bit</span>
      </div>
    </div>
    <table class="plain">
      <thead><tr><th>Bytes</th><th>Entry</th><th>PLC tag</th><th>Tag type</th><th>On the wire</th><th>Now</th><th><span class="visually-hidden">Order</span></th></tr></thead>
      <tbody>
        <tr v-for="r in d.rows" :key="r.index" :class="{ marked: finding(d.key, r.index), on: chosen === d.key + r.index }" @focusin="chosen = d.key + r.index">
          <td class="mono">{{ r.first }}{{ r.bits > 8 ? '–' + (r.first + Math.ceil(r.bits / 8) - 1) : '' }}</td>
          <td>{{ objectName(r.entry) }} <span v-if="r.entry.object" class="mono index">{{ r.entry.object.toString(16).toUpperCase() }}h</span></td>
          <td><input v-if="r.entry.object" class="plain tag" :value="r.entry.tag" placeholder="not bound" :aria-label="`PLC tag of ${objectName(r.entry)}`" @change="bind(d.key, r.index, r.entry, ($event.target as HTMLInputElement).value)" />
            <span v-if="machine.fault(path(d.key, r.index) + '/tag')" class="fault-text" role="alert">{{ machine.fault(path(d.key, r.index) + '/tag')!.allowed }}</span></td>
          <td><select v-if="r.entry.object && r.entry.tag" class="plain" :value="r.entry.tagType" :aria-label="`Type of ${r.entry.tag}`" @change="machine.set(path(d.key, r.index) + '/tagType', ($event.target as HTMLSelectElement).value)">
            <option v-for="t in TYPES" :key="t">{{ t }}</option>
          </select></td>
          <td class="mono">{{ r.bytes.join(' ') || '–' }}</td>
          <td>{{ r.now || '–' }}</td>
          <td class="tools">
            <v-btn :icon="mdiArrowUp" variant="text" size="x-small" density="compact" :disabled="r.index === 0" :aria-label="`Move ${objectName(r.entry)} up`" @click="move(d.key, r.index, -1)" />
            <v-btn :icon="mdiArrowDown" variant="text" size="x-small" density="compact" :disabled="r.index === d.rows.length - 1" :aria-label="`Move ${objectName(r.entry)} down`" @click="move(d.key, r.index, 1)" />
            <v-btn :icon="mdiDelete" variant="text" size="x-small" density="compact" :aria-label="`Remove ${objectName(r.entry)}`" @click="machine.edit({ op: 'remove', path: path(d.key, r.index) })" />
          </td>
        </tr>
        <tr v-if="d.rows.length === 0"><td colspan="7" class="empty">Nothing travels this way yet. Add an entry below.</td></tr>
      </tbody>
    </table>
    <select class="plain add" :aria-label="`Add an entry, ${d.title}`" value="" @change="add(d.key, $event)">
      <option value="" disabled>Add an entry…</option>
      <option value="0/0/8">Filler, 8 bit</option><option value="0/0/16">Filler, 16 bit</option>
      <option v-for="o in objects.filter((o) => d.key === 'inputs' || o.writable)" :key="o.object + '/' + o.subIndex" :value="`${o.object}/${o.subIndex}/${o.bits}`">{{ o.title }} {{ o.object.toString(16).toUpperCase() }}h, {{ o.bits }} bit</option>
    </select>
  </section>
</template>

<style scoped>
.lane { display: flex; gap: 3px; padding: 5px; margin-bottom: 4px; }
.box { flex: 1 1 64px; min-width: 0; border: 1.5px solid var(--cmd); border-radius: 3px; padding: 2px 5px; overflow: hidden; background: var(--cmd-wash); font-size: 12px; line-height: 1.15; cursor: default; display: flex; flex-direction: column; justify-content: space-between; }
.box b { display: block; overflow-wrap: anywhere; hyphens: auto; font-weight: 650; }
.box span { font-size: 11px; letter-spacing: -0.6px; color: var(--pencil); white-space: nowrap; }
.box.act { border-color: var(--act); background: none; }
.box.filler { border-style: dashed; border-color: var(--pencil); background: repeating-linear-gradient(45deg, transparent 0 5px, var(--hair) 5px 6px); }
.box.marked { border-color: var(--stop); border-width: 2.5px; }
.box.on { outline: 2px solid var(--ink); }
h2.cmd { color: var(--cmd); } h2.act { color: var(--act); margin-top: 10px; }
tr.marked { background: var(--stop-wash); } tr.on { background: var(--cmd-wash); }
.tag { width: 172px; }
td.mono { white-space: nowrap; font-size: 12px; }
table { table-layout: auto; }
.index { color: var(--pencil); font-size: 12px; }
.tools { white-space: nowrap; text-align: right; }
.add { margin-top: 4px; }
td, th { padding: 1px 6px !important; }
</style>
