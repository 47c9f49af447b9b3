<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { parsed } from '../lib/numbers'
import { useMachine } from '../stores/machine'

/** A number of the document, edited in place. What cannot be read stays as typed and says why. */
const props = defineProps<{ path: string; label: string; value: number; unit?: string; whole?: boolean; wide?: boolean; title?: string; hideLabel?: boolean }>()
const machine = useMachine()
const text = ref(String(props.value))
const field = computed(() => machine.fault(props.path))
const id = computed(() => 'f' + props.path.replace(/\//g, '-'))

watch(
  () => props.value,
  (value) => {
    if (parsed(text.value) !== value) {
      text.value = String(value)
      machine.setUnread(props.path, null)
    }
  },
)

function entered() {
  const value = parsed(text.value)
  if (value === null || (props.whole && !Number.isInteger(value))) {
    const kind = props.whole ? 'a whole number' : 'a number'
    machine.setUnread(props.path, { field: props.path, label: props.label, value: text.value, allowed: kind, mend: `enter ${kind}` })
    return
  }
  machine.setUnread(props.path, null)
  machine.set(props.path, value)
}
</script>

<template>
  <div class="field" :class="{ wide }">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <span class="box" :class="{ refused: field }">
      <input :id="id" v-model="text" class="mono" inputmode="decimal" autocomplete="off" spellcheck="false" :title="title" :aria-invalid="Boolean(field)"
        :aria-describedby="field ? id + '-fault' : undefined" @input="entered" />
      <i v-if="unit">{{ unit }}</i>
    </span>
    <span v-if="field" :id="id + '-fault'" class="fault-text" role="alert">{{ field.value }} is refused. Allowed: {{ field.allowed }}; {{ field.mend }}.</span>
  </div>
</template>

<style scoped>
.field { width: 122px; }
.field.wide { width: 170px; }
label { display: block; font-size: 12px; color: var(--pencil); white-space: nowrap; }
.box { display: flex; align-items: center; border: 1px solid var(--field-line); border-radius: 4px; background: var(--sheet); padding: 0 7px; }
.box:focus-within { outline: 2px solid var(--cmd); outline-offset: 1px; }
.box.refused { border-color: var(--stop); border-width: 2px; }
input { border: 0; background: none; color: var(--ink); font-size: 14px; padding: 4px 0; width: 100%; min-width: 0; outline: none; }
i { font-style: normal; font-size: 12px; color: var(--pencil); white-space: nowrap; padding-left: 4px; }
.fault-text { display: block; line-height: 1.2; margin-top: 2px; }
</style>
