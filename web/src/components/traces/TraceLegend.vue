<script setup lang="ts">
import { computed } from 'vue'
import { fixed, parsed } from '../../lib/numbers'
import { useTraces, type From, type Shown } from '../../stores/traces'
import TextEntry from '../TextEntry.vue'
import { STROKES } from './strokes'

/** The lines of a pane; each opens what can be done with it. */
const props = defineProps<{ pane: number }>()
const traces = useTraces()
const mine = computed(() => traces.lines.map((line, index) => ({ line, index })).filter((l) => l.line.pane === props.pane))
/** Other runs and recordings that have the same signal. */
const others = (line: Shown): From[] => traces.sources.filter((s) => (s.kind !== line.kind || s.id !== line.id) && s.signals.some((x) => x.name.toLowerCase() === line.signal.toLowerCase()))
  .map((s) => ({ kind: s.kind, id: s.id, shift: traces.lines.find((l) => l.kind === s.kind && l.id === s.id)?.shift ?? 0 })).slice(0, 12)
const free = computed(() => Math.max(0, ...traces.lines.map((l) => l.pane)) + 1)
/** All lines of a run or a recording move together. */
function move(line: Shown, text: string) {
  const shift = parsed(text)
  if (shift !== null) traces.change({ lines: traces.lines.map((l) => ({ ...(l.kind === line.kind && l.id === line.id ? { ...l, shift } : l), less: l.less && l.less.kind === line.kind && l.less.id === line.id ? { ...l.less, shift } : l.less })) })
}
</script>

<template>
  <div class="legend">
    <v-menu v-for="{ line, index } in mine" :key="index" :close-on-content-click="false">
      <template #activator="{ props: opener }">
        <button type="button" v-bind="opener" class="one" :style="{ color: `var(${STROKES[line.colour]!.colour})` }"><b aria-hidden="true" class="mono">{{ STROKES[line.colour]!.mark }}</b> {{ traces.label(line) }}<template v-if="traces.unit(line)"> in {{ traces.unit(line) }}</template><template v-if="line.shift">, moved {{ fixed(line.shift, 4) }} s</template></button>
      </template>
      <v-list density="compact">
        <v-list-item title="Take it away" @click="traces.remove(index)" />
        <v-list-item v-if="mine.length > 1" title="Into a pane of its own" @click="traces.alter(index, { pane: free })" />
        <v-list-item v-for="pane in traces.panes.filter((p) => p !== line.pane)" :key="pane" :title="`Into pane ${traces.panes.indexOf(pane) + 1}`" @click="traces.alter(index, { pane })" />
        <v-list-item v-if="line.less" title="No difference: as it is" @click="traces.alter(index, { less: null })" />
        <template v-else><v-list-item v-for="o in others(line)" :key="`${o.kind} ${o.id}`" :title="`Difference from ${traces.named(o)}`" @click="traces.alter(index, { less: o })" /></template>
        <v-list-item v-if="line.kind === 'RECORDING'"><span class="moved">Moved by <TextEntry class="mono by" :value="line.shift" aria-label="Moved by, seconds" @enter="(t) => move(line, t)" /> s</span></v-list-item>
      </v-list>
    </v-menu>
    <slot />
  </div>
</template>

<style scoped>
.legend { display: flex; flex-wrap: wrap; gap: 0 12px; padding-left: 64px; font-size: 12.5px; }
.one { border: 0; background: none; font: inherit; font-weight: 600; cursor: pointer; padding: 1px 2px; }
.moved { display: flex; gap: 6px; align-items: center; font-size: 13px; } .by { width: 90px; }
</style>
