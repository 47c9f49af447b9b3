<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { onBeforeUnmount, ref, watch } from 'vue'
import { useLayout } from '../stores/layout'

/** @property row height at which the label stands on the axis instead of numbers */
export interface Line { label: string; unit: string; colour: string; dashed?: boolean; values: (number | null)[]; scale: string; row?: number }

/** A trace over time. Commanded is dashed, actual solid; a marked stretch is hatched in red with its edges drawn. */
const props = defineProps<{ time: number[]; lines: Line[]; mark?: { from: number; to: number } | null; label: string }>()
const layout = useLayout()
const host = ref<HTMLElement | null>(null)
let plot: uPlot | null = null
let shape = ''

function colour(name: string) {
  return getComputedStyle(host.value!).getPropertyValue(name).trim()
}

/** Lines of a scale that are named on the axis. */
const rows = (scale: string) => props.lines.filter((l) => l.scale === scale && l.row !== undefined)

function make(width: number, height: number) {
  plot?.destroy()
  const ink = colour('--pencil')
  const axis = { stroke: ink, grid: { stroke: colour('--hair'), width: 1 }, ticks: { show: false }, font: "11px 'Atkinson Hyperlegible Mono Variable'" }
  const scales = [...new Set(props.lines.map((l) => l.scale))]
  plot = new uPlot(
    {
      width, height, legend: { show: false }, cursor: { drag: { x: true, y: false } }, padding: [6, 8, 0, 0],
      scales: { x: { time: false } },
      axes: [
        { ...axis, size: 22, values: (_u, ticks) => ticks.map((t) => `${t} s`) },
        ...scales.map((scale, i) => ({ ...axis, scale, side: (i === 0 ? 3 : 1) as uPlot.Axis.Side, size: rows(scale).length ? 104 : 62, grid: i === 0 ? axis.grid : { show: false },
          ...(rows(scale).length ? { splits: () => rows(scale).map((l) => l.row!) } : {}),
          values: (_u: uPlot, ticks: number[]) => (rows(scale).length ? rows(scale).map((l) => l.label) : ticks.map((t) => String(t).replace('-', '\u2212'))) })),
      ],
      series: [
        {},
        ...props.lines.map((l) => ({ label: l.label, scale: l.scale, stroke: colour(l.colour), width: 1.6, dash: l.dashed ? [6, 4] : undefined, points: { show: false } })),
      ],
      hooks: { drawClear: [drawMark] },
    },
    data(),
    host.value!,
  )
}

function drawMark(u: uPlot) {
  if (!props.mark) return
  const left = u.valToPos(props.mark.from, 'x', true)
  const right = Math.max(left + 3, u.valToPos(props.mark.to, 'x', true))
  u.ctx.save()
  u.ctx.fillStyle = colour('--stop-wash')
  u.ctx.fillRect(left, u.bbox.top, right - left, u.bbox.height)
  u.ctx.strokeStyle = colour('--stop')
  u.ctx.strokeRect(left, u.bbox.top, right - left, u.bbox.height)
  u.ctx.restore()
}

function data(): uPlot.AlignedData {
  return [props.time, ...props.lines.map((l) => l.values)] as uPlot.AlignedData
}

function draw() {
  if (!host.value || host.value.clientWidth === 0) return
  const now = props.lines.map((l) => l.label + l.scale + l.colour).join('|') + getComputedStyle(host.value).getPropertyValue('--ink')
  if (!plot || now !== shape) {
    shape = now
    make(host.value.clientWidth, host.value.clientHeight)
  } else plot.setData(data())
}

/* a canvas does not follow the theme by itself */
watch(() => [props.time, props.lines, props.mark, layout.dark], draw, { flush: 'post' })
useResizeObserver(host, () => {
  if (plot && host.value) plot.setSize({ width: host.value.clientWidth, height: host.value.clientHeight })
  else draw()
})
onBeforeUnmount(() => plot?.destroy())
</script>

<template>
  <div ref="host" class="plot" role="img" :aria-label="label" />
</template>

<style scoped>
.plot { width: 100%; height: 100%; min-height: 60px; overflow: hidden; }
</style>
