<script setup lang="ts">
import { computed, ref } from 'vue'
import { hits, replaced } from '../../lib/find'
import { useMachine } from '../../stores/machine'

/** Looks for a text in all files, and puts another one in its place. */
const emit = defineEmits<{ goTo: [file: string, line: number] }>()
const machine = useMachine()
const text = ref('')
const by = ref('')
const exact = ref(false)
const whole = ref(false)
const wanted = computed(() => ({ text: text.value, exact: exact.value, whole: whole.value }))
const found = computed(() => hits(machine.draft!.plc.files, wanted.value))
const MOST_SHOWN = 500
const several = computed(() => machine.draft!.plc.files.length > 1)

function replaceAll() {
  machine.set('/plc/files', replaced(machine.draft!.plc.files, wanted.value, by.value))
}
</script>

<template>
  <section class="find" aria-label="Find">
    <div class="row">
      <v-text-field v-model="text" class="snug mono" autofocus placeholder="Find in all files" aria-label="Find in all files" spellcheck="false" />
      <v-text-field v-model="by" class="snug mono" placeholder="Replace by" aria-label="Replace by" spellcheck="false" />
      <v-btn :disabled="!found.length" title="One change, which undo takes back" @click="replaceAll">Replace all ({{ found.length }})</v-btn>
    </div>
    <div class="row">
      <v-checkbox v-model="exact" label="Capitals count" density="compact" hide-details />
      <v-checkbox v-model="whole" label="Whole names" density="compact" hide-details />
      <span class="sub" role="status">{{ text ? (found.length === 1 ? 'one place' : `${found.length} places`) : '' }}</span>
    </div>
    <ol class="hits">
      <li v-for="(h, i) in found.slice(0, MOST_SHOWN)" :key="i"><button type="button" class="link" @click="emit('goTo', h.file, h.line)">{{ several ? `${h.file}:${h.line}` : h.line }}</button>
        <code>{{ h.text.slice(0, h.at).trimStart() }}<mark>{{ h.text.slice(h.at, h.at + text.length) }}</mark>{{ h.text.slice(h.at + text.length) }}</code></li>
    </ol>
    <p v-if="found.length > MOST_SHOWN" class="empty">and {{ found.length - MOST_SHOWN }} more.</p>
  </section>
</template>

<style scoped>
.find { overflow: auto; padding: 8px 12px; }
.row { display: flex; gap: 8px; align-items: center; }
.row .v-text-field { flex: 1 1 160px; width: auto; max-width: none; }
.hits { list-style: none; margin: 8px 0; padding: 0; font-size: 13px; }
.hits li { display: flex; gap: 8px; white-space: pre; overflow: hidden; text-overflow: ellipsis; }
.hits .link { min-width: 48px; text-align: right; }
mark { background: var(--line-wash); color: inherit; font-weight: 700; }
</style>
