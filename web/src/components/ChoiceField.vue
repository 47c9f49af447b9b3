<script setup lang="ts">
import { computed } from 'vue'
import { useMachine } from '../stores/machine'
import TextEntry from './TextEntry.vue'

/** A choice of the document: among words, or, when free, also a word of one's own. What to do with it can be given. */
const props = defineProps<{ path: string; label: string; value: string; options: Record<string, string> | string[]; free?: boolean; choose?: (value: string) => void }>()
const machine = useMachine()
const id = computed(() => 'f' + props.path.replace(/\//g, '-'))
const field = computed(() => machine.fault(props.path))
const entries = computed(() => (Array.isArray(props.options) ? props.options.map((o) => [o, o]) : Object.entries(props.options)))

function chosen(event: Event) {
  enter((event.target as HTMLSelectElement).value)
}

function enter(text: string) {
  const value = text.trim()
  if (value === props.value) return
  if (props.choose) props.choose(value)
  else machine.set(props.path, value)
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <template v-if="free">
      <TextEntry :id="id" class="plain" :list="id + '-list'" :value="value" :aria-invalid="Boolean(field)" :aria-describedby="field ? id + '-fault' : undefined" @enter="enter" />
      <datalist :id="id + '-list'"><option v-for="[key, words] in entries" :key="key" :value="key">{{ words }}</option></datalist>
    </template>
    <select v-else :id="id" class="plain" :value="value" :aria-invalid="Boolean(field)" :aria-describedby="field ? id + '-fault' : undefined" @change="chosen">
      <option v-for="[key, words] in entries" :key="key" :value="key">{{ words }}</option>
    </select>
    <span v-if="field" :id="id + '-fault'" class="fault-text" role="alert">{{ field.value }} is refused. Allowed: {{ field.allowed }}; {{ field.mend }}.</span>
  </div>
</template>

<style scoped>
.field { width: var(--field-width, 122px); }
label { display: block; font-size: 12px; color: var(--pencil); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
.plain { width: 100%; height: 29px; }
.fault-text { display: block; line-height: 1.2; margin-top: 2px; }
</style>
