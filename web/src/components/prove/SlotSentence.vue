<script setup lang="ts">
import { computed } from 'vue'
import type { Machine, Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useRecordings } from '../../stores/recordings'
import { useSentences } from '../../stores/sentences'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'

type Slotted = Record<string, unknown>

/**
 * A sentence of a proof with a field for each slot. Its pattern, and the units of its numbers, are the core's; what is wrong with what is
 * written stands below.
 * @prop called what the sentence is called in labels, such as "expectation 2"
 */
const props = defineProps<{ pattern: string; entries: object; path: string; called: string; units?: Record<string, string>; amountUnit?: string }>()
const machine = useMachine()
const choices = useChoices()
const sentences = useSentences()
const recordings = useRecordings()
const LABELS: Record<string, string> = {
  axis: 'Axis', other: 'Other axis', after: 'Event', then: 'Later event', when: 'Condition', until: 'End', signal: 'Value', quantity: 'Quantity', span: 'While', end: 'How it ends', position: 'Position', tolerance: 'Tolerance', within: 'Time',
  stays: 'Stays', limit: 'Limit', low: 'Lower bound', high: 'Upper bound', otherLow: 'Lower bound of the other axis', otherHigh: 'Upper bound of the other axis', distance: 'Distance', atLeast: 'Shortest time', time: 'Time', lasts: 'Duration',
  target: 'What is set', value: 'What it gets', amount: 'Amount', mistake: 'Mistake', request: 'Request', recording: 'Recording', alignment: 'How it is laid over the run',
}
const entries = computed(() => props.entries as Slotted)
const proofs = computed(() => choices.all.proof)
const axisOf = (name: unknown): Machine['axes'][number] | undefined => machine.draft!.axes.find((a) => a.name.toLowerCase() === String(name).toLowerCase())

/** A pattern as words and slots; the patterns that a slot chooses follow it. */
function parts(pattern: string): { words?: string; slot?: string }[] {
  return pattern.split(/(\{\w+\})/).filter(Boolean).flatMap((part) => {
    const slot = /^\{(\w+)\}$/.exec(part)?.[1]
    if (!slot) return [{ words: part }]
    const brings = slot === 'span' ? proofs.value.spans : slot === 'alignment' ? proofs.value.alignments : null
    if (!brings) return [{ slot }]
    const chosen = brings.find((s) => s.code === entries.value[slot])
    return [{ slot }, ...parts(chosen?.pattern ?? '')]
  })
}
const all = computed(() => parts(props.pattern))
function unit(slot: string): string {
  if (slot === 'amount') return (props.amountUnit ?? '').replace(/^u$/, axisOf(entries.value.axis)?.unit.symbol ?? '')
  if ((slot === 'low' || slot === 'high' || slot === 'limit') && 'signal' in entries.value && entries.value.signal) return sentences.unitOf(`${props.path}/signal`)
  const given = props.units?.[slot] ?? (slot === 'within' ? 's' : '')
  const of = slot === 'limit' && entries.value.quantity && !given ? proofs.value.quantities.find((q) => q.code === entries.value.quantity)?.unit ?? '' : given
  return of.replace('u', axisOf(entries.value.axis)?.unit.symbol ?? '').replace(/^v$/, axisOf(entries.value.other)?.unit.symbol ?? '')
}
const label = (slot: string) => `${LABELS[slot] ?? slot} of ${props.called}`
const set = (slot: string, value: unknown) => machine.edit({ op: 'add', path: `${props.path}/${slot}`, value })
const numeric = (slot: string) => ['position', 'tolerance', 'within', 'stays', 'limit', 'low', 'high', 'otherLow', 'otherHigh', 'distance', 'atLeast', 'time', 'lasts', 'amount'].includes(slot)
function pickAlignment(code: string) {
  machine.edit({ op: 'add', path: `${props.path}/alignment`, value: code }, ...(code === 'EVENT' && !entries.value.after ? [{ op: 'add' as const, path: `${props.path}/after`, value: sentences.bits[0] ?? 'TRUE' }] : []))
}
/** What begins a slot that was not used before. */
function pickSpan(code: string) {
  const begin: Record<string, unknown> = { span: code }
  if (code === 'AFTER') Object.assign(begin, { within: entries.value.within ?? 1, after: entries.value.after ?? sentences.bits[0] ?? 'TRUE' })
  if (code === 'WHILE') Object.assign(begin, { when: entries.value.when ?? sentences.bits[0] ?? 'TRUE' })
  machine.edit(...Object.entries(begin).map(([slot, value]) => ({ op: 'add' as const, path: `${props.path}/${slot}`, value })))
}
const options = (slot: string) => (slot === 'target' ? sentences.targets : slot === 'signal' || slot === 'value' ? (slot === 'signal' ? sentences.numbers : []) : sentences.bits).map((name) => ({ value: name, title: name }))
const axes = computed(() => machine.draft!.axes.map((a) => a.name))
const wrong = computed(() => all.value.flatMap(({ slot }) => {
  const refused = slot && !numeric(slot) ? machine.fault(`${props.path}/${slot}`) : undefined
  if (refused) return [`${refused.label}: ${refused.value}. Allowed: ${refused.allowed}.`]
  const fault = slot ? sentences.fault(`${props.path}/${slot}`) : undefined
  return fault ? [`${LABELS[slot!] ?? slot}${fault.column > 1 ? `, column ${fault.column}` : ''}: ${fault.message}`] : []
}))
const choicesOf = (slot: string): (string | Schemas['Choice'])[] => ({ axis: axes.value, other: axes.value, quantity: proofs.value.quantities, span: proofs.value.spans, alignment: proofs.value.alignments, recording: recordings.all.map((r) => r.name), end: proofs.value.ends, mistake: choices.all.mistakes, request: machine.draft!.safetyRequests.map((r) => r.name) } as Record<string, (string | Schemas['Choice'])[]>)[slot] ?? []
</script>

<template>
  <div class="slots">
    <div class="line">
      <slot name="before" />
      <template v-for="(part, i) in all" :key="i">
        <span v-if="part.words !== undefined">{{ part.words.trim() }}</span>
        <NumberField v-else-if="numeric(part.slot!)" hide-label :path="`${path}/${part.slot}`" :label="label(part.slot!)" :value="(entries[part.slot!] as number) ?? 0" :unit="unit(part.slot!)" />
        <PickOne v-else-if="choicesOf(part.slot!).length" sentence :label="label(part.slot!)" :value="(entries[part.slot!] as string) ?? null" :options="choicesOf(part.slot!)" @pick="(code) => (part.slot === 'span' ? pickSpan(code) : part.slot === 'alignment' ? pickAlignment(code) : set(part.slot!, code))" />
        <TextEntry v-else class="text mono" :style="{ flexBasis: `${Math.min(60, Math.max(7, String(entries[part.slot!] ?? '').length + (options(part.slot!).length ? 7 : 4)))}ch` }" :value="(entries[part.slot!] as string) ?? ''" :options="options(part.slot!)" :aria-label="label(part.slot!)" maxlength="1000" @enter="(text) => set(part.slot!, text.trim())" />
      </template>
    </div>
    <p v-for="words in wrong" :key="words" class="wrong" role="alert">{{ words }}</p>
  </div>
</template>

<style scoped>
.slots { flex: 1; min-width: 0; }
.line { display: flex; flex-wrap: wrap; gap: 4px 6px; align-items: center; }
.line :deep(.field) { width: 104px; }
.text { flex-grow: 0; min-width: 84px; max-width: 100%; }
.wrong { color: var(--stop); margin: 2px 0 0; font-size: 13px; }
</style>
