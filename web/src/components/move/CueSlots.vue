<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'

/** A cue as slots of a sentence: which input, which edge, and when it counts. @prop level only the input: both edges count */
const props = defineProps<{ path: string; cue: Schemas['Cue']; label: string; level?: boolean; probe?: boolean }>()
const machine = useMachine()
const choices = useChoices()
const inputs = computed(() => choices.all.moves.inputs)
const timed = computed(() => props.cue.taken !== 'AT_ONCE')
</script>

<template>
  <PickOne sentence :label="`${label}, input`" :value="cue.input" :options="inputs" @pick="(code) => machine.set(`${path}/input`, code)" />
  <template v-if="cue.input !== 'NONE' && !probe">
    <PickOne v-if="!level" sentence :label="`${label}, edge`" :value="cue.edge" :options="choices.all.moves.edges" @pick="(code) => machine.set(`${path}/edge`, code)" />, taken
    <PickOne sentence :label="`${label}, when it counts`" :value="cue.taken" :options="choices.all.moves.taken" @pick="(code) => machine.set(`${path}/taken`, code)" />
    <NumberField v-if="timed" :path="`${path}/millis`" :label="`${label}, time`" hide-label :value="cue.millis" unit="ms" whole class="inline" />
  </template>
</template>

<style scoped>
.inline { display: inline-block; --field-width: 92px; vertical-align: middle; }
</style>
