<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { api } from '../api/client'
import BusTimes from '../components/map/BusTimes.vue'
import BusWords from '../components/map/BusWords.vue'
import PlcTable from '../components/map/PlcTable.vue'
import ProcessLayout from '../components/map/ProcessLayout.vue'
import TabRow from '../components/TabRow.vue'
import { useAxis } from '../lib/axis'
import { useBus } from '../stores/bus'

const { machine, axis } = useAxis()
const bus = useBus()
const tab = ref('layout')
const tabs = { layout: 'Layout', plc: 'Against the PLC', words: 'Words', times: 'Times' }
onMounted(bus.load)
watch(() => machine.axisIndex, () => (bus.layout = null))
watch([() => machine.draft, () => machine.axisIndex], async () => {
  const given = await machine.asked((document, number) => machine.byKey(document, (asked) => api.layout(asked, number)))
  if (given) bus.layout = given
}, { immediate: true })
onBeforeUnmount(() => (bus.layout = null))
const cycle = computed(() => machine.draft!.bus.cycleMicros / 1000)
</script>

<template>
  <h1>Map · {{ axis.name }}</h1>
  <p class="sub">Bytes as they travel every {{ cycle }} ms on {{ bus.family?.words }}, {{ bus.family?.byteOrder }}, and the PLC tags bound to them.</p>
  <TabRow v-model="tab" :tabs="tabs" label="Views of the process data" />
  <template v-if="bus.family && bus.layout">
    <ProcessLayout v-if="tab === 'layout'" />
    <PlcTable v-else-if="tab === 'plc'" />
    <BusWords v-else-if="tab === 'words'" />
    <BusTimes v-else />
  </template>
</template>
