<script setup lang="ts">
import ProblemNote from '../ProblemNote.vue'
import { useProblem } from '../../lib/problems'
import { useBus } from '../../stores/bus'
import { computed, ref, watch } from 'vue'
import { api, Problem, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import TextEntry from '../TextEntry.vue'
import { useBench } from '../../stores/bench'
import { revisionWords, useDevices } from '../../stores/devices'

/** Descriptions that are known, one of them in full: objects, messages with their rules, clocks, mailbox. */
const { machine, axis } = useAxis()
const bench = useBench()
const devices = useDevices()
const chosen = ref(0)
const { problem, tried, tooLarge } = useProblem()
const brought = ref<Schemas['Brought'] | null>(null)
const taken = ref<Schemas['Taken'] | null>(null)
const filter = ref('')
const bus = useBus()
const familyWords = (family: string) => bus.families.find((f) => f.family === family)?.words ?? family
const device = computed(() => devices.known[chosen.value]?.device ?? null)
/* begins with the planned device of the axis */
watch([() => axis.value.name, () => devices.known.length], () => {
  if (brought.value) return
  const planned = devices.of(axis.value.station.identity)
  chosen.value = Math.max(0, devices.known.findIndex((k) => k.device === planned))
}, { immediate: true })
const objects = computed(() => {
  const text = filter.value.trim().toLowerCase()
  return device.value?.objects.filter((o) => !text || o.name.toLowerCase().includes(text) || hex(o.index).toLowerCase().includes(text)) ?? []
})
const hex = (n: number) => n.toString(16).toUpperCase().padStart(4, '0') + 'h'
const numbered = computed(() => device.value?.family === 'ETHERCAT' || device.value?.family === 'CANOPEN')

async function bring(file: File | undefined) {
  if (!file) return
  brought.value = null
  taken.value = null
  if (tooLarge(file, 32, 'Take what is needed out of it.')) return
  const given = await tried(() => api.bringDevice(file))
  if (!given) return
  brought.value = given
  await devices.load()
  const first = given.devices[0]!
  chosen.value = Math.max(0, devices.known.map((k) => k.device.family === first.family && k.device.identity.product === first.identity.product && k.device.identity.revision === first.identity.revision).lastIndexOf(true))
  void machine.askAgain()
}

/** What a DCF says of its node becomes one change of the axis, which can be undone. */
async function take(configuration: Schemas['NodeConfiguration']) {
  const index = machine.axisIndex
  const answer = await tried(() => api.takeConfiguration(machine.draft!, index, configuration))
  if (!answer) return
  if (answer.changes.length) {
    machine.edit({ op: 'replace', path: '/bus', value: answer.machine.bus }, { op: 'replace', path: `/axes/${index}/station`, value: answer.machine.axes[index]!.station })
  }
  taken.value = answer
}

async function forget(file: number) {
  await machine.guarded(() => api.forgetDevice(file))
  chosen.value = 0
  await devices.load()
}

/** Changing an object adds a write at start-up, or changes the one that is there. */
function change(object: (typeof objects.value)[number], entered: string) {
  const text = entered.trim()
  if (!text) return
  const value = /^0x/i.test(text) ? parseInt(text, 16) : Number(text)
  if (!Number.isInteger(value)) {
    problem.value = new Problem(0, `${object.name} ${text} is refused`, 'Allowed: a whole number, decimal or hexadecimal with 0x.', [])
    return
  }
  problem.value = null
  const present = axis.value.station.startWrites.findIndex((w) => w.object === object.index && w.subIndex === object.subIndex)
  if (present >= 0) return machine.set(`/axes/${machine.axisIndex}/station/startWrites/${present}/value`, value)
  machine.edit({ op: 'add', path: `/axes/${machine.axisIndex}/station/startWrites/-`, value: { object: object.index, subIndex: object.subIndex, bits: object.bits, value, transition: 'PREOP_TO_SAFEOP', comment: object.name, enabled: true } })
}
const written = (index: number, sub: number) => axis.value.station.startWrites.filter((w) => w.object === index && w.subIndex === sub && w.enabled).at(-1)?.value
const planned = computed(() => device.value && axis.value.station.identity.vendor === device.value.identity.vendor && axis.value.station.identity.product === device.value.identity.product && device.value.family === machine.draft!.bus.family)
</script>

<template>
  <div class="bring" @dragover.prevent @drop.prevent="bring($event.dataTransfer?.files[0])">
    <v-file-input class="snug file" :model-value="null" accept=".xml,.eds,.dcf" placeholder="Bring a description in…" aria-label="Device description file" @update:model-value="(file) => bring(file as File)" />
    <span class="pencil">ESI, GSDML, EDS or DCF of CANopen, EDS of ODVA; drop it here. What is not understood is said.</span>
  </div>
  <ProblemNote v-if="problem" :problem="problem" data-testid="file-refused" @close="problem = null" />
  <div v-if="brought" role="status" class="brought">{{ brought.devices.length }} {{ brought.devices.length === 1 ? 'device' : 'devices' }} {{ brought.configuration ? 'read' : 'brought in' }}: {{ brought.devices.map((d) => d.name + ' ' + revisionWords(d.identity.revision)).join(', ') }}.
    <template v-if="brought.remarks.length"> Not understood: <ul><li v-for="r in brought.remarks" :key="r">{{ r }}</li></ul></template>
    <div v-if="brought.configuration" data-testid="configuration">
      <template v-if="!taken">The file holds the configuration of one node{{ brought.configuration.name ? ` “${brought.configuration.name}”` : '' }}: {{ [brought.configuration.node && `node id ${brought.configuration.node}`, brought.configuration.kiloBits && `${brought.configuration.kiloBits} kbit/s`, brought.configuration.values.length && `${brought.configuration.values.length} values`].filter(Boolean).join(', ') }}.
        <v-btn color="primary" variant="flat" size="small" @click="take(brought.configuration)">Take it over for {{ axis.name }}</v-btn></template>
      <template v-else-if="!taken.changes.length">Nothing of it is different for {{ axis.name }}.</template>
      <template v-else>Taken over for {{ axis.name }}; undo brings back what was there. <ul><li v-for="c in taken.changes" :key="c">{{ c }}</li></ul></template>
      <template v-if="taken?.remarks.length"> To look at: <ul><li v-for="r in taken.remarks" :key="r">{{ r }}</li></ul></template>
    </div></div>
  <div class="two">
    <ul class="list" aria-label="Known devices">
      <li v-for="(k, i) in devices.known" :key="i"><button type="button" :aria-pressed="chosen === i" @click="chosen = i"><b>{{ k.device.name }} {{ revisionWords(k.device.identity.revision) }}</b><span>{{ familyWords(k.device.family) }} · {{ k.device.format }} · {{ k.file ? k.fileName : 'ships with Rueda' }}</span></button>
        <button v-if="k.file" type="button" class="link" @click="forget(k.file)">Forget {{ k.fileName }}</button></li>
    </ul>
    <div v-if="device" class="detail">
      <p><b>{{ device.name }}</b> by {{ device.vendor }}, vendor <span class="mono">{{ device.identity.vendor.toString(16).toUpperCase() }}h</span>, product <span class="mono">{{ device.identity.product.toString(16).toUpperCase() }}h</span>, revision {{ revisionWords(device.identity.revision) }}.
        <template v-if="device.clocks.length"> Clocks: {{ device.clocks.map((c) => c.name + (c.words ? `, ${c.words}` : '')).join('; ') }}.</template> Mailbox: {{ device.mailbox.join(', ') || 'none' }}.<template v-if="device.terminals.length"> Terminals: {{ device.terminals.join('; ') }}.</template></p>
      <h2>Messages</h2>
      <v-table class="plain"><thead><tr><th>Number</th><th>Name</th><th>Way</th><th>Entries</th><th>Rules</th></tr></thead>
        <tbody><tr v-for="(p, n) in device.pdos" :key="`${p.number} ${p.output} ${n}`"><td class="mono">{{ numbered ? hex(p.number) : p.number }}</td><td>{{ p.name }}</td><td>{{ p.output ? 'to the device' : 'from it' }}</td>
          <td>{{ p.entries.map((e) => (e.index === 0 ? `filler ${e.bits}` : `${e.name} ${e.bits}`)).join(', ') || 'none' }}</td>
          <td>{{ [p.fixed && 'fixed', p.mandatory && 'mandatory', p.chosen && 'by default', p.excludes.length && 'not with ' + p.excludes.map(hex).join(', ')].filter(Boolean).join('; ') || '–' }}</td></tr></tbody></v-table>
      <h2 class="gap objects">Objects <v-text-field v-model="filter" class="snug typed" placeholder="find" aria-label="Find an object" /></h2>
      <p v-if="planned && numbered" class="sub">A value entered here is written to {{ axis.name }} at start-up; it stands under Start-up writes.</p>
      <v-table class="plain"><thead><tr><th>Index</th><th>Name</th><th>Type</th><th>Access</th><th>Range</th><th>Default</th><th v-if="planned && numbered">Write to {{ axis.name }}</th></tr></thead>
        <tbody><tr v-for="(o, n) in objects" :key="`${o.index}:${o.subIndex}:${n}`"><td class="mono">{{ numbered ? hex(o.index) + (o.subIndex ? ':' + o.subIndex.toString(16).toUpperCase().padStart(2, '0') : '') : o.index }}</td><td>{{ o.name }}</td><td class="mono">{{ o.dataType }}</td><td>{{ { READ: 'read', WRITE: 'write', READ_WRITE: 'read, write', CONSTANT: 'constant' }[o.access] }}</td>
          <td class="mono">{{ o.choices.length ? o.choices.map((c) => `${c.value} ${c.name}`).join(', ') : o.low || o.high ? `${o.low || '…'} to ${o.high || '…'}` : '–' }}</td><td class="mono">{{ o.preset || '–' }}</td>
          <td v-if="planned && numbered"><TextEntry v-if="(o.access === 'READ_WRITE' || o.access === 'WRITE') && [8, 16, 32].includes(o.bits)" class="plain mono write" :value="written(o.index, o.subIndex) ?? ''" :aria-label="`Write ${o.name}`" @enter="(t) => change(o, t)" /></td></tr></tbody></v-table>
    </div>
  </div>
  <p v-if="!bench.state" class="visually-hidden">The bench is off.</p>
</template>

<style scoped>
.bring { display: flex; gap: 12px; align-items: center; border: 1.5px dashed var(--field-line); border-radius: 5px; padding: 6px 10px; font-size: 13px; }
.file { font-weight: 650; } .pencil { color: var(--pencil); }
.refused { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; font-size: 13px; }
.brought { border-left: 4px solid var(--ok); background: var(--ok-wash); padding: 4px 8px; font-size: 13px; margin-top: 6px; }
.two { display: grid; grid-template-columns: 210px minmax(0, 1fr); gap: 14px; margin-top: 8px; }
.list { list-style: none; margin: 0; padding: 0; }
.list > li > button:first-child { display: block; width: 100%; text-align: left; border: 1px solid var(--hair); background: var(--sheet); color: var(--ink); font: inherit; font-size: 13px; border-radius: 4px; padding: 4px 8px; margin-bottom: 4px; cursor: pointer; }
.list button[aria-pressed='true'] { border-color: var(--cmd) !important; border-width: 2px !important; }
.list span { display: block; color: var(--pencil); font-size: 12px; }
td, th { padding: 1px 5px !important; } .gap { margin-top: 10px; } .write { width: 90px; font-size: 12px; }
.detail p { margin: 0 0 6px; font-size: 13px; }
</style>
