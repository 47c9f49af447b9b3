<script setup lang="ts">
import type { EntryFault } from '../api/client'
import { refusalOf } from '../lib/problems'

/** Why an entry is refused, beside its field. */
defineProps<{ fault: Pick<EntryFault, 'value' | 'allowed' | 'mend'> }>()
</script>

<template>
  <span class="fault-text" role="alert">{{ refusalOf(fault) }}</span>
</template>

<style scoped>
.fault-text { display: block; line-height: 1.2; margin-top: 2px; }
</style>
