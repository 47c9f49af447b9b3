<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { STATES, stateOf, useBus } from '../../stores/bus'
import { useHand } from '../../stores/hand'

/** Control and status word bit by bit as they travel, the state they make, and bits held by hand. */
const { bench, axis, live } = useAxis()
const bus = useBus()
const hand = useHand()

function word(direction: 'outputs' | 'inputs', meaning: string): number | null {
  const entries = axis.value.station[direction]
  const index = entries.findIndex((e) => bus.itemOf(e)?.meaning === meaning)
  const image = (direction === 'outputs' ? live.value?.outputBytes : live.value?.inputBytes) ?? ''
  if (index < 0 || !image || bench.behind) return null
  const raw = bus.rawOf(entries[index], bus.offsets(entries)[index], image.split(' ').map((b) => parseInt(b, 16)))
  return raw === null ? null : Number(raw)
}

const words = computed(() => [
  { key: 'control', order: 'FORCE_CONTROL_BIT' as const, title: 'Control word, PLC to drive', value: word('outputs', 'CONTROLWORD'), names: bus.family!.controlBits, forced: live.value?.forcedControlBits ?? 0 },
  { key: 'status', order: 'FORCE_STATUS_BIT' as const, title: 'Status word, drive to PLC', value: word('inputs', 'STATUSWORD'), names: bus.family!.statusBits, forced: live.value?.forcedStatusBits ?? 0 },
])
const state = computed(() => (words.value[1].value === null ? '' : stateOf(words.value[1].value)))
const hex = (value: number | null) => (value === null ? '–' : value.toString(16).toUpperCase().padStart(4, '0') + 'h')
const held = computed(() => hand.key !== '')

/* places of the states in the diagram */
const BOX: Record<string, [number, number]> = {
  'not ready to switch on': [8, 8], 'switch on disabled': [8, 58], 'ready to switch on': [8, 108], 'switched on': [8, 158], 'operation enabled': [8, 208],
  'fault reaction active': [196, 8], fault: [196, 58], 'quick stop active': [196, 208],
}
const ARROWS = [[78, 42, 78, 58], [78, 92, 78, 108], [78, 142, 78, 158], [78, 192, 78, 208], [148, 225, 196, 225], [266, 42, 266, 58], [196, 75, 148, 75], [266, 208, 148, 92]]
</script>

<template>
  <section class="words" aria-label="Control and status word">
    <div v-for="w in words" :key="w.key">
      <h2>{{ w.title }} <span class="mono">{{ hex(w.value) }}</span></h2>
      <table class="plain">
        <thead><tr><th>Bit</th><th>Meaning</th><th>Now</th><th>Force</th></tr></thead>
        <tbody>
          <tr v-for="(name, bit) in w.names" :key="bit" :class="{ forced: (w.forced >> bit) & 1 }">
            <td class="mono">{{ bit }}</td><td>{{ name || '–' }}</td>
            <td class="mono">{{ w.value === null ? '–' : (w.value >> bit) & 1 }} <span v-if="(w.forced >> bit) & 1" class="badge">forced</span></td>
            <td class="force"><button v-for="level in [0, 1]" :key="level" type="button" :disabled="!held" :aria-label="`Force bit ${bit} of the ${w.key} word to ${level}`" @click="hand.order(w.order, bit, level === 1)">{{ level }}</button>
              <button v-if="(w.forced >> bit) & 1" type="button" :disabled="!held" :aria-label="`Let bit ${bit} of the ${w.key} word go`" @click="hand.order(w.order, bit)">let go</button></td>
          </tr>
        </tbody>
      </table>
    </div>
    <div>
      <h2>{{ state ? `State: ${state}` : 'State' }}</h2>
      <svg viewBox="0 0 346 250" class="drawing" role="img" :aria-label="state ? `State diagram; the drive is in ${state}` : 'State diagram'">
        <defs><marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto-start-reverse"><path d="M0 0L8 4L0 8z" fill="currentColor" /></marker></defs>
        <line v-for="(a, i) in ARROWS" :key="i" :x1="a[0]" :y1="a[1]" :x2="a[2]" :y2="a[3]" stroke="currentColor" marker-end="url(#tip)" />
        <g v-for="s in STATES" :key="s.name" :class="{ here: s.name === state }">
          <rect :x="BOX[s.name][0]" :y="BOX[s.name][1]" width="140" height="34" rx="4" /><text :x="BOX[s.name][0] + 70" :y="BOX[s.name][1] + 21" text-anchor="middle">{{ s.name }}</text>
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
