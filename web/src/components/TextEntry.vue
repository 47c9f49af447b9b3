<script setup lang="ts">
import { ref, watch } from 'vue'

/** A field of text: what is being typed stands until it is entered, whatever is drawn anew around it. */
const props = defineProps<{ value: string | number }>()
const emit = defineEmits<{ enter: [text: string] }>()
const text = ref(String(props.value))
const focused = ref(false)

watch(() => props.value, (value) => {
  if (!focused.value) text.value = String(value)
})

function enter() {
  if (text.value !== String(props.value)) emit('enter', text.value)
}
</script>

<template>
  <input v-model="text" @focus="focused = true" @blur="focused = false" @change="enter" @keydown.enter="enter" />
</template>
