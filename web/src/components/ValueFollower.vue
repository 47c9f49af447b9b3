<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, type Figure } from '../api/client'
import { parsed } from '../lib/numbers'
import { useMachine } from '../stores/machine'
import FigureList from './FigureList.vue'

/** One value followed from the program to the load. */
const machine = useMachine()
const text = ref('412')
const steps = ref<Figure[]>([])

watch(
  [text, () => machine.answer],
  async () => {
    const value = parsed(text.value)
    if (value === null || !machine.draft || machine.faults.length > 0) {
      steps.value = []
      return
    }
    steps.value = (await machine.guarded(() => api.value(machine.draft!, machine.axisIndex, value))) ?? []
  },
  { immediate: true },
)
</script>

<template>
  <section class="follow" aria-label="One value, end to end">
    <label class="ask">One value, end to end
      <span><input v-model="text" class="plain mono" size="9" aria-label="Position the program writes" /> {{ machine.axis?.unit.symbol }}</span>
    </label>
    <p v-if="steps.length === 0" class="fault-text">Enter a number to follow it.</p>
    <FigureList :figures="steps" />
  </section>
</template>

<style scoped>
.follow { margin-bottom: 10px; }
.ask { display: flex; justify-content: space-between; align-items: center; font-size: 13px; font-weight: 650; }
</style>
