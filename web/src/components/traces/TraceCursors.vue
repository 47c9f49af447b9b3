<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { fixed } from '../../lib/numbers'
import { useTraces } from '../../stores/traces'
import { MARGIN } from './strokes'

/** Two cursors over all panes. Drag them, or move them by the arrow keys; drag the paper to move in time, turn the wheel to look closer. */
const traces = useTraces()
const host = ref<HTMLElement | null>(null)
const { width } = useElementSize(host)
const inner = computed(() => Math.max(1, width.value - 2 * MARGIN))
const span = computed(() => traces.kept.to - traces.kept.from)
const x = (t: number) => MARGIN + ((t - traces.kept.from) / span.value) * inner.value
const time = (clientX: number) => traces.kept.from + ((clientX - host.value!.getBoundingClientRect().left - MARGIN) / inner.value) * span.value
const decimals = computed(() => Math.max(3, Math.min(9, Math.ceil(-Math.log10(span.value)) + 4)))
const cursors = computed(() => (['a', 'b'] as const).map((key) => ({ key, at: traces.kept[key], seen: traces.kept[key] >= traces.kept.from && traces.kept[key] <= traces.kept.to })))

let dragged: 'a' | 'b' | 'paper' | null = null
let last = 0
function down(event: PointerEvent, what: 'a' | 'b' | 'paper') {
  dragged = what
  last = event.clientX
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function moved(event: PointerEvent) {
  if (!dragged) return
  if (dragged === 'paper') traces.pan(-(event.clientX - last) / inner.value)
  else traces.change({ [dragged]: Math.min(traces.kept.to, Math.max(traces.kept.from, time(event.clientX))) })
  last = event.clientX
}
const up = () => (dragged = null)
const wheel = (event: WheelEvent) => (event.shiftKey ? traces.pan(Math.sign(event.deltaY) * 0.15) : traces.zoom(event.deltaY > 0 ? 1.25 : 0.8, time(event.clientX)))
function key(event: KeyboardEvent, which: 'a' | 'b') {
  const step = (event.shiftKey ? 0.05 : 0.002) * span.value
  const by = { ArrowLeft: -step, ArrowRight: step }[event.key]
  if (by === undefined) return
  event.preventDefault()
  traces.change({ [which]: Math.min(traces.kept.to, Math.max(traces.kept.from, traces.kept[which] + by)) })
}
/** A cursor that is out of sight comes where one can see it. */
const fetch = (which: 'a' | 'b') => traces.change({ [which]: traces.kept.from + span.value * (which === 'a' ? 0.25 : 0.75) })
</script>

<template>
  <div ref="host" class="over" @pointerdown.self="down($event, 'paper')" @pointermove="moved" @pointerup="up" @pointercancel="up" @wheel.prevent="wheel" @dblclick.self="traces.whole()">
    <template v-for="c in cursors" :key="c.key">
      <div v-if="c.seen" class="cursor" role="slider" tabindex="0" :class="c.key" :style="{ left: `${x(c.at)}px` }" :aria-label="`Cursor ${c.key.toUpperCase()}`" :aria-valuemin="traces.kept.from" :aria-valuemax="traces.kept.to" :aria-valuenow="c.at" :aria-valuetext="`${fixed(c.at, decimals)} s`"
        @pointerdown.stop="down($event, c.key)" @keydown="key($event, c.key)"><span class="mono">{{ c.key.toUpperCase() }} {{ fixed(c.at, decimals) }} s</span></div>
      <button v-else type="button" class="fetch" :class="c.key" @click="fetch(c.key)">Cursor {{ c.key.toUpperCase() }} here</button>
    </template>
  </div>
</template>

<style scoped>
.over { position: absolute; inset: 0; cursor: grab; touch-action: none; }
.over:active { cursor: grabbing; }
.cursor { position: absolute; top: 0; bottom: 0; width: 11px; margin-left: -5px; cursor: ew-resize; background: linear-gradient(var(--ink), var(--ink)) center / 1.5px 100% no-repeat; }
.cursor span { position: absolute; bottom: 24px; left: 8px; background: var(--ink); color: var(--sheet); font-size: 11px; padding: 0 4px; white-space: nowrap; }
.cursor.b span { bottom: 42px; }
.fetch { position: absolute; bottom: 24px; right: 70px; font: inherit; font-size: 12px; border: 1px solid var(--field-line); background: var(--sheet); color: var(--ink); cursor: pointer; }
.fetch.b { bottom: 48px; }
</style>
