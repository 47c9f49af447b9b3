<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useMoves } from '../../stores/moves'

/** Where the running list is on the plan: the one part of the strip that is drawn with every state of the bench. @property x of a time  @property y of a place */
const props = defineProps<{ x: (time: number) => number; y: (place: number) => number; low: number; high: number; top: number; bottom: number }>()
const { axis, live } = useAxis()
const moves = useMoves()

/** The stretches of its entry, as often as it has been begun in this round, and the time in it. */
const here = computed(() => {
  const plan = moves.answer?.plan
  const now = live.value?.moves
  if (!now?.leads || now.entry < 0 || !plan) return null
  const all = plan.stretches.filter((s) => s.entry === now.entry)
  const turn = Math.min(Math.max(1, now.turn), Math.max(0, ...all.map((s) => s.turn)))
  const group = all.filter((s) => s.turn === turn)
  if (!group.length) return null
  const time = Math.min(group[group.length - 1].to, group[0].from + now.inEntry)
  const s = group.find((g) => time <= g.to) ?? group[group.length - 1]
  const share = s.to > s.from ? (time - s.from) / (s.to - s.from) : 1
  const at = share * (s.places.length - 1)
  const k = Math.min(s.places.length - 2, Math.floor(at))
  const planned = s.places.length > 1 ? s.places[k] + (s.places[k + 1] - s.places[k]) * (at - k) : s.places[0]
  const range = axis.value.kind === 'ENDLESS' ? axis.value.modulo : 0
  const off = live.value!.position - planned
  const place = range > 0 ? planned + off - Math.round(off / range) * range : live.value!.position
  return { x: props.x(time), y: props.y(Math.max(props.low, Math.min(props.high, place))) }
})
</script>

<template>
  <g v-if="here"><path :d="`M${here.x} ${top}V${bottom}`" stroke="var(--act)" stroke-width="1" /><circle :cx="here.x" :cy="here.y" r="5" fill="var(--act)" /></g>
</template>
