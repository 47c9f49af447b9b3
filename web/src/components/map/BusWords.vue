<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useBus } from '../../stores/bus'
import { useChoices } from '../../stores/choices'
import { useHand } from '../../stores/hand'

/** Control and status word bit by bit as they travel, the state they make, and bits held by hand. */
const { bench } = useAxis()
const choices = useChoices()
const bus = useBus()
const hand = useHand()

const data = computed(() => (bench.behind ? null : bench.processData))
const words = computed(() => [
  { key: 'control', order: 'FORCE_CONTROL_BIT' as const, title: 'Control word, PLC to drive', word: data.value?.control ?? null, names: bus.family!.controlBits },
  { key: 'status', order: 'FORCE_STATUS_BIT' as const, title: 'Status word, drive to PLC', word: data.value?.status ?? null, names: bus.family!.statusBits },
])
const state = computed(() => data.value?.state ?? null)
const stateWords = computed(() => (state.value ? choices.words(choices.all.powerStates, state.value) : ''))
const held = computed(() => hand.key !== '')

/* places of the states in the diagram */
const BOX: Record<string, [number, number]> = {
  NOT_READY_TO_SWITCH_ON: [8, 8], SWITCH_ON_DISABLED: [8, 58], READY_TO_SWITCH_ON: [8, 108], SWITCHED_ON: [8, 158], OPERATION_ENABLED: [8, 208],
  FAULT_REACTION_ACTIVE: [196, 8], FAULT: [196, 58], QUICK_STOP_ACTIVE: [196, 208],
}
const ARROWS = [[78, 42, 78, 58], [78, 92, 78, 108], [78, 142, 78, 158], [78, 192, 78, 208], [148, 225, 196, 225], [266, 42, 266, 58], [196, 75, 148, 75], [266, 208, 148, 92]]
</script>

<template>
  <section class="words" aria-label="Control and status word">
    <div v-for="w in words" :key="w.key">
      <h2>{{ w.title }} <span class="mono">{{ w.word?.hex ?? '–' }}</span></h2>
      <v-table class="plain">
        <thead><tr><th>Bit</th><th>Meaning</th><th>Now</th><th>Force</th></tr></thead>
        <tbody>
          <tr v-for="(name, bit) in w.names" :key="bit" :class="{ forced: w.word?.bits[bit].forced }">
            <td class="mono">{{ bit }}</td><td>{{ name || '–' }}</td>
            <td class="mono">{{ w.word ? Number(w.word.bits[bit].on) : '–' }} <span v-if="w.word?.bits[bit].forced" class="badge">forced</span></td>
            <td class="force"><button v-for="level in [0, 1]" :key="level" type="button" :disabled="!held" :aria-label="`Force bit ${bit} of the ${w.key} word to ${level}`" @click="hand.order(w.order, bit, level === 1)">{{ level }}</button>
              <button v-if="w.word?.bits[bit].forced" type="button" :disabled="!held" :aria-label="`Let bit ${bit} of the ${w.key} word go`" @click="hand.order(w.order, bit)">let go</button></td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <div>
      <h2>{{ state ? `State: ${stateWords}` : 'State' }}</h2>
      <svg viewBox="0 0 346 250" class="drawing" role="img" :aria-label="state ? `State diagram; the drive is in ${stateWords}` : 'State diagram'">
        <defs><marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto-start-reverse"><path d="M0 0L8 4L0 8z" fill="currentColor" /></marker></defs>
        <line v-for="(a, i) in ARROWS" :key="i" :x1="a[0]" :y1="a[1]" :x2="a[2]" :y2="a[3]" stroke="currentColor" marker-end="url(#tip)" />
        <g v-for="s in choices.all.powerStates" :key="s.code" :class="{ here: s.code === state }">
          <rect :x="BOX[s.code][0]" :y="BOX[s.code][1]" width="140" height="34" rx="4" /><text :x="BOX[s.code][0] + 70" :y="BOX[s.code][1] + 21" text-anchor="middle">{{ s.words }}</text>
        </g>
      </svg>
      <p class="sub">{{ bus.family!.profile }}. {{ bench.state ? (held ? 'You have control: bits can be forced.' : 'Take control under By hand, below, to force bits.') : 'The bench is off: run it to see the words.' }}</p>
    </div>
  </section>
</template>

<style scoped>
.words { display: grid; grid-template-columns: 1fr 1fr; gap: 14px; }
.words > div:last-child { grid-column: 1 / -1; }
td, th { padding: 0 5px !important; height: 21px; }
.force { white-space: nowrap; }
.force button { font: inherit; font-size: 12px; border: 1px solid var(--field-line); background: var(--sheet); color: var(--ink); border-radius: 3px; padding: 0 6px; margin-right: 2px; cursor: pointer; }
.force button:disabled { color: var(--pencil); cursor: default; border-color: var(--hair); }
.badge { background: var(--ref); color: var(--sheet); border-radius: 3px; padding: 0 4px; font-size: 11px; }
tr.forced { background: var(--warn-wash); }
svg { max-width: 460px; width: 100%; color: var(--pencil); }
rect { fill: var(--sheet); stroke: var(--field-line); }
.here rect { fill: var(--cmd-wash); stroke: var(--cmd); stroke-width: 2.5; }
.here text { fill: var(--ink); font-weight: 700; }
</style>
