<script setup lang="ts">
import PickOne from './PickOne.vue'
import { computed, ref } from 'vue'
import { useAxis } from '../lib/axis'
import { fixed, parsed } from '../lib/numbers'
import { useHand } from '../stores/hand'

/** Torque instead of position, by hand, with a speed limit: from a value or from the analogue input. */
const { axis, unit, live } = useAxis()
const hand = useHand()
const analogue = computed(() => axis.value.wiring.terminals.some((t) => t.function === 'TORQUE'))
const source = ref<'value' | 'input'>('value')
const torqueText = ref('10')
const speedText = ref('')
const torque = computed(() => parsed(torqueText.value))
const speed = computed(() => (speedText.value.trim() === '' ? axis.value.limits.normal.speed / 10 : parsed(speedText.value)))
const making = computed(() => live.value?.mode === 10)
const byInput = computed(() => source.value === 'input' && analogue.value)
const ready = computed(() => hand.key !== '' && speed.value !== null && (byInput.value || torque.value !== null))

function make() {
  void hand.order('TORQUE', byInput.value ? undefined : torque.value!, undefined, undefined, undefined, speed.value!)
}
</script>

<template>
  <section aria-label="Torque operation">
    <h2>Torque operation</h2>
    <p v-if="!hand.key" class="sub">The drive makes torque instead of a position. Take control in the dock, by hand, to try it.</p>
    <div class="row">
      <span>From <PickOne label="Source of the torque" :value="source" :options="[{ code: 'value', words: 'a value' }, { code: 'input', words: `the analogue input${analogue ? '' : ', not wired'}`, disabled: !analogue }]" @pick="(code) => (source = code as typeof source)" /></span>
      <v-text-field v-if="!byInput" v-model="torqueText" class="snug number typed" aria-label="Torque" suffix="% of rated" />
      <span>up to <v-text-field v-model="speedText" class="snug number typed" aria-label="Speed limit" :placeholder="String(axis.limits.normal.speed / 10)" persistent-placeholder :suffix="`${unit}/s`" /></span>
      <v-btn :disabled="!ready" @click="make">Make torque</v-btn>
      <v-btn :disabled="!hand.key || !making" @click="hand.order('STOP')">Stop</v-btn>
    </div>
    <p v-if="hand.key && hand.refusal" class="fault-text" role="status">{{ hand.refusal }}</p>
    <p v-if="live && making" role="status" data-testid="torque-now"><b>Torque operation:</b> <span class="mono">{{ fixed((100 * live.torque) / axis.motor.ratedTorque, 1) }} %</span> of rated, <span class="mono">{{ fixed(live.speed, 2) }} {{ unit }}/s</span></p>
  </section>
</template>

<style scoped>
.row > span { display: inline-flex; gap: 6px; align-items: center; white-space: nowrap; }
.row { display: flex; flex-wrap: wrap; gap: 6px 10px; align-items: center; font-size: 13px; }
p { margin: 4px 0; }
</style>
