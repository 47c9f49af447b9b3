<script setup lang="ts">
import { computed, ref } from 'vue'
import { mdiDelete, mdiPlus } from '@mdi/js'
import { Problem, type Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'

/** Doors, emergency stops and other things that ask the guards: two channels each, closed at rest. */
const machine = useMachine()
const choices = useChoices()
const requests = computed(() => machine.draft!.safetyRequests)
const refused = ref('')
const uses = (r: Schemas['SafetyRequest'], entry: string) => choices.all.guard.protections.find((p) => p.code === r.protection.kind)?.uses.includes(entry) ?? false

async function change(kind: Schemas['RequestQuestion']['change'], request?: string, name?: string) {
  refused.value = ''
  try {
    await machine.editSafetyRequests({ change: kind, request, name })
  } catch (error) {
    refused.value = error instanceof Problem ? (error.faults[0] ? `${error.faults[0].label} ${error.faults[0].value} is refused. Allowed: ${error.faults[0].allowed}.` : error.detail) : String(error)
  }
}
</script>

<template>
  <section aria-label="Requests">
    <h2 v-if="requests.length">Requests</h2>
    <div v-for="(r, i) in requests" :key="i" class="row" role="group" :aria-label="`Request ${r.name}`">
      <label class="slot"><span>Name</span><TextEntry :value="r.name" aria-label="Name of the request" maxlength="80" @enter="(text) => change('RENAME', r.name, text)" /></label>
      <NumberField :path="`/safetyRequests/${i}/reaction`" label="Sensor" :value="r.reaction" unit="ms" title="Time from what happens until the contacts open, as the maker of the sensor tells it" />
      <NumberField :path="`/safetyRequests/${i}/filter`" label="Filter" :value="r.filter" unit="ms" title="How long a change must stand before it counts" />
      <NumberField :path="`/safetyRequests/${i}/discrepancy`" label="Discrepancy" :value="r.discrepancy" unit="ms" title="How long the two channels may differ" />
      <label class="slot kind"><span>What one comes past</span><PickOne label="What one comes past" :value="r.protection.kind" :options="choices.all.guard.protections" @pick="(code) => machine.set(`/safetyRequests/${i}/protection/kind`, code)" /></label>
      <NumberField v-if="uses(r, 'resolution')" :path="`/safetyRequests/${i}/protection/resolution`" label="Resolution" :value="r.protection.resolution" unit="mm" title="d: the smallest thing that it sees" />
      <NumberField v-if="uses(r, 'height')" :path="`/safetyRequests/${i}/protection/height`" label="Height" :value="r.protection.height" unit="mm" title="H: over the floor" />
      <NumberField v-if="uses(r, 'reach')" :path="`/safetyRequests/${i}/protection/reach`" label="Reach" :value="r.protection.reach" unit="mm" title="How far one reaches through before it asks (ISO 13857)" />
      <v-checkbox-btn v-if="uses(r, 'shrouded')" class="flag" :model-value="r.protection.shrouded" label="hands cannot reach past it" @update:model-value="(on: boolean) => machine.set(`/safetyRequests/${i}/protection/shrouded`, on)" />
      <NumberField :path="`/safetyRequests/${i}/stopping`" label="Measured stop" :value="r.stopping" unit="ms" title="Time from what happens until the danger is over, as it was measured on the machine; 0: the reckoned time of each axis counts" />
      <v-btn class="remove" variant="text" size="small" :icon="mdiDelete" :aria-label="`Remove ${r.name}`" title="Remove it; nobody is asked by it any more" @click="change('REMOVE', r.name)" />
    </div>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
    <v-btn variant="text" size="small" :prepend-icon="mdiPlus" :disabled="machine.faults.length > 0" title="A door, an emergency stop: two channels, closed at rest" @click="change('ADD')">Add a request</v-btn>
  </section>
</template>

<style scoped>
h2 { font-size: 15px; margin: 12px 0 2px; }
.row { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: flex-start; --field-width: 84px; margin-top: 2px; }
.slot { width: 122px; } .slot.kind { width: 164px; } .slot span { display: block; font-size: 12px; color: var(--pencil); }
.remove, .flag { align-self: end; flex: none; }
.refused { color: var(--stop); margin: 2px 0; }
</style>
