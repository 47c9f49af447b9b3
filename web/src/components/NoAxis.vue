<script setup lang="ts">
import NewAxis from './NewAxis.vue'

/** What a stage of an axis shows while the machine has none. */
defineProps<{ stage: string }>()
</script>

<template>
  <section class="first" data-testid="no-axis">
    <h1>{{ stage }}</h1>
    <p class="sub">This machine has no axis yet. Name the first one and say what moves its load; every other entry begins with a usual value.</p>
    <NewAxis />
  </section>
</template>

<style scoped>
.first { max-width: 520px; }
</style>
