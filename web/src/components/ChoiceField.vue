<script setup lang="ts">
import FaultText from './FaultText.vue'
import { computed } from 'vue'
import { useMachine } from '../stores/machine'
import PickOne, { type Option } from './PickOne.vue'
import TextEntry from './TextEntry.vue'

/** A choice of the document: among words, or, when free, also a word of one's own. What to do with it can be given. */
const props = defineProps<{ path: string; label: string; value: string; options: Option[]; free?: boolean; choose?: (value: string) => void }>()
const machine = useMachine()
const id = computed(() => 'f' + props.path.replace(/\//g, '-'))
const field = computed(() => machine.fault(props.path))
const suggested = computed(() => props.options.map((o) => (typeof o === 'object' ? { value: String(o.code), title: o.words } : { value: String(o), title: String(o) })))

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
    <TextEntry v-if="free" :id="id" :options="suggested.length ? suggested : undefined" :value="value" :error="Boolean(field)" :aria-describedby="field ? id + '-fault' : undefined" @enter="enter" />
    <PickOne v-else :id="id" :label="label" :options="options" :value="value" :refused="Boolean(field)" :described-by="field ? id + '-fault' : undefined" @pick="enter" />
    <FaultText v-if="field" :id="id + '-fault'" :fault="field" />
  </div>
</template>

<style scoped>
.field { width: var(--field-width, 122px); }
label { display: block; font-size: 12px; color: var(--pencil); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
</style>
