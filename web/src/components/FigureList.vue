<script setup lang="ts">
import type { Figure } from '../api/client'

defineProps<{ figures: Figure[] }>()
</script>

<template>
  <dl>
    <div v-for="figure in figures" :key="figure.label" class="figure" tabindex="0">
      <v-tooltip activator="parent" location="start" max-width="340" open-on-focus>{{ figure.label }} = {{ figure.formula }}</v-tooltip>
      <dt>{{ figure.label }}</dt>
      <dd><b class="mono">{{ figure.value }}</b> {{ figure.unit }}<span class="visually-hidden">. {{ figure.formula }}</span></dd>
    </div>
  </dl>
</template>

<style scoped>
dl { margin: 0; }
.figure { display: flex; justify-content: space-between; gap: 8px; border-bottom: 1px dotted var(--hair); padding: 3px 0; font-size: 13px; cursor: help; }
dd { margin: 0; text-align: right; }
dd b { font-weight: 600; font-size: 13.5px; }
</style>
