<script setup lang="ts">
import { ref, watch } from 'vue'

/** A field of text: what is being typed stands until it is entered, whatever is drawn anew around it. With `many` it is the browser's own control, for tables that can have hundreds of rows. */
const props = defineProps<{ value: string | number; options?: { value: string; title: string }[]; many?: boolean }>()
const emit = defineEmits<{ enter: [text: string] }>()
defineOptions({ inheritAttrs: false })
const text = ref(String(props.value))
const focused = ref(false)

watch(() => props.value, (value) => {
  if (!focused.value) text.value = String(value)
})

function enter() {
  if (text.value !== String(props.value)) emit('enter', text.value)
}
function left() {
  focused.value = false
  enter()
}
</script>

<template>
  <input v-if="many" v-bind="$attrs" v-model="text" class="plain" @focus="focused = true" @blur="focused = false" @change="enter" @keydown.enter="enter" />
  <v-combobox v-else-if="options" v-bind="$attrs" :aria-labelledby="undefined" v-model:search="text" class="snug" :model-value="String(value)" :items="options" :return-object="false" hide-no-data auto-select-first="exact" :menu-props="{ contentClass: 'small-list' }"
    @focus="focused = true" @blur="left" @keydown.enter="enter" @update:model-value="(chosen: string | null) => { text = chosen ?? ''; enter() }" />
  <v-text-field v-else v-bind="$attrs" :aria-labelledby="undefined" v-model="text" class="snug" @focus="focused = true" @blur="left" @keydown.enter="enter" />
</template>
