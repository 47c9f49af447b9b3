<script setup lang="ts">
import { ref } from 'vue'
import type { Figure } from '../api/client'

/** Computed figures; each shows the formula and the numbers it came from when pointed at or chosen. */
defineProps<{ figures: Figure[] }>()
const open = ref('')
</script>

<template>
  <ul>
    <li v-for="figure in figures" :key="figure.label">
      <button type="button" class="figure" :title="`${figure.label} = ${figure.formula}`" :aria-expanded="open === figure.label" @click="open = open === figure.label ? '' : figure.label">
        <span>{{ figure.label }}</span>
        <span class="value"><b class="mono">{{ figure.value }}</b> {{ figure.unit }}</span>
      </button>
      <p v-if="open === figure.label" class="formula">= {{ figure.formula }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul { list-style: none; margin: 0; padding: 0; }
li { border-bottom: 1px dotted var(--hair); }
.figure { display: flex; justify-content: space-between; gap: 8px; width: 100%; padding: 3px 0; border: 0; background: none; color: inherit; font: inherit; font-size: 13px; text-align: left; cursor: help; }
.figure:hover { background: var(--cmd-wash); }
.value { text-align: right; }
.value b { font-weight: 600; font-size: 13.5px; }
.formula { margin: 0 0 4px; font-size: 12.5px; color: var(--pencil); }
</style>
