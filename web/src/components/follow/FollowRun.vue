<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useMaster } from '../../lib/master'
import { useHand } from '../../stores/hand'

/** Following on the bench by hand: the master runs, the axis is tied to it, trimmed, and let go. */
const { axis, live, machine } = useAxis()
const hand = useHand()
const master = computed(() => axis.value.following.master)
const { encoder, usualSpeed, live: masterLive } = useMaster()
const ready = computed(() => live.value?.power === 'OPERATION_ENABLED' && (encoder.value || masterLive.value?.enabled === true))
const follows = computed(() => live.value?.following.follows ?? false)
/** A speed of rest differs from none by the rounding of the drive. */
const runs = computed(() => encoder.value ? (live.value?.following.shaft ?? 0) !== 0 : Math.abs(masterLive.value?.speed ?? 0) > 1e-3 * (usualSpeed.value || 1))

async function enable() {
  if (!hand.key) await hand.take()
  if (!hand.key) return
  if (!encoder.value) await hand.order('ENABLE', undefined, undefined, undefined, master.value)
  await hand.order('ENABLE')
}
const name = computed(() => (encoder.value ? 'the master' : master.value))
/** The shaft under an encoder runs at the speed that is entered for it. */
const run = (direction: number) => (encoder.value ? hand.order('RUN_SHAFT', direction * axis.value.following.encoder.speed) : hand.order('JOG', direction, true, undefined, master.value))
const stop = () => (encoder.value ? hand.order('RUN_SHAFT', 0) : hand.order('STOP', undefined, undefined, undefined, master.value))
const trim = (direction: number) => hand.order('TRIM', direction)
const trims = [{ words: '− trim', label: 'Trim back', direction: -1 }, { words: '+ trim', label: 'Trim forward', direction: 1 }]
</script>

<template>
  <div class="run">
    <v-btn v-if="!hand.key || !ready" variant="flat" color="primary" :disabled="machine.faults.length > 0" @click="enable">{{ encoder ? (hand.key ? 'Enable' : 'Take control and enable') : hand.key ? 'Enable both' : 'Take control and enable both' }}</v-btn>
    <template v-if="hand.key && ready">
      <v-btn v-if="!runs" @click="run(1)">Run {{ name }}</v-btn>
      <v-btn v-if="!runs" :aria-label="`Run ${name} back`" @click="run(-1)">Run it back</v-btn>
      <v-btn v-else @click="stop">Stop {{ name }}</v-btn>
      <v-btn v-if="!follows" variant="flat" color="primary" @click="hand.order('FOLLOW')">Follow</v-btn>
      <template v-else>
        <v-btn @click="hand.order('LET_GO')">Let go</v-btn>
        <button v-for="t in trims" :key="t.label" type="button" class="jog" :aria-label="t.label" title="Moves the phase as long as it is pressed"
          @pointerdown.prevent="trim(t.direction)" @pointerup="trim(0)" @pointerleave="trim(0)" @pointercancel="trim(0)"
          @keydown.space.prevent="trim(t.direction)" @keyup.space="trim(0)" @keydown.enter.prevent="trim(t.direction)" @keyup.enter="trim(0)" @blur="trim(0)">{{ t.words }}</button>
      </template>
    </template>
    <v-btn v-if="hand.key" @click="hand.release()">Give control back</v-btn>
  </div>
  <p v-if="hand.refusal" class="refused" role="alert">{{ hand.refusal }}</p>
</template>

<style scoped>
.run { display: flex; flex-wrap: wrap; gap: 6px 10px; align-items: center; margin: 4px 0; }
.jog { font: inherit; font-weight: 700; border: 1.5px solid var(--ink); border-radius: 4px; background: var(--sheet); color: var(--ink); padding: 3px 10px; cursor: pointer; touch-action: none; }
.jog:active { background: var(--cmd-wash); }
.refused { color: var(--stop); margin: 2px 0; }
</style>
