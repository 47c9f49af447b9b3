<script setup lang="ts">
import { computed } from 'vue'

/** A code and its words, or a word that stands for itself. */
export type Option = string | number | { code: string | number; words: string; disabled?: boolean }

/**
 * One of several. With `many` it is the browser's own control: in tables that can have hundreds of rows, three to a row, Vuetify's would take
 * seconds to draw. As `slot` it is a word in a sentence.
 */
const props = defineProps<{ value: string | number | null; options: Option[]; label: string; id?: string; disabled?: boolean; placeholder?: string; many?: boolean; sentence?: boolean; refused?: boolean; describedBy?: string; title?: string }>()
const emit = defineEmits<{ pick: [code: string] }>()
/** The list is called as the field is. */
const named = computed(() => ({ 'aria-label': `${props.label}, choices`, 'aria-labelledby': undefined }) as Record<string, unknown>)
interface Item { value: string; title: string; props: { 'data-code': string; disabled?: boolean } }
const same = (a: Item, b: Item) => a.value === b.value && a.title === b.title && a.props.disabled === b.props.disabled
/** Options are often written where they are used, so a new list of the same ones comes with every state of the bench: it is no change. */
const items = computed<Item[]>((before) => {
  const now = props.options.map((o) => {
    const { code, words, disabled } = typeof o === 'object' ? o : { code: o, words: String(o), disabled: false }
    return { value: String(code), title: words, props: { 'data-code': String(code), disabled } }
  })
  return before?.length === now.length && before.every((item, i) => same(item, now[i])) ? before : now
})
/* as many as there are in view: of a list that is longer than its window Vuetify draws only a part, and whoever looks for a word in it misses it */
const SMALL_LIST = { contentClass: 'small-list', maxHeight: 560 }
</script>

<template>
  <select v-if="many" :id="id" class="plain" :value="value === null ? '' : String(value)" :aria-label="id ? undefined : label" :disabled="disabled" :title="title" :aria-invalid="refused || undefined" :aria-describedby="describedBy" @change="emit('pick', ($event.target as HTMLSelectElement).value)">
    <option v-if="placeholder" value="" disabled>{{ placeholder }}</option>
    <option v-for="item in items" :key="item.value" :value="item.value" :disabled="item.props.disabled">{{ item.title }}</option>
  </select>
  <v-select v-else :id="id" class="snug" :class="{ 'in-sentence': sentence }" :model-value="value === null ? null : String(value)" :items="items" :aria-label="id ? undefined : label" :disabled="disabled" :placeholder="placeholder" :title="title" :error="refused" :aria-describedby="describedBy"
    :aria-labelledby="undefined" :list-props="named" :menu-props="SMALL_LIST" @update:model-value="(code: string | null) => code !== null && emit('pick', code)" />
</template>
