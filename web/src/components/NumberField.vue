<script setup lang="ts">
import FaultText from './FaultText.vue'
import { computed, nextTick, ref, watch } from 'vue'
import { api, Problem } from '../api/client'
import { parsed, plain } from '../lib/numbers'
import { useMachine } from '../stores/machine'

/** A number of the document, edited in place. What cannot be read stays as typed and says why. */
const props = defineProps<{ path: string; label: string; value: number; unit?: string; whole?: boolean; wide?: boolean; title?: string; hideLabel?: boolean }>()
const machine = useMachine()
const text = ref(plain(props.value))
const field = computed(() => machine.fault(props.path))
const id = computed(() => 'f' + props.path.replace(/\//g, '-'))

/** While the field has the focus, what is typed stands as it was typed. */
let focused = false

watch(
  () => props.value,
  (value) => {
    if (parsed(text.value) !== value && !focused) {
      text.value = plain(value)
      machine.setUnread(props.path, null)
    }
  },
)

/* an entry that could not be read is gone when it has been taken back */
watch(
  () => machine.unread[props.path],
  (now, before) => {
    if (before && !now && !focused) text.value = plain(props.value)
  },
)

let reading = 0
let answered: Promise<void> = Promise.resolve()

function refuse(fault: { value: string; allowed: string; mend: string } | null) {
  machine.setUnread(props.path, fault && { ...fault, field: props.path, label: props.label })
}

function take(value: number) {
  if (props.whole && !Number.isInteger(value)) return refuse({ value: text.value, allowed: 'a whole number', mend: 'enter a whole number' })
  refuse(null)
  machine.set(props.path, value)
}

/** A plain number is taken at once; anything else, a calculation or another unit, is read by the core. */
function entered() {
  const mine = ++reading
  const value = parsed(text.value)
  if (value !== null) take(value)
  else answered = read(mine)
}

async function read(mine: number) {
  try {
    const answer = await api.entry(text.value, props.unit ?? '')
    if (mine === reading) take(answer.value)
  } catch (error) {
    if (!(error instanceof Problem) || mine !== reading) return
    const kind = props.whole ? 'a whole number' : 'a number'
    refuse(error.faults[0] ?? { value: text.value, allowed: kind, mend: `enter ${kind}` })
  }
}

/** What was calculated stands there as a number when the field is left. */
async function left() {
  focused = false
  await answered
  await nextTick()
  if (!focused && !machine.unread[props.path]) text.value = plain(props.value)
}
</script>

<template>
  <div class="field" :class="{ wide }">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <v-text-field :id="id" v-model="text" class="snug number" :suffix="unit" inputmode="decimal" autocomplete="off" spellcheck="false" :title="title" :error="Boolean(field)"
      :aria-labelledby="undefined" :aria-describedby="field ? id + '-fault' : undefined" @input="entered" @focus="focused = true" @blur="left" />
    <FaultText v-if="field" :id="id + '-fault'" :fault="field" />
  </div>
</template>

<style scoped>
.field { width: var(--field-width, 122px); }
.field.wide { width: 170px; }
label { display: block; font-size: 12px; color: var(--pencil); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
</style>
