<script setup lang="ts">
/** Views of one stage, side by side; arrow keys go from one to the next. */
defineProps<{ tabs: Record<string, string>; label: string }>()
const chosen = defineModel<string>({ required: true })
</script>

<template>
  <v-tabs v-model="chosen" class="tabs" :aria-label="label" density="compact" height="34" color="primary" show-arrows>
    <v-tab v-for="(words, key) in tabs" :key="key" :value="String(key)" size="default" variant="text" :ripple="false">{{ words }}</v-tab>
  </v-tabs>
</template>

<style scoped>
.tabs { border-bottom: 1px solid var(--field-line); margin-bottom: 8px; }
.tabs :deep(.v-tab) { color: var(--pencil); font-size: 14px; min-width: 0; padding: 0 12px; }
.tabs :deep(.v-tab--selected) { color: var(--ink); }
.tabs :deep(.v-tab__slider) { height: 3px; color: var(--cmd); }
</style>
