<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import type { BusDirection } from '../../stores/bus'

/** What an entry carries at this moment, as bytes and in words: two cells, drawn with every message of the bench while the rows around them stay. */
const props = defineProps<{ direction: BusDirection; index: number; filler: boolean }>()
const { bench, axis } = useAxis()
/* just after an entry has come or gone, what travels is still of the layout before */
const now = computed(() => {
  const travels = bench.behind ? null : bench.processData?.[props.direction]
  return travels?.length === axis.value.station[props.direction].length ? travels[props.index] : null
})
</script>

<template>
  <td class="mono">{{ now?.bytes ?? '–' }}</td>
  <td>{{ now && !filler ? now.words : '–' }}</td>
</template>
