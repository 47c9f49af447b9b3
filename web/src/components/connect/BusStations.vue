<script setup lang="ts">
import PickOne from '../PickOne.vue'
import { useChoices } from '../../stores/choices'
import { computed, onMounted, ref, watch } from 'vue'
import { api, type Difference, type ScanResult, type StandChange, type Axis } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useBus } from '../../stores/bus'
import { revisionWords, useDevices } from '../../stores/devices'
import { useMachine } from '../../stores/machine'
import ChoiceField from '../ChoiceField.vue'
import NumberField from '../NumberField.vue'
import TextEntry from '../TextEntry.vue'

/** The bus, its stations, and what is found on the bench against the plan. */
const machine = useMachine()
const bus = useBus()
const bench = useBench()
const devices = useDevices()
const family = computed(() => bus.family!)
const plan = computed(() => machine.draft!)
const scan = ref<ScanResult | null>(null)
const ignored = ref<string[]>([])
const from = ref(0)
const to = ref(65535)
const looking = ref(false)
const stand = ref<Record<string, StandChange[]>>({})
const imageName = ref('As it arrived')

/* without a number of its own, a station is asked for by the last part of its IP address */
const lowest = computed(() => (family.value.addressWord ? family.value.lowestAddress : 0))
const highest = computed(() => (family.value.addressWord ? family.value.highestAddress : 255))
const prefix = computed(() => (family.value.addressWord ? '' : plan.value.bus.plc.address.replace(/\d+$/, '')))
const families = computed(() => bus.families.map((f) => ({ code: f.family, words: f.words })))
const networks = computed(() => family.value.usesIp || plan.value.bus.family === 'ETHERCAT')

/** Another bus: every station gets the usual layout of it. One edit, so that undo takes it back whole. */
async function chooseFamily(chosen: string) {
  const moved = await machine.ordered((document) => api.moveToFamily(document, chosen as (typeof bus.families)[number]['family']))
  if (!moved) return
  machine.edit({ op: 'replace', path: '/bus', value: moved.bus }, { op: 'replace', path: '/plc/tasks', value: moved.plc.tasks },
    ...moved.axes.map((axis, i) => ({ op: 'replace' as const, path: `/axes/${i}/station`, value: axis.station })))
  scan.value = null
}

function chooseDevice(index: number, key: string) {
  const device = devices.fitting[Number(key)]?.device
  if (device) machine.set(`/axes/${index}/station/identity`, device.identity)
}
const marked = (index: number, field: string) => machine.faults.some((f) => f.field === `/axes/${index}/station/${field}`)
const findings = (index: number) => machine.answer?.stages.find((s) => s.stage === 'connect' && s.axis === index)?.advice.findings.filter((f) => f.severity !== 'GOOD') ?? []

async function look() {
  looking.value = true
  await machine.flush()
  scan.value = (await machine.guarded(() => api.scan(machine.id, from.value, to.value))) ?? scan.value
  looking.value = false
}
const differences = computed(() => scan.value?.differences.filter((d) => !ignored.value.includes(d.axis + d.kind)) ?? [])
const choices = useChoices()

async function resolve(d: Difference, way: Difference['ways'][number]) {
  const index = plan.value.axes.findIndex((a) => a.name === d.axis)
  const found = scan.value?.found.find((f) => f.axis === d.axis)
  if (way === 'KEEP_IMAGE') {
    await machine.guarded(() => api.keepImage(machine.id, d.axis, imageName.value))
  } else if (way === 'TAKE_OVER' && found) {
    if (d.kind === 'REVISION' || d.kind === 'PRODUCT') machine.set(`/axes/${index}/station/identity`, found.identity)
    else machine.set(`/axes/${index}/station/address`, found.address)
  } else if (way === 'READDRESS' || way === 'EXCHANGE') {
    await machine.guarded(() => api.resolveAtDevice(machine.id, d.axis, way))
    stand.value = (await machine.guarded(() => api.stand(machine.id))) ?? stand.value
  }
  await look()
}

/** Devices that a station can be, and the one that it is where no description is known. */
const devicesFor = (axis: Axis) => [
  ...(devices.indexOf(axis.station.identity) < 0 ? [{ code: -1, words: `${axis.station.identity.device} ${revisionWords(axis.station.identity.revision)}${plan.value.bus.family === 'MODBUS_TCP' ? '' : ', no description'}` }] : []),
  ...devices.fitting.map((k, n) => ({ code: n, words: `${k.device.name} ${revisionWords(k.device.identity.revision)}` })),
]

async function change(axis: string, wanted: string) {
  await machine.flush()
  stand.value = (await machine.guarded(() => api.changeStand(machine.id, axis, wanted ? [wanted as StandChange] : []))) ?? stand.value
  if (scan.value) await look()
}
onMounted(async () => (stand.value = (await machine.guarded(() => api.stand(machine.id))) ?? {}))
watch(() => family.value.family, () => {
  from.value = lowest.value
  to.value = highest.value
}, { immediate: true })
</script>

<template>
  <div class="bus">
    <ChoiceField path="/bus/family" label="Bus" :value="plan.bus.family" :options="families" :choose="chooseFamily" />
    <NumberField path="/bus/cycleMicros" label="Bus cycle" unit="µs" :value="plan.bus.cycleMicros" whole />
    <ChoiceField v-if="plan.bus.family === 'CANOPEN'" path="/bus/kiloBits" label="Bit rate, kbit/s" :value="String(plan.bus.kiloBits)" :options="choices.all.canOpenRates" :choose="(v) => machine.set('/bus/kiloBits', Number(v))" />
    <ChoiceField v-if="plan.bus.family === 'MODBUS_TCP'" path="/bus/lowWordFirst" label="32-bit values" :value="String(plan.bus.lowWordFirst)" :options="[{ code: 'false', words: 'high word first' }, { code: 'true', words: 'low word first' }]" :choose="(v) => machine.set('/bus/lowWordFirst', v === 'true')" />
    <template v-if="networks">
      <ChoiceField path="/bus/plc/address" label="IP address of the PLC" :value="plan.bus.plc.address" :options="[]" free />
      <ChoiceField class="mask" path="/bus/plc/mask" label="Mask" :value="plan.bus.plc.mask" :options="['255.255.255.0', '255.255.0.0', '255.0.0.0']" free />
      <ChoiceField path="/bus/plc/gateway" label="Gateway" :value="plan.bus.plc.gateway" :options="[]" free />
    </template>
  </div>
  <v-table class="plain" data-testid="stations">
    <thead><tr><th>Station</th><th>Device, revision</th><th v-if="family.addressWord">{{ family.addressWord }}</th><th v-if="family.nameWord">{{ family.nameWord }}</th><template v-if="networks"><th>IP address</th><th>Mask</th><th>Gateway</th></template><th>On the bench</th></tr></thead>
    <tbody>
      <tr v-for="(axis, i) in plan.axes" :key="axis.name" :class="{ on: machine.axisIndex === i, marked: findings(i).some((f) => f.severity === 'FAULT') }" @focusin="machine.axisIndex = i" @click="machine.axisIndex = i">
        <th scope="row">{{ axis.name }}</th>
        <td><PickOne many class="device" :value="devices.indexOf(axis.station.identity)" :label="`Device of ${axis.name}`" :options="devicesFor(axis)" @pick="(code) => chooseDevice(i, code)" /></td>
        <td v-if="family.addressWord"><NumberField :path="`/axes/${i}/station/address/number`" :label="`${family.addressWord} of ${axis.name}`" :value="axis.station.address.number" whole hide-label class="num" /></td>
        <td v-if="family.nameWord"><TextEntry many class="stationname" :value="axis.station.address.name" :aria-label="`${family.nameWord} of ${axis.name}`" @enter="(t) => machine.set(`/axes/${i}/station/address/name`, t.trim())" /></td>
        <template v-if="networks">
          <td v-for="part in (['address', 'mask', 'gateway'] as const)" :key="part"><TextEntry many class="ip mono" :class="{ gate: part === 'gateway' && !axis.station.address.ip.gateway, wrong: marked(i, `address/ip/${part}`) }" :value="axis.station.address.ip[part]" :aria-invalid="marked(i, `address/ip/${part}`)" :aria-label="`${part === 'address' ? 'IP address' : part} of ${axis.name}`" @enter="(t) => machine.set(`/axes/${i}/station/address/ip/${part}`, t.trim())" /></td>
        </template>
        <td><PickOne many class="there" :value="stand[axis.name]?.[0] ?? ''" :label="`Device of ${axis.name} on the bench`" :options="[{ code: '', words: 'as planned' }, ...choices.all.standChanges]" @pick="(code) => change(axis.name, code)" /></td>
      </tr>
    </tbody>
  </v-table>
  <section aria-label="Look for devices">
    <h2>What is there, against the plan</h2>
    <div class="look">
      <v-btn color="primary" variant="flat" :loading="looking" @click="look">Look for devices</v-btn>
      <v-text-field v-model.number="from" class="snug range" type="number" :prefix="`from ${prefix}`" :min="lowest" :max="highest" aria-label="Lowest address to ask" />
      <v-text-field v-model.number="to" class="snug range" type="number" :prefix="`to ${prefix}`" :min="lowest" :max="highest" aria-label="Highest address to ask" />
      <span v-if="scan" role="status">{{ scan.found.length }} of {{ plan.axes.length }} answered; {{ differences.length === 0 ? 'all as planned' : differences.length + (differences.length === 1 ? ' difference' : ' differences') }}<template v-if="ignored.length">, {{ ignored.length }} ignored <button type="button" class="link" @click="ignored = []">show again</button></template></span>
      <span v-else class="pencil">The devices on the bench are asked who they are.</span>
    </div>
    <v-table v-if="differences.length" class="plain" data-testid="differences">
      <thead><tr><th>Station</th><th>Differs in</th><th>Planned</th><th>Found</th><th>What it leads to</th><th>Resolve</th></tr></thead>
      <tbody>
        <tr v-for="d in differences" :key="d.axis + d.kind">
          <th scope="row">{{ d.axis }}</th><td>{{ choices.words(choices.all.differences, d.kind) }}</td><td>{{ d.planned || '–' }}</td><td>{{ d.found || '–' }}</td><td>{{ d.consequence }}</td>
          <td class="ways"><button v-for="way in d.ways" :key="way" type="button" class="link" @click="resolve(d, way)">{{ d.kind === 'MISSING' && way === 'EXCHANGE' ? 'Put the planned one in' : choices.words(choices.all.resolutions, way) }}</button>
            <button type="button" class="link quiet" @click="ignored = [...ignored, d.axis + d.kind]">Ignore</button></td>
        </tr>
      </tbody>
    </v-table>
    <p v-if="bench.state?.axes.some((a) => !a.device.connected)" class="fault-text" role="status">Not on the bus: {{ bench.state.axes.filter((a) => !a.device.connected).map((a) => a.name).join(', ') }}. The PLC does not bring what is not as planned into operation.</p>
  </section>
</template>

<style scoped>
.mask { --field-width: 152px; }
.bus { display: flex; flex-wrap: wrap; gap: 10px; margin-bottom: 8px; }
td, th { padding: 1px 3px !important; } th[scope='row'] { font-weight: 700; color: var(--ink); border-bottom: 1px solid var(--hair) !important; }
tr.on { background: var(--cmd-wash); } tr.marked { background: var(--stop-wash); }
.device { width: 146px; } .ip { width: 104px; font-size: 12px; padding: 2px 4px; letter-spacing: -0.4px; } .gate { width: 62px; } .num { width: 58px; } .there { width: 122px; } .stationname { width: 96px; } .wrong { border-color: var(--stop); }
.range { width: 76px; } .look { display: flex; gap: 10px; align-items: center; margin: 4px 0 6px; font-size: 13px; }
h2 { margin-top: 12px; }
.ways button { display: block; margin: 2px 0; } .pencil, .quiet { color: var(--pencil); }
</style>
