<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'

/** The states of an axis as motion blocks have them, drawn live: where it is, where it came from, and what ordered the change. */
const emit = defineEmits<{ goTo: [file: string, line: number] }>()
const { axis, live, machine } = useAxis()
const choices = useChoices()
const now = computed(() => live.value?.motion ?? null)

const WIDTH = 132
const HEIGHT = 40
/** Middle of each state: rest in the middle column, motion around it, what is wrong below. */
const PLACES: Record<string, [number, number]> = {
  DISABLED: [90, 60], STANDSTILL: [300, 60], HOMING: [510, 60],
  DISCRETE_MOTION: [90, 190], CONTINUOUS_MOTION: [300, 190], SYNCHRONIZED_MOTION: [510, 190],
  STOPPING: [190, 310], ERROR_STOP: [420, 310],
}
const states = computed(() => choices.all.motionStates.filter((s) => PLACES[s.code]))
/** An arrow ends at the edge of its box; of two ways between the same states each has its own side. */
function arrow(from: string, to: string) {
  const [x1, y1] = PLACES[from]!
  const [x2, y2] = PLACES[to]!
  const length = Math.hypot(x2 - x1, y2 - y1)
  const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length]
  const edge = Math.min(Math.abs(ux) > 0 ? WIDTH / 2 / Math.abs(ux) : Infinity, Math.abs(uy) > 0 ? HEIGHT / 2 / Math.abs(uy) : Infinity) + 3
  const side = 5
  return { from, to, x1: x1 + ux * edge - uy * side, y1: y1 + uy * edge + ux * side, x2: x2 - ux * edge - uy * side, y2: y2 - uy * edge + ux * side }
}
/** Ways to an error and out of power lead from everywhere: they are said, not drawn. */
const arrows = computed(() => states.value.flatMap((s) => s.next.filter((n) => PLACES[n] && n !== 'ERROR_STOP' && !(n === 'DISABLED' && s.code !== 'STANDSTILL' && s.code !== 'ERROR_STOP')).map((n) => arrow(s.code, n))))
const last = computed(() => (now.value && now.value.from !== now.value.state ? arrow(now.value.from, now.value.state) : null))
const words = (code: string) => choices.words(choices.all.motionStates, code)
const several = computed(() => machine.draft!.plc.files.length > 1)
</script>

<template>
  <section class="states" :aria-label="`State of ${axis.name}`">
    <p class="sub">{{ axis.name }} as motion blocks see it, by the diagram of PLCopen motion control, part 1. An error leads to “{{ words('ERROR_STOP') }}” from everywhere, the loss of power to “{{ words('DISABLED') }}”.</p>
    <p v-if="now" role="status" class="say">
      <b>{{ words(now.state) }}</b> since {{ now.since.toFixed(3) }} s, after “{{ words(now.from) }}”<template v-if="now.block">, ordered by <b class="mono">{{ now.block }}</b>{{ ' ' }}
        <button v-if="now.line" type="button" class="link" @click="emit('goTo', now.file, now.line)">{{ several && now.file ? `${now.file}, ` : '' }}line {{ now.line }}</button></template><template v-else>, by the drive or because an order had ended</template>.
    </p>
    <p v-else class="empty">Run the program: the state that {{ axis.name }} is in stands here.</p>
    <svg viewBox="0 0 600 350" role="img" :aria-label="now ? `${axis.name} is ${words(now.state)}` : `States of ${axis.name}`">
      <defs>
        <marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0 8 4 0 8z" class="tip" /></marker>
        <marker id="tip-now" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0 8 4 0 8z" class="tip-now" /></marker>
      </defs>
      <line v-for="a in arrows" :key="`${a.from}-${a.to}`" :x1="a.x1" :y1="a.y1" :x2="a.x2" :y2="a.y2" class="way" marker-end="url(#tip)" />
      <line v-if="last" :x1="last.x1" :y1="last.y1" :x2="last.x2" :y2="last.y2" class="way now" marker-end="url(#tip-now)" />
      <g v-for="s in states" :key="s.code" :class="{ here: now?.state === s.code, wrong: s.code === 'ERROR_STOP' }">
        <rect :x="PLACES[s.code]![0] - WIDTH / 2" :y="PLACES[s.code]![1] - HEIGHT / 2" :width="WIDTH" :height="HEIGHT" rx="4" />
        <text :x="PLACES[s.code]![0]" :y="PLACES[s.code]![1] + 4">{{ s.words }}</text>
      </g>
    </svg>
  </section>
</template>

<style scoped>
.states { overflow: auto; padding: 4px 12px; display: flex; flex-direction: column; }
.say { margin: 0; font-size: 15px; }
svg { flex: 1; min-height: 240px; max-width: 720px; }
rect { fill: var(--paper); stroke: var(--ink); stroke-width: 1; }
text { text-anchor: middle; font-size: 13px; fill: var(--ink); }
.way { stroke: var(--hair-strong, var(--pencil)); stroke-width: 1; opacity: .55; }
.way.now { stroke: var(--act); stroke-width: 2.5; opacity: 1; }
.tip { fill: var(--pencil); }
.tip-now { fill: var(--act); }
.here rect { fill: var(--ok-wash); stroke: var(--ok); stroke-width: 3; }
.here text { font-weight: 700; }
.here.wrong rect { fill: var(--stop-wash); stroke: var(--stop); }
</style>
