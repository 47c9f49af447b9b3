<script setup lang="ts">
import { onMounted, ref } from 'vue'
import BusClocks from '../components/connect/BusClocks.vue'
import BusStations from '../components/connect/BusStations.vue'
import DeviceImages from '../components/connect/DeviceImages.vue'
import DeviceLibrary from '../components/connect/DeviceLibrary.vue'
import StartWrites from '../components/connect/StartWrites.vue'
import TakeOut from '../components/connect/TakeOut.vue'
import TabRow from '../components/TabRow.vue'
import { useMachine } from '../stores/machine'
import { useBus } from '../stores/bus'
import { useDevices } from '../stores/devices'

const machine = useMachine()
const bus = useBus()
const devices = useDevices()
const tab = ref('stations')
const tabs = { stations: 'Stations', devices: 'Devices', startup: 'Start-up writes', clocks: 'Clocks', images: 'Device images', out: 'Take out' }
onMounted(() => Promise.all([bus.load(), devices.load()]))
</script>

<template>
  <h1>Connect</h1>
  <p class="sub">{{ machine.draft!.axes.length }} stations on {{ bus.family?.words }}: where each is found, which device it must be, and what it is told when it starts.</p>
  <TabRow v-model="tab" :tabs="tabs" label="Views of the bus" />
  <template v-if="bus.family">
    <BusStations v-if="tab === 'stations'" />
    <DeviceLibrary v-else-if="tab === 'devices'" />
    <StartWrites v-else-if="tab === 'startup'" />
    <BusClocks v-else-if="tab === 'clocks'" />
    <DeviceImages v-else-if="tab === 'images'" />
    <TakeOut v-else />
  </template>
</template>
