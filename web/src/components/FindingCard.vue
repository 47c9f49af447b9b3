<script setup lang="ts">
import type { Finding } from '../api/client'
import { useMachine } from '../stores/machine'

defineProps<{ finding: Finding }>()
const machine = useMachine()
const words = { GOOD: 'Good', WARNING: 'Warning', FAULT: 'Fault' } as const
</script>

<template>
  <div class="finding" :class="finding.severity.toLowerCase()" data-testid="finding">
    <span class="visually-hidden">{{ words[finding.severity] }}: </span><b>{{ finding.title }}</b><br />
    {{ finding.consequence }}
    <button v-if="finding.mend" type="button" class="link" @click="machine.edit(...finding.mend.changes)">{{ finding.mend.label }}</button>
  </div>
</template>

<style scoped>
.finding { border-left: 4px solid var(--ok); background: var(--ok-wash); padding: 4px 8px; margin: 8px 0; font-size: 13px; }
.warning { border-color: var(--warn); background: var(--warn-wash); }
.fault { border-color: var(--stop); background: var(--stop-wash); }
</style>
