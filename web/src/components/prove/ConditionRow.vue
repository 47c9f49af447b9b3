<script setup lang="ts">
import { mdiDelete } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import type { Change, Schemas } from '../../api/client'
import { parsed, plain } from '../../lib/numbers'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useSentences } from '../../stores/sentences'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'

/** One condition: what is varied, of which axis, and its values or a range. */
const props = defineProps<{ condition: Schemas['Condition']; number: number; path: string }>()
const emit = defineEmits<{ remove: [] }>()
const machine = useMachine()
const choices = useChoices()
const sentences = useSentences()
const kind = computed(() => choices.all.proof.varied.find((v) => v.code === props.condition.of))
const unit = computed(() => (kind.value?.unit ?? '').replace(/^u$/, machine.draft!.axes.find((a) => a.name === props.condition.axis)?.unit.symbol ?? ''))
const ranged = computed(() => props.condition.from !== null && props.condition.from !== undefined)
const label = (what: string) => `${what} of condition ${props.number + 1}`
const set = (slot: string, value: unknown): Change => ({ op: 'add', path: `${props.path}/${slot}`, value })
const drop = (slot: 'from' | 'to' | 'steps'): Change[] => (props.condition[slot] === null || props.condition[slot] === undefined ? [] : [{ op: 'remove', path: `${props.path}/${slot}` }])

const text = ref('')
watch(() => props.condition.values, (values) => (text.value = values.map(plain).join('; ')), { immediate: true })
/** Numbers with semicolons between them, so that a decimal comma can stand in one. */
function entered(written: string) {
  const numbers = written.split(/;|\s+/).map((n) => n.trim()).filter(Boolean).map(parsed)
  const field = `${props.path}/values`
  if (!numbers.length || numbers.includes(null)) machine.setUnread(field, { field, label: 'Values', value: written || 'none', allowed: 'numbers with semicolons between them, such as 90; 120; 150', mend: 'enter numbers' })
  else {
    machine.setUnread(field, null)
    machine.edit(set('values', numbers))
  }
}
const wrong = computed(() => machine.fault(`${props.path}/values`) ?? machine.faults.find((f) => f.field.startsWith(`${props.path}/values/`)) ?? machine.fault(`${props.path}/axis`) ?? machine.fault(`${props.path}/sentence`) ?? machine.fault(`${props.path}/mistakes`))
function shape(code: string) {
  const first = props.condition.values[0] ?? 0
  if (code === 'range') machine.edit(set('values', []), set('from', first), set('to', props.condition.values.at(-1) ?? first + 1), set('steps', 5))
  else machine.edit(set('values', [props.condition.from ?? 0, props.condition.to ?? 1]), ...drop('from'), ...drop('to'), ...drop('steps'))
}
const steps = computed(() => (machine.proof?.script ?? []).map((_, i) => ({ code: i, words: `sentence ${i + 1}` })))
</script>

<template>
  <div class="sheet condition">
    <div class="line">
      <span class="what">{{ kind?.words.replace(/,$/, '') }}</span>
      <PickOne v-if="kind?.ofAxis" sentence :label="label('Axis')" :value="condition.axis ?? null" :options="machine.draft!.axes.map((a) => a.name)" @pick="(name) => machine.edit(set('axis', name))" />
      <PickOne v-else-if="condition.of === 'MOMENT'" sentence :label="label('Sentence')" :value="condition.sentence ?? null" :options="steps" @pick="(code) => machine.edit(set('sentence', Number(code)))" />
      <v-select v-if="condition.of === 'MISTAKE'" class="snug mistakes" :model-value="condition.mistakes" multiple :items="choices.all.mistakes" item-title="words" item-value="code" :aria-label="label('Mistakes')" :menu-props="{ contentClass: 'small-list' }" @update:model-value="(codes: string[]) => machine.edit(set('mistakes', codes))" />
      <template v-else>
        <PickOne sentence :label="label('Kind')" :value="ranged ? 'range' : 'values'" :options="[{ code: 'range', words: 'from' }, { code: 'values', words: 'is one of' }]" @pick="shape" />
        <template v-if="ranged">
          <NumberField hide-label :path="`${path}/from`" :label="label('Begin')" :value="condition.from ?? 0" :unit="unit" /> to
          <NumberField hide-label :path="`${path}/to`" :label="label('End')" :value="condition.to ?? 0" :unit="unit" /> in
          <NumberField hide-label whole :path="`${path}/steps`" :label="label('Steps')" :value="condition.steps ?? 2" unit="values" />
        </template>
        <template v-else><TextEntry class="values mono" :value="text" :aria-label="label('Values')" :suffix="unit" @enter="entered" /></template>
      </template>
    </div>
    <p v-if="sentences.fault(`${path}/axis`)" class="wrong" role="alert">{{ sentences.fault(`${path}/axis`)!.message }}</p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong.label }}: {{ wrong.value }}. Allowed: {{ wrong.allowed }}.</p>
    <v-btn :icon="mdiDelete" class="remove" variant="text" size="x-small" :aria-label="`Remove condition ${number + 1}`" @click="emit('remove')" />
  </div>
</template>

<style scoped>
.condition { position: relative; padding: 4px 40px 4px 10px; margin-bottom: 5px; }
.line { display: flex; flex-wrap: wrap; gap: 4px 8px; align-items: center; }
.line :deep(.field) { width: 112px; }
.what { font-weight: 500; }
.values { width: 260px; flex: none; } .mistakes { min-width: 280px; max-width: 420px; }
.remove { position: absolute; right: 6px; top: 6px; }
.wrong { color: var(--stop); margin: 2px 0 0; font-size: 13px; }
</style>
