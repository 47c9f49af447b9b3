<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'

/** The guard of an axis itself: its clock, its encoder, and who does what it asks for. */
const { machine, axis, at, unit } = useAxis()
const choices = useChoices()
const guard = computed(() => axis.value.guard)
const set = (entry: string, value: unknown) => machine.set(`${at.value}/guard/${entry}`, value)
</script>

<template>
  <div class="line device" role="group" aria-label="The guard">
    <b>The guard</b>
    <NumberField :path="`${at}/guard/cycle`" label="Cycle" :value="guard.cycle" unit="ms" :title="`A multiple of ${choices.all.guard.steps} ms`" />
    <NumberField :path="`${at}/guard/countsPerTurn`" label="Own encoder" :value="guard.countsPerTurn" unit="/turn" whole title="Counts per turn of the motor" />
    <NumberField wide :path="`${at}/guard/unitsPerTurn`" label="Own scale" :value="guard.unitsPerTurn" :unit="`${unit}/turn`" title="Way of the axis for a turn of the motor, as the guard has it" />
    <label class="slot wide">Slowed down by<PickOne label="Slowed down by" :value="guard.slowing" :options="choices.all.guard.slowings" @pick="(code) => set('slowing', code)" /></label>
    <v-checkbox-btn v-if="axis.brake.torque > 0" class="brake" :model-value="guard.brake" label="closes the brake" title="Safe brake control: the guard closes the holding brake" @update:model-value="(on: boolean) => set('brake', on)" />
  </div>
</template>

<style scoped>
.line { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: flex-end; --field-width: 104px; }
.device { border-top: 1px solid var(--hair); margin-top: 6px; padding-top: 4px; } .device > b { align-self: center; font-size: 13px; }
.slot { font-size: 12px; color: var(--pencil); width: 178px; } .slot.wide { width: 220px; }
.brake { flex: none; }
</style>
