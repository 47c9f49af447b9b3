<script setup lang="ts">
import type { Problem } from '../api/client'
import { refusalOf } from '../lib/problems'

/** What went wrong, in the words of the server: what is refused, what is allowed and what to do; and another try where one can help. */
defineProps<{ problem: Problem; again?: () => void }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <div class="problem" role="alert">
    <b>{{ problem.title }}.</b> {{ problem.detail }}
    <template v-for="f in problem.faults.filter((f) => !problem.detail.includes(f.allowed))" :key="f.field"> {{ f.label || f.field }}: {{ refusalOf(f) }}</template>
    <slot />
    <span class="actions">
      <v-btn v-if="again && problem.status === 0" @click="again()">Try again</v-btn>
      <v-btn @click="emit('close')">Close</v-btn>
    </span>
  </div>
</template>

<style scoped>
.problem { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 6px 12px; margin-bottom: 8px; font-size: 13px; }
.actions { display: inline-flex; gap: 8px; margin-left: 8px; }
</style>
