<script setup lang="ts">
import PickOne from './PickOne.vue'
import { computed, onBeforeUnmount, ref } from 'vue'
import { useAxis } from '../lib/axis'
import { fixed, parsed } from '../lib/numbers'
import { useHand } from '../stores/hand'

/** Moving the chosen axis by hand. Orders are always given; the bench says why one is refused. */
const { bench, axis, unit, live } = useAxis()
const hand = useHand()
const held = computed(() => hand.key !== '')
const enabled = computed(() => live.value !== null && live.value.power === 'OPERATION_ENABLED')
const stepText = ref('10')
const targetText = ref('0')
const step = computed(() => parsed(stepText.value))
const target = computed(() => parsed(targetText.value))
const jogging = ref(false)

function startJog(direction: number, fast: boolean) {
  if (jogging.value) return
  jogging.value = true
  void hand.order('JOG', direction, fast)
}
function endJog() {
  if (!jogging.value) return
  jogging.value = false
  void hand.order('STOP')
}
onBeforeUnmount(endJog)

const jogs = [
  { words: '−− fast', label: '−− fast, jog in negative direction', direction: -1, fast: true },
  { words: '− slow', label: '− slow, jog in negative direction', direction: -1, fast: false },
  { words: '+ slow', label: '+ slow, jog in positive direction', direction: 1, fast: false },
  { words: '++ fast', label: '++ fast, jog in positive direction', direction: 1, fast: true },
]
const words = computed(() => bench.processData && [{ title: 'Controlword', ...bench.processData.controlword }, { title: 'Statusword', ...bench.processData.statusword }].map((w) => ({ ...w, bits: w.bits.filter((b) => b.name) })))
</script>

<template>
  <section class="hand" aria-label="Move by hand">
    <div class="orders">
      <div class="line">
        <v-btn v-if="!held" variant="flat" color="primary" @click="hand.take()">Take control</v-btn>
        <v-btn v-else @click="hand.release()">Give control back</v-btn>
        <span class="small">Axes stop when this page is silent for
          <PickOne label="Axes stop when this page is silent for" :value="hand.monitoring" :disabled="held" :options="[0.5, 1, 2, 5, 10].map((s) => ({ code: s, words: `${s} s` }))" @pick="(s) => (hand.monitoring = Number(s))" />
        </span>
      </div>
      <fieldset :disabled="!held" class="keys">
        <legend class="visually-hidden">Orders to {{ axis.name }}</legend>
        <div class="line">
          <v-btn :variant="enabled ? 'tonal' : 'outlined'" :disabled="!held" @click="hand.order(enabled ? 'DISABLE' : 'ENABLE')">{{ enabled ? 'Disable' : 'Enable' }} {{ axis.name }}</v-btn>
          <v-btn :disabled="!held" @click="hand.order('STOP')">Stop</v-btn>
          <v-btn :disabled="!held" @click="hand.order('RESET')">Reset</v-btn>
          <v-btn :disabled="!held" @click="hand.order('HOME')">Home</v-btn>
        </div>
        <div class="line">
          <button v-for="j in jogs" :key="j.label" type="button" class="jog" :disabled="!held" :aria-label="j.label" title="Moves as long as it is pressed"
            @pointerdown.prevent="startJog(j.direction, j.fast)" @pointerup="endJog" @pointerleave="endJog" @pointercancel="endJog"
            @keydown.space.prevent="startJog(j.direction, j.fast)" @keyup.space="endJog" @keydown.enter.prevent="startJog(j.direction, j.fast)" @keyup.enter="endJog" @blur="endJog">{{ j.words }}</button>
          <span class="small">Override
            <PickOne label="Override" :disabled="!held" :value="live?.override ?? 1" :options="[0.01, 0.05, 0.1, 0.25, 0.5, 1].map((o) => ({ code: o, words: `${o * 100} %` }))" @pick="(o) => hand.order('OVERRIDE', Number(o))" />
          </span>
        </div>
        <div class="line">
          <span class="small">Step <v-text-field v-model="stepText" class="snug number typed" :disabled="!held" aria-label="Step" :suffix="unit" /></span>
          <v-btn :disabled="!held || step === null" aria-label="Step in negative direction" @click="hand.order('STEP', -step!)">−</v-btn>
          <v-btn :disabled="!held || step === null" aria-label="Step in positive direction" @click="hand.order('STEP', step!)">+</v-btn>
          <span class="small">Go to <v-text-field v-model="targetText" class="snug number typed" :disabled="!held" aria-label="Position to go to" :suffix="unit" @keydown.enter="target !== null && hand.order('GO_TO', target)" /></span>
          <v-btn :disabled="!held || target === null" @click="hand.order('GO_TO', target!)">Go</v-btn>
        </div>
      </fieldset>
      <p class="refusal" role="status" data-testid="hand-refusal">{{ hand.lost ? 'Control was lost: it was not renewed in time, so the axes ramped down.' : hand.refusal }}</p>
    </div>
    <dl v-if="live" class="values">
      <div><dt>Target position</dt><dd class="mono">{{ fixed(live.commandedPosition, 3) }} <i>{{ unit }}</i></dd></div>
      <div><dt>Actual position</dt><dd class="mono" data-testid="hand-position">{{ fixed(live.position, 3) }} <i>{{ unit }}</i></dd></div>
      <div><dt>Speed</dt><dd class="mono">{{ fixed(live.speed, 2) }} <i>{{ unit }}/s</i></dd></div>
      <div><dt>Torque</dt><dd class="mono">{{ fixed((100 * live.torque) / axis.motor.ratedTorque, 1) }} <i>% of rated</i></dd></div>
      <div><dt>Following error</dt><dd class="mono">{{ fixed(live.followingError, 4) }} <i>{{ unit }}</i></dd></div>
      <div><dt>Error</dt><dd :class="{ stop: live.errorCode }">{{ live.errorCode ? `${live.errorCode}: ${live.errorWords}` : 'none' }}</dd></div>
    </dl>
    <div v-if="words" class="words">
      <div v-for="w in words" :key="w.title">
        <b>{{ w.title }}</b> <span class="mono">{{ w.value.toString(16).toUpperCase().padStart(4, '0') }}h</span>
        <ul><li v-for="b in w.bits" :key="b.number" :class="{ on: b.on }"><span class="lamp" aria-hidden="true" />{{ b.name }}<span class="visually-hidden">, {{ b.on ? 'true' : 'false' }}</span></li></ul>
      </div>
    </div>
    <p v-else class="empty">Take control: the bench starts, the program is held, and the axes do what you order here.</p>
  </section>
</template>

<style scoped>
.hand { display: grid; grid-template-columns: auto minmax(210px, 0.7fr) 1fr; gap: 18px; padding: 4px 0; overflow: auto; min-height: 0; }
.line { display: flex; gap: 6px; align-items: center; margin-bottom: 5px; flex-wrap: wrap; }
.keys { border: 0; padding: 0; margin: 0; }
.small { font-size: 12.5px; color: var(--pencil); white-space: nowrap; display: inline-flex; gap: 5px; align-items: center; }
.jog { font: inherit; font-weight: 700; border: 1.5px solid var(--ink); border-radius: 4px; background: var(--sheet); color: var(--ink); padding: 4px 10px; cursor: pointer; touch-action: none; }
.jog:active { background: var(--cmd-wash); }
.jog:disabled { color: var(--pencil); border-color: var(--field-line); cursor: default; }
.refusal { color: var(--stop); font-weight: 650; margin: 0; min-height: 20px; max-width: 470px; }
.values { margin: 0; font-size: 13px; }
.values div { display: flex; justify-content: space-between; gap: 8px; border-bottom: 1px dotted var(--hair); padding: 2px 0; }
.values dd { margin: 0; font-weight: 600; text-align: right; }
.values i { font-style: normal; font-weight: 400; color: var(--pencil); }
.stop { color: var(--stop); }
.words { display: grid; grid-template-columns: 1fr 1.3fr; gap: 12px; font-size: 12px; }
ul { list-style: none; margin: 2px 0 0; padding: 0; columns: 1; }
.words > div:last-child ul { columns: 2; }
li { color: var(--pencil); white-space: nowrap; line-height: 1.45; }
li.on { color: var(--ink); font-weight: 650; }
.lamp { display: inline-block; width: 8px; height: 8px; border-radius: 50%; border: 1.5px solid var(--pencil); margin-right: 5px; }
li.on .lamp { background: var(--cmd); border-color: var(--cmd); }
</style>
