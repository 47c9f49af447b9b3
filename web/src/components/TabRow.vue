<script setup lang="ts">
/** Views of one stage, side by side; arrow keys go from one to the next. */
const props = defineProps<{ tabs: Record<string, string>; label: string }>()
const chosen = defineModel<string>({ required: true })

function go(event: KeyboardEvent) {
  const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  if (!step) return
  const keys = Object.keys(props.tabs)
  chosen.value = keys[(keys.indexOf(chosen.value) + step + keys.length) % keys.length]
  event.preventDefault()
  requestAnimationFrame(() => document.getElementById('tab-' + chosen.value)?.focus())
}
</script>

<template>
  <div role="tablist" :aria-label="label" class="tabs" @keydown="go">
    <button v-for="(words, key) in tabs" :id="'tab-' + key" :key="key" type="button" role="tab" :aria-selected="chosen === key" :tabindex="chosen === key ? 0 : -1" @click="chosen = String(key)">{{ words }}</button>
  </div>
</template>

<style scoped>
.tabs { display: flex; gap: 2px; border-bottom: 1px solid var(--field-line); margin-bottom: 8px; }
button { border: 0; border-bottom: 3px solid transparent; background: none; color: var(--pencil); font: inherit; font-weight: 650; padding: 3px 12px 4px; cursor: pointer; }
button[aria-selected='true'] { color: var(--ink); border-color: var(--cmd); }
</style>
