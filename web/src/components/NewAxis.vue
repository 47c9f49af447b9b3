<script setup lang="ts">
import { refusalOf } from '../lib/problems'
import { computed, ref } from 'vue'
import { Problem, type Schemas } from '../api/client'
import { useMachine } from '../stores/machine'

/** The form for a new axis, a copy, or another name of one. */
const props = defineProps<{ edit?: 'COPY' | 'RENAME'; axis?: string }>()
const emit = defineEmits<{ done: [] }>()
const machine = useMachine()
const name = ref(props.edit === 'RENAME' ? (props.axis ?? '') : '')
const feed = ref<Schemas['Feed']['kind']>('SCREW')
const refusal = ref('')
const feeds = [
  { value: 'SCREW', title: 'screw, along a line' }, { value: 'RACK', title: 'rack and pinion, along a line' }, { value: 'BELT', title: 'belt, along a line' },
  { value: 'DIRECT', title: 'turning load, endless' }, { value: 'FEEDER', title: 'screw feeder, endless, in grams' },
]
const words = computed(() => (props.edit === 'COPY' ? `Copy of ${props.axis}` : props.edit === 'RENAME' ? `New name of ${props.axis}` : 'Name of a new axis'))
const action = computed(() => (props.edit === 'COPY' ? 'Copy' : props.edit === 'RENAME' ? 'Rename' : 'Add'))

async function enter() {
  refusal.value = ''
  try {
    if (await machine.editAxes({ edit: props.edit ?? 'ADD', axis: props.axis, name: name.value, feed: props.edit ? undefined : feed.value })) {
      name.value = ''
      emit('done')
    }
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const fault = error.faults[0]
    refusal.value = fault ? refusalOf(fault) : error.detail
  }
}
</script>

<template>
  <form class="new-axis" @submit.prevent="enter">
    <v-text-field v-model="name" density="compact" variant="outlined" hide-details :label="words" maxlength="80" autocomplete="off" spellcheck="false" :error="Boolean(refusal)" autofocus
      :aria-describedby="refusal ? 'axis-refusal' : undefined" @keydown.esc="emit('done')" />
    <v-select v-if="!edit" v-model="feed" density="compact" variant="outlined" hide-details label="Moved by" :items="feeds" />
    <p v-if="refusal" id="axis-refusal" class="fault-text" role="alert">{{ refusal }}</p>
    <div class="actions">
      <v-btn type="submit" color="primary" variant="flat" :disabled="name.trim() === ''">{{ action }}</v-btn>
      <v-btn v-if="machine.axis" @click="emit('done')">Leave it</v-btn>
    </div>
  </form>
</template>

<style scoped>
.new-axis { display: grid; gap: 12px; padding-top: 6px; }
.actions { display: flex; gap: 6px; }
p { margin: 0; }
</style>
