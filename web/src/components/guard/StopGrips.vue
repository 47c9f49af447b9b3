<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { plain } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'

/** Where the drawing of a stop can be taken hold of: dragged, or moved by the arrow keys; Escape leaves it where it was. What a place means the core says with each grip. */
type Grip = Schemas['StopGrip']
const props = defineProps<{
  grips: Grip[]
  /** the rules of the stop as the document has them: the grips follow when the core has answered */
  rules: Schemas['StopRules']
  /** entry of the document that holds the rules of the stop */
  path: string
  unit: string
  /** place of a grip in the drawing, and in the same what one ms, one unit/s and one unit are */
  place: (grip: Grip) => { x: number; y: number }
  perMilli: number
  perSpeed: number
  perWay: number
}>()
const machine = useMachine()
const current = (grip: Grip) => props.rules[grip.entry as keyof Schemas['StopRules']] as number
const pulled = ref<{ entry: string; dx: number; dy: number } | null>(null)

const sideways = (grip: Grip) => grip.along === 'TIME' || grip.along === 'SLOPE'
const units = (grip: Grip) => ({ TIME: 'ms', SPEED: `${props.unit}/s`, SLOPE: `${props.unit}/s²`, WAY: props.unit })[grip.along]
/** As fine as the drawing shows it. */
const step = (grip: Grip) => (grip.along === 'TIME' ? 1 : 10 ** Math.floor(Math.log10(1 / (grip.along === 'SPEED' ? props.perSpeed : props.perWay))))
const rounded = (value: number, to: number) => Number((Math.round(value / to) * to).toPrecision(12))

/** Value of a grip that is moved in the drawing. */
function moved(grip: Grip, dx: number, dy: number): number {
  if (grip.along === 'SLOPE') return Number(((1000 * grip.drop) / Math.max(1, grip.time! + dx / props.perMilli - grip.from)).toPrecision(3))
  if (grip.along === 'TIME') return Math.max(0, rounded(current(grip) + dx / props.perMilli, 1))
  const least = grip.along === 'WAY' ? step(grip) : 0
  return Math.max(least, rounded(current(grip) - dy / (grip.along === 'SPEED' ? props.perSpeed : props.perWay), step(grip)))
}
const held = (grip: Grip) => (pulled.value?.entry === grip.entry ? pulled.value : null)
const shown = (grip: Grip) => { const h = held(grip); return h ? moved(grip, h.dx, h.dy) : current(grip) }
const words = (grip: Grip) => `${grip.label} ${plain(shown(grip))} ${units(grip)}`
/** Where its value is, also while it is dragged: it goes no farther than the value does. */
function at(grip: Grip) {
  const p = props.place(grip)
  const now = shown(grip)
  if (grip.along === 'SLOPE') return { x: p.x + (grip.from + (1000 * grip.drop) / now - grip.time!) * props.perMilli, y: p.y }
  const by = (now - grip.value) * { TIME: props.perMilli, SPEED: props.perSpeed, WAY: props.perWay }[grip.along]
  return sideways(grip) ? { x: p.x + by, y: p.y } : { x: p.x, y: p.y - by }
}
const set = (grip: Grip, value: number) => value !== current(grip) && machine.set(`${props.path}/${grip.entry}`, value)

function pull(event: PointerEvent, grip: Grip) {
  if (event.button !== 0) return
  const handle = event.currentTarget as SVGElement
  const drawing = handle.ownerSVGElement!
  const perPixel = 1 / drawing.getScreenCTM()!.a
  const from = { x: event.clientX, y: event.clientY }
  let left = false
  const key = (pressed: KeyboardEvent) => pressed.key === 'Escape' && ((left = true), handle.releasePointerCapture(event.pointerId))
  handle.setPointerCapture(event.pointerId)
  handle.focus()
  window.addEventListener('keydown', key)
  handle.onpointermove = (move) => (pulled.value = { entry: grip.entry, dx: (move.clientX - from.x) * perPixel, dy: (move.clientY - from.y) * perPixel })
  handle.onlostpointercapture = () => {
    handle.onpointermove = handle.onlostpointercapture = null
    window.removeEventListener('keydown', key)
    if (pulled.value && !left) set(grip, shown(grip))
    pulled.value = null
  }
}

function press(event: KeyboardEvent, grip: Grip) {
  const sign = { ArrowRight: 1, ArrowUp: sideways(grip) ? 0 : 1, ArrowLeft: -1, ArrowDown: sideways(grip) ? 0 : -1 }[event.key]
  if (!sign) return
  event.preventDefault()
  const by = sign * (event.shiftKey ? 10 : 1)
  /* a flatter ramp ends farther right */
  if (grip.along === 'SLOPE') return set(grip, Number((current(grip) * (1 - 0.01 * by)).toPrecision(3)))
  set(grip, Math.max(grip.along === 'WAY' ? step(grip) : 0, rounded(current(grip) + by * step(grip), step(grip))))
}
/** The ramp while its end is dragged. */
const ramp = computed(() => {
  const grip = props.grips.find((g) => g.along === 'SLOPE' && held(g))
  return grip ? { from: props.place({ ...grip, time: grip.from, height: grip.height + grip.drop }), to: at(grip) } : null
})
</script>

<template>
  <line v-if="ramp" class="ramp" :x1="ramp.from.x" :y1="ramp.from.y" :x2="ramp.to.x" :y2="ramp.to.y" />
  <g v-for="grip in grips" :key="grip.entry" class="grip" :class="sideways(grip) ? 'sideways' : 'upright'" role="slider" tabindex="0" :aria-label="`${grip.label}, in the drawing`" :aria-valuenow="shown(grip)" aria-valuemin="0" :aria-valuemax="Math.max(1, 10 * grip.value)" :aria-valuetext="words(grip)"
    :aria-orientation="sideways(grip) ? 'horizontal' : 'vertical'" :data-grip="grip.entry" :transform="`translate(${at(grip).x} ${at(grip).y})`" @pointerdown.prevent="pull($event, grip)" @keydown="press($event, grip)">
    <title>{{ words(grip) }}: drag it, or move it by the arrow keys; Escape leaves it where it was</title>
    <circle class="reach" r="11" /><rect x="-4.5" y="-4.5" width="9" height="9" rx="1" transform="rotate(45)" />
    <text v-if="held(grip)" class="value" :x="-8" y="-12" text-anchor="end">{{ words(grip) }}</text>
  </g>
</template>

<style scoped>
.grip { touch-action: none; } .sideways { cursor: ew-resize; } .upright { cursor: ns-resize; }
.reach { fill: transparent; } .grip rect { fill: var(--sheet); stroke: var(--ink); stroke-width: 1.5; }
.grip:hover rect, .grip:focus rect { fill: var(--ink); } .grip:focus { outline: none; } .grip:focus-visible rect { stroke-width: 3; }
.ramp { stroke: var(--stop); stroke-width: 1.5; stroke-dasharray: 4 3; }
.value { fill: var(--ink); font-weight: 600; paint-order: stroke; stroke: var(--sheet); stroke-width: 4px; }
</style>
