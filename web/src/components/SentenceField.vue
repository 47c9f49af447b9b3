<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../api/client'
import PickOne from './PickOne.vue'
import TextEntry from './TextEntry.vue'

/** A sentence of a proof as its author writes it, with what is wrong with it, and names and functions to put in. */
const props = defineProps<{ text: string; number: number; fault: { column: number; message: string } | undefined; signals: Schemas['SignalName'][]; functions: string[] }>()
const emit = defineEmits<{ enter: [text: string] }>()
const field = ref<HTMLElement | null>(null)
const offers = computed(() => [...props.functions.map((f) => ({ code: `${f}()`, words: f })), ...props.signals.map((s) => ({ code: s.name, words: s.unit ? `${s.name}, ${s.unit}` : s.name }))])

/** Where the cursor stood last, else at the end. */
function put(name: string) {
  const input = field.value?.querySelector('input')
  const at = input?.selectionStart ?? props.text.length
  emit('enter', props.text.slice(0, at) + name + props.text.slice(at))
}
</script>

<template>
  <div ref="field" class="sentence-field">
    <div class="line">
      <TextEntry class="mono" :value="text" :aria-label="`Sentence of expectation ${number}`" placeholder="ALWAYS(Shuttle.speed < 500)" title="What must be true: signals, numbers, comparisons, AND, OR, NOT, and ALWAYS, EVENTUALLY, HOLDS_UNTIL, WHENEVER with times such as T#2s" @enter="(t) => emit('enter', t.trim())" />
      <PickOne class="offers" :value="null" label="Put in a signal or a function" placeholder="Put in…" :options="offers" @pick="put" />
    </div>
    <p v-if="fault" class="wrong" role="alert">Column {{ fault.column }}: {{ fault.message }}</p>
  </div>
</template>

<style scoped>
.sentence-field { flex: 1; min-width: 0; }
.line { display: flex; gap: 6px; }
.line > .mono { flex: 1; min-width: 0; }
.offers { width: 120px; flex: none; }
.wrong { color: var(--stop); margin: 2px 0 0; font-size: 13px; }
</style>
