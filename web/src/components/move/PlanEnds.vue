<script setup lang="ts">
import { ref } from 'vue'
import { useMoves, type Stretch } from '../../stores/moves'

/** Ends of entries that can be dragged: drawn by themselves, so that what follows the pointer does not draw the whole strip anew. @property x of a time  @property y of a place */
const props = defineProps<{ ends: Stretch[]; x: (time: number) => number; y: (place: number) => number; low: number; high: number; top: number; bottom: number }>()
const emit = defineEmits<{ held: [on: boolean] }>()
const moves = useMoves()
/** Width of the drawing in its own units. */
const WIDTH = 724

/** The end that is dragged is where the pointer is; the curve follows as the core answers. */
const pulled = ref<{ entry: number; y: number } | null>(null)
const endAt = (s: Stretch) => Math.max(props.top, Math.min(props.bottom, pulled.value?.entry === s.entry ? pulled.value.y : props.y(s.places[s.places.length - 1]!)))

/** An end is taken with the pointer and moved up and down; Escape leaves it where it was. */
function pull(event: PointerEvent, s: Stretch) {
  if (event.button !== 0) return
  const handle = event.currentTarget as SVGElement
  const drawing = handle.ownerSVGElement!
  const perPixel = (props.high - props.low) / (props.bottom - props.top) / (drawing.clientWidth / WIDTH)
  const begun = event.clientY
  moves.chosen = s.entry
  emit('held', true)
  handle.setPointerCapture(event.pointerId)
  const atStart = props.y(s.places[s.places.length - 1]!)
  const perUnit = WIDTH / drawing.clientWidth
  let left = false
  const key = (pressed: KeyboardEvent) => pressed.key === 'Escape' && ((left = true), handle.releasePointerCapture(event.pointerId))
  window.addEventListener('keydown', key)
  handle.onpointermove = (move) => {
    pulled.value = { entry: s.entry, y: atStart + (move.clientY - begun) * perUnit }
    moves.drag({ entry: s.entry, by: (begun - move.clientY) * perPixel, step: perPixel })
  }
  handle.onlostpointercapture = () => {
    handle.onpointermove = handle.onlostpointercapture = null
    window.removeEventListener('keydown', key)
    pulled.value = null
    emit('held', false)
    void moves.drop(!left)
  }
}
</script>

<template>
  <circle v-for="s in ends" :key="'e' + s.entry" :cx="x(s.to)" :cy="endAt(s)" r="4.5" class="end" :data-end="s.entry" :fill="s.entry === moves.chosen ? 'var(--cmd)' : 'var(--sheet)'" stroke="var(--cmd)" stroke-width="1.5" @pointerdown.prevent="pull($event, s)"><title>Drag the end of entry {{ s.entry }}; Escape leaves it</title></circle>
</template>

<style scoped>
.end { cursor: ns-resize; touch-action: none; }
</style>
