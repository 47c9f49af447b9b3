<script setup lang="ts">
import { computed, ref } from 'vue'
import { mdiDelete, mdiPlus } from '@mdi/js'
import { useAxis } from '../../lib/axis'
import { fixed } from '../../lib/numbers'
import { useBench } from '../../stores/bench'
import { Problem } from '../../api/client'
import NumberField from '../NumberField.vue'
import TextEntry from '../TextEntry.vue'

/** Masters that are setpoints of the PLC alone: function blocks move them as they move an axis. */
const { machine } = useAxis()
const bench = useBench()
const masters = computed(() => machine.draft?.plc.virtualMasters ?? [])
const refused = ref('')
const set = (index: number, slot: string, value: unknown) => machine.set(`/plc/virtualMasters/${index}/${slot}`, value)
const now = (name: string) => bench.state?.virtualMasters.find((v) => v.name === name)

async function change(kind: 'ADD' | 'RENAME' | 'REMOVE', master?: string, name?: string) {
  refused.value = ''
  try {
    await machine.editVirtualMasters({ change: kind, master, name })
  } catch (error) {
    refused.value = error instanceof Problem ? (error.faults[0] ? `${error.faults[0].label} ${error.faults[0].value} is refused. Allowed: ${error.faults[0].allowed}.` : error.detail) : String(error)
  }
}
</script>

<template>
  <section class="virtual" aria-label="Virtual masters of the PLC">
    <h2 v-if="masters.length">Virtual masters of the PLC</h2>
    <div v-for="(m, i) in masters" :key="i" class="row" role="group" :aria-label="`Virtual master ${m.name}`">
      <label class="slot"><span>Name</span><TextEntry :value="m.name" aria-label="Name of the virtual master" maxlength="80" @enter="(text) => change('RENAME', m.name, text)" /></label>
      <label class="slot narrow"><span>Unit</span><TextEntry :value="m.unit.symbol" aria-label="Unit of the virtual master" maxlength="12" @enter="(text) => set(i, 'unit/symbol', text.trim())" /></label>
      <NumberField :path="`/plc/virtualMasters/${i}/modulo`" label="Modulo" :value="m.modulo" :unit="m.unit.symbol" title="Its position counts from 0 to this; it is also one turn of it" />
      <NumberField :path="`/plc/virtualMasters/${i}/speed`" label="Default speed" :value="m.speed" :unit="m.unit.symbol + '/s'" title="What a block takes when its Velocity is left out, and the speed by hand" />
      <NumberField :path="`/plc/virtualMasters/${i}/highestSpeed`" label="Highest speed" :value="m.highestSpeed" :unit="m.unit.symbol + '/s'" />
      <NumberField :path="`/plc/virtualMasters/${i}/acceleration`" label="Acceleration" :value="m.acceleration" :unit="m.unit.symbol + '/s²'" title="Default and highest, of braking too" />
      <NumberField :path="`/plc/virtualMasters/${i}/jerk`" label="Jerk" :value="m.jerk" :unit="m.unit.symbol + '/s³'" title="0 for no limit" />
      <v-btn class="remove" variant="text" size="small" :icon="mdiDelete" :aria-label="`Remove ${m.name}`" title="Remove it; who follows it follows nothing" @click="change('REMOVE', m.name)" />
      <span v-if="now(m.name)" class="live mono">{{ now(m.name)!.state }}, {{ fixed(now(m.name)!.position, 1) }} {{ m.unit.symbol }}, {{ fixed(now(m.name)!.speed, 1) }} {{ m.unit.symbol }}/s</span>
    </div>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
    <v-btn variant="text" size="small" :prepend-icon="mdiPlus" :disabled="machine.faults.length > 0" title="A setpoint in the PLC that axes can follow; blocks move it as they move an axis" @click="change('ADD')">Add a virtual master</v-btn>
  </section>
</template>

<style scoped>
h2 { font-size: 15px; margin: 10px 0 2px; }
.row { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: flex-start; --field-width: 90px; margin-top: 2px; }
.slot { width: 92px; } .slot.narrow { width: 56px; } .slot span { display: block; font-size: 12px; color: var(--pencil); }
.remove { align-self: end; }
.live { flex-basis: 100%; font-size: 12px; color: var(--pencil); }
.refused { color: var(--stop); margin: 2px 0; }
</style>
