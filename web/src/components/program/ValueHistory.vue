<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { fixed } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'

/** When a value of the running program changed last. */
const props = defineProps<{ name: string }>()
const machine = useMachine()
const changes = ref<Schemas['ValueChange'][]>([])
const LOOK_EVERY = 1000
const MOST_SHOWN = 20
let timer = 0

async function look() {
  clearTimeout(timer)
  const name = props.name
  const found = await api.history(machine.id, name).catch(() => null)
  if (name !== props.name) return
  if (found) changes.value = found.changes
  timer = window.setTimeout(() => void look(), LOOK_EVERY)
}
watch(() => props.name, look, { immediate: true })
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <v-table class="plain" data-testid="history">
    <caption class="visually-hidden">Changes of {{ name }}, the newest first</caption>
    <thead><tr><th class="end">At</th><th>Became</th><th class="end" title="Until the next change">Stood for</th></tr></thead>
    <tbody>
      <tr v-for="(c, i) in changes.slice(0, MOST_SHOWN)" :key="c.time">
        <td class="mono end">{{ fixed(c.time, 3) }} s</td>
        <td class="mono">{{ c.value }}</td>
        <td class="mono end">{{ i ? `${fixed(changes[i - 1]!.time - c.time, 3)} s` : 'until now' }}</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.end { text-align: right; white-space: nowrap; }
td { overflow-wrap: anywhere; }
</style>
