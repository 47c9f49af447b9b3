<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useLayout } from '../../stores/layout'
import { useTraces, type Shown } from '../../stores/traces'
import { MARGIN, STROKES } from './strokes'

/** Lines over the time that is seen. Its left and right margins are the same in all panes, so that times stand above one another. */
const props = defineProps<{ pane: number; first: boolean; last: boolean }>()
const traces = useTraces()
const layout = useLayout()
const host = ref<HTMLElement | null>(null)
let plot: uPlot | null = null
let shape = ''
const mine = computed(() => traces.lines.map((line, index) => ({ line, index })).filter((l) => l.line.pane === props.pane))
const scaleOf = (line: Shown) => `${traces.unit(line)}${line.less ? ' difference' : ''}` || 'number'
const scales = computed(() => [...new Set(mine.value.map((l) => scaleOf(l.line)))])

const colour = (name: string) => getComputedStyle(host.value!).getPropertyValue(name).trim()
const minus = (tick: number) => String(Number(tick.toPrecision(10))).replace('-', '\u2212')

/** Every line has times of its own. */
function data(): uPlot.AlignedData {
  const drawn = mine.value.map((l) => traces.held?.lines[l.index]).map((d) => [d?.time ?? [], d?.values ?? []] as uPlot.AlignedData)
  return drawn.length ? uPlot.join(drawn) : [[]]
}

function make(width: number, height: number) {
  plot?.destroy()
  const axis = { stroke: colour('--pencil'), grid: { stroke: colour('--hair'), width: 1 }, ticks: { show: false }, font: "11px 'Atkinson Hyperlegible Mono Variable'" }
  plot = new uPlot({
    width, height, legend: { show: false }, cursor: { show: false }, padding: [props.first ? 18 : 6, scales.value.length > 1 ? 0 : MARGIN, 0, 0],
    scales: { x: { time: false, auto: false, min: traces.kept.from, max: traces.kept.to } },
    axes: [
      { ...axis, size: props.last ? 22 : 4, values: (_u, ticks) => ticks.map((t) => (props.last ? `${minus(t)} s` : '')) },
      ...scales.value.map((scale, i) => ({ ...axis, scale, show: i < 2, side: (i === 0 ? 3 : 1) as uPlot.Axis.Side, size: MARGIN, grid: i === 0 ? axis.grid : { show: false }, values: (_u: uPlot, ticks: number[]) => ticks.map(minus) })),
    ],
    /* one pixel: where a browser draws without a graphics processor, wider lines halve the frames of dense recordings */
    series: [{}, ...mine.value.map(({ line }) => ({ scale: scaleOf(line), stroke: colour(STROKES[line.colour]!.colour), width: 1, dash: STROKES[line.colour]!.dash, points: { show: false } }))],
    hooks: { drawClear: [bands] },
  }, data(), host.value!)
}

/** Bands behind the lines, their words on the first pane. */
function bands(u: uPlot) {
  const { ctx, bbox } = u
  ctx.save()
  ctx.beginPath()
  ctx.rect(bbox.left, 0, bbox.width, bbox.top + bbox.height)
  ctx.clip()
  ctx.font = `${11 * devicePixelRatio}px 'Atkinson Hyperlegible Next Variable'`
  traces.happened.forEach((band, i) => {
    if (band.to < traces.kept.from || band.from > traces.kept.to) return
    const left = u.valToPos(band.from, 'x', true)
    const right = u.valToPos(band.to, 'x', true)
    ctx.fillStyle = colour('--hair')
    ctx.globalAlpha = 0.45
    if (band.kind === 'VALUE' && i % 2 === 0) ctx.fillRect(left, bbox.top, right - left, bbox.height)
    ctx.globalAlpha = 1
    if (band.kind === 'SCRIPT') { ctx.fillStyle = colour('--ref'); ctx.fillRect(left, bbox.top, devicePixelRatio, bbox.height) }
    if (!props.first) return
    ctx.fillStyle = colour(band.kind === 'SCRIPT' ? '--ref' : '--pencil')
    const from = Math.max(left, bbox.left) + 3 * devicePixelRatio
    if (band.kind === 'SCRIPT' || right - from > ctx.measureText(band.words).width) ctx.fillText(band.words, from, bbox.top - 5 * devicePixelRatio)
  })
  ctx.restore()
}

function draw() {
  if (!host.value || !host.value.clientWidth) return
  const now = JSON.stringify([mine.value.map((l) => l.line), props.first, props.last]) + getComputedStyle(host.value).getPropertyValue('--ink')
  if (!plot || now !== shape) {
    shape = now
    make(host.value.clientWidth, host.value.clientHeight)
  } else plot.setData(data(), false)
  scaled()
}

/** The time that is seen, and of each unit what lies in it. */
function scaled() {
  if (!plot) return
  /* read once: what is kept is watched deeply, and this runs for every point of every frame */
  const { from, to } = traces.kept
  const held = traces.held?.lines
  plot.batch(() => {
    for (const scale of scales.value) {
      let low = Infinity
      let high = -Infinity
      mine.value.filter((l) => scaleOf(l.line) === scale).forEach((l) => {
        const drawn = held?.[l.index]
        if (!drawn) return
        const { time, values } = drawn
        for (let i = 0; i < time.length; i++) {
          const value = values[i]
          if (value == null || time[i]! < from || time[i]! > to) continue
          if (value < low) low = value
          if (value > high) high = value
        }
      })
      if (!Number.isFinite(low)) { low = 0; high = 1 }
      const room = high > low ? (high - low) * 0.06 : Math.abs(high) * 0.1 || 1
      plot!.setScale(scale, { min: low - room, max: high + room })
    }
    plot!.setScale('x', { min: from, max: to })
  })
}

defineExpose({ canvas: () => host.value?.querySelector('canvas') ?? null })
watch([() => traces.held, mine, () => traces.happened, () => layout.dark], draw, { flush: 'post' })
watch([() => traces.kept.from, () => traces.kept.to], () => requestAnimationFrame(scaled))
useResizeObserver(host, () => {
  if (plot && host.value) plot.setSize({ width: host.value.clientWidth, height: host.value.clientHeight })
  else draw()
})
onBeforeUnmount(() => plot?.destroy())
</script>

<template>
  <div ref="host" class="plot" role="img" :aria-label="mine.map((l) => traces.label(l.line)).join('; ')" />
</template>

<style scoped>
.plot { width: 100%; height: 100%; min-height: 0; overflow: hidden; }
</style>
