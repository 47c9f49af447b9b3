<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'

/** How the chosen function is watched. @prop rules entry of the guard that says how; empty for a function without rules of its own */
const props = defineProps<{ ask: Schemas['Ask']; rules: string }>()
const { machine, axis, at, unit } = useAxis()
const choices = useChoices()
const guard = computed(() => axis.value.guard)
const stop = computed(() => (props.rules && props.rules !== 'speed' ? guard.value[props.rules as 'stop1'] : null))
const path = computed(() => `${at.value}/guard/${props.rules}`)
const off = computed(() => props.ask.function === 'SAFE_STOP_1')
const ramped = computed(() => props.ask.function !== 'SAFE_OPERATING_STOP')
const set = (entry: string, value: unknown) => machine.set(`${at.value}/guard/${entry}`, value)
</script>

<template>
  <section class="entries" aria-label="How it is watched">
    <div v-if="stop" class="line">
      <label v-if="ramped" class="slot">Watch<PickOne label="What is watched" :value="stop.watch" :options="choices.all.guard.watches" @pick="(code) => set(`${rules}/watch`, code)" /></label>
      <NumberField :path="`${path}/delay`" label="Delay" :value="stop.delay" unit="ms" title="From the request until the watch begins: what the control takes to hear of it and to slow down" />
      <template v-if="ramped && stop.watch === 'RAMP'">
        <NumberField :path="`${path}/flattest`" label="Flattest ramp" :value="stop.flattest" :unit="`${unit}/s²`" title="It must slow down at least as much: v₀ − a·t is the limit" />
        <NumberField :path="`${path}/steepest`" label="Steepest ramp" :value="stop.steepest" :unit="`${unit}/s²`" title="It may slow down at most as much; 0 for any" />
      </template>
      <NumberField v-if="ramped && stop.watch === 'TIME'" :path="`${path}/time`" label="Time to stand" :value="stop.time" unit="ms" title="From the end of the delay" />
      <NumberField :path="`${path}/standstillSpeed`" label="Standstill speed" :value="stop.standstillSpeed" :unit="`${unit}/s`" title="What counts as standing" />
      <NumberField :path="`${path}/filterDistance`" label="Filter distance" :value="stop.filterDistance" :unit="unit" title="Way that may be gone above the allowed speed before that counts: ∫(v − limit) dt" />
      <NumberField v-if="!off" :path="`${path}/window`" label="Standstill window" :value="stop.window" :unit="unit" title="How far it may be from where it came to rest, either way" />
      <template v-else>
        <NumberField :path="`${path}/brakeDelay`" label="Brake after" :value="stop.brakeDelay" unit="ms" title="From standstill until the brake is told to close" />
        <NumberField :path="`${path}/torqueDelay`" label="Torque off after" :value="stop.torqueDelay" unit="ms" title="From standstill until the torque goes" />
      </template>
      <label class="slot">Motion again<PickOne label="Motion is allowed again" :value="stop.restart" :options="choices.all.guard.restarts" @pick="(code) => set(`${rules}/restart`, code)" /></label>
    </div>
    <div v-else-if="rules === 'speed'" class="line">
      <NumberField :path="`${path}/delay`" label="Delay" :value="guard.speed.delay" unit="ms" title="From the request until the limit counts" />
      <NumberField v-if="ask.function === 'SAFELY_LIMITED_SPEED'" :path="`${path}/limit`" label="Limited speed" :value="guard.speed.limit" :unit="`${unit}/s`" />
      <NumberField :path="`${path}/filterDistance`" label="Filter distance" :value="guard.speed.filterDistance" :unit="unit" title="Way above the limit, or the wrong way, before that counts" />
    </div>
    <div v-else class="line sub">The torque goes at once; it comes back as after safe stop 1.</div>
  </section>
</template>

<style scoped>
.line { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: flex-end; --field-width: 104px; }
.slot { font-size: 12px; color: var(--pencil); width: 178px; }
</style>
