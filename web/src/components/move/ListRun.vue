<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useAxis } from '../../lib/axis'
import PickOne from '../PickOne.vue'
import { useHand } from '../../stores/hand'
import { useMoves } from '../../stores/moves'

/** Running the list on the bench by hand: at speed, step by step, held and gone on with. */
const { axis, bench, live, unit, machine } = useAxis()
const hand = useHand()
const moves = useMoves()
const now = computed(() => live.value?.moves ?? null)
const stepwise = computed(() => now.value?.stepwise ?? false)
const enabled = computed(() => live.value?.power === 'OPERATION_ENABLED')
/** The list is to start as soon as the axis is enabled. */
const starting = ref(false)
const starts = computed(() => axis.value.moves.entries.map((e, i) => ({ code: i, words: e.name ? `${i} ${e.name}` : `entry ${i}` })))

async function start() {
  if (!hand.key) await hand.take()
  if (!hand.key) return
  if (!enabled.value) {
    starting.value = true
    await hand.order('ENABLE')
    return
  }
  await begin()
}
async function begin() {
  starting.value = false
  moves.at = live.value && live.value.referenced ? live.value.position : undefined
  await hand.order('START_ENTRY', moves.from)
}
watch(enabled, (on) => on && starting.value && void begin())
watch([() => hand.key, () => axis.value.name], () => (starting.value = false))
</script>

<template>
  <div class="run">
    <v-btn variant="flat" color="primary" :disabled="!moves.list?.entries.length || machine.faults.length > 0" @click="start">{{ hand.key ? 'Run the list' : 'Take control and run' }}</v-btn>
    <template v-if="starts.length">from <PickOne sentence label="Start of strip and run" :value="moves.from" :options="starts" title="The strip is drawn from here" @pick="(code) => (moves.from = Number(code))" /></template>
    <template v-if="hand.key">
      <v-btn v-if="now?.held" @click="hand.order('GO_ON')">{{ stepwise ? 'Next step' : 'Go on' }}</v-btn>
      <v-btn v-else :disabled="!now?.running" @click="hand.order('STOP')">Hold the list</v-btn>
      <v-checkbox-btn class="step" label="Step by step" density="compact" :model-value="stepwise" @update:model-value="(on: boolean) => hand.order('STEPWISE', on ? 1 : 0)" />
      <v-btn v-if="!live?.referenced" title="Finds the zero as the stage Home says" @click="enabled ? hand.order('HOME') : hand.order('ENABLE')">{{ enabled ? 'Find the zero first' : 'Enable' }}</v-btn>
      <v-btn @click="hand.release()">Give control back</v-btn>
    </template>
  </div>
  <p v-if="hand.refusal" class="refused" role="alert">{{ hand.refusal }}</p>
  <p v-if="now && (now.leads || now.error)" class="sub status" role="status" data-testid="list-status">
    <b v-if="now.error" class="bad">Entry {{ now.entry }} cannot go on: {{ now.error }}.</b>
    <template v-else-if="now.entry >= 0">On the bench: entry {{ now.entry }} {{ now.running ? now.phase : 'is done' }}, round {{ now.rounds }}, at {{ +live!.position.toFixed(3) }} {{ unit }}.</template>
    <template v-else>On the bench: the list stands.</template>
    <template v-if="bench.behind"> The bench has an earlier revision: write it into the devices in the dock, or give control back and take it again.</template>
  </p>
</template>

<style scoped>
.run { display: flex; flex-wrap: wrap; gap: 6px 10px; align-items: center; margin: 4px 0; }
.step { flex: none; }
.refused { color: var(--stop); margin: 2px 0; }
.status { margin: 2px 0; }
.bad { color: var(--stop); }
</style>
