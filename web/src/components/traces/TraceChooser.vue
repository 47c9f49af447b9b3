<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useTraces, type Source } from '../../stores/traces'
import PickOne from '../PickOne.vue'

/** Runs and recordings, and the signals of the chosen one: each becomes a line, or no longer is one. */
const traces = useTraces()
const chosen = ref('')
const filter = ref('')
const key = (s: Source) => `${s.kind} ${s.id}`
const source = computed(() => traces.sources.find((s) => key(s) === chosen.value) ?? null)
watch(() => traces.sources, (all) => {
  if (!source.value) chosen.value = all.length ? key(all.find((s) => traces.lines.some((l) => l.kind === s.kind && l.id === s.id)) ?? all[0]!) : ''
}, { immediate: true })
const options = computed(() => traces.sources.map((s) => ({ code: key(s), words: s.kind === 'RUN' ? `Run ${s.id}: ${s.name} · ${s.note}` : `Recording: ${s.name}` })))
const signals = computed(() => {
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  return source.value?.signals.filter((s) => words.every((w) => traces.words(s.name).toLowerCase().includes(w))) ?? []
})
const at = (signal: string) => traces.lines.findIndex((l) => l.kind === source.value!.kind && l.id === source.value!.id && !l.less && l.signal.toLowerCase() === signal.toLowerCase())
function toggle(signal: string) {
  const there = at(signal)
  if (there >= 0) return traces.remove(there)
  const of = source.value!
  /* a recording that was moved stays moved */
  traces.add({ kind: of.kind, id: of.id, shift: traces.lines.find((l) => l.kind === of.kind && l.id === of.id)?.shift ?? 0 }, signal)
}
</script>

<template>
  <div class="chooser">
    <PickOne label="Run or recording" :value="chosen" :options="options" @pick="chosen = $event" />
    <v-text-field v-model="filter" class="snug" placeholder="find a signal" aria-label="Find a signal" />
    <ul class="signals" aria-label="Signals">
      <li v-for="s in signals" :key="s.name"><button type="button" :aria-pressed="at(s.name) >= 0" @click="toggle(s.name)"><span aria-hidden="true">{{ at(s.name) >= 0 ? '✓' : '+' }}</span> {{ traces.words(s.name) }}<i v-if="s.unit" class="mono">{{ s.unit }}</i></button></li>
      <li v-if="source && !signals.length" class="sub">No signal has this in its name.</li>
    </ul>
  </div>
</template>

<style scoped>
.chooser { display: flex; flex-direction: column; gap: 6px; min-height: 0; }
.signals { list-style: none; margin: 0; padding: 0; overflow: auto; flex: 1; border-top: 1px solid var(--hair); }
.signals button { display: flex; gap: 6px; width: 100%; border: 0; border-bottom: 1px solid var(--hair); background: none; color: var(--ink); font: inherit; font-size: 13px; text-align: left; padding: 3px 4px; cursor: pointer; overflow-wrap: anywhere; }
.signals button[aria-pressed='true'] { font-weight: 650; background: var(--field, transparent); }
.signals i { margin-left: auto; font-style: normal; color: var(--pencil); white-space: nowrap; }
</style>
