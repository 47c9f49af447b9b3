<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted } from 'vue'
import type { Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useRepetition } from '../../stores/repetition'
import { useSentences } from '../../stores/sentences'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import ConditionMap from './ConditionMap.vue'
import ConditionRow from './ConditionRow.vue'

/** Under which other conditions the proof is repeated, and what that says. */
const props = defineProps<{ possible: boolean }>()
const emit = defineEmits<{ opened: [] }>()
const machine = useMachine()
const choices = useChoices()
const repetition = useRepetition()
const sentences = useSentences()
onMounted(() => sentences.looked++)
onBeforeUnmount(() => sentences.looked--)
const root = computed(() => `/proofs/${machine.proofIndex}`)
const conditions = computed(() => machine.proof?.conditions ?? [])
const plan = computed(() => machine.proof!.plan)
const running = computed(() => repetition.runs(repetition.shown))
const progress = computed(() => (repetition.shown ? repetition.progress[repetition.shown.id] : undefined))
const stale = computed(() => repetition.shown !== null && repetition.shown.revision !== machine.revision)
const counted = computed(() => ['ALL_COMBINATIONS', 'RANDOM', 'WORST'].includes(plan.value.kind))

/** A new condition begins around what the document says. */
function add(code: string) {
  const axis = machine.axis
  const ofAxis = choices.all.proof.varied.find((v) => v.code === code)?.ofAxis
  if (ofAxis && !axis) return
  const load = axis?.load
  const around: Record<string, [number, number]> = {
    MASS: [0.8 * (load?.mass ?? 1), 1.2 * (load?.mass ?? 1)], INERTIA: [0.8 * (load?.inertia ?? 1), 1.2 * (load?.inertia ?? 1)], PLAY: [0, Math.max(0.1, 2 * (load?.backlash ?? 0))], SLOPE: [load?.slope ?? 0, (load?.slope ?? 0) + 1],
    CAM: [-1, 1], LIMIT_SWITCHES: [0, 1], START: [axis?.travel.parkedAt ?? 0, (axis?.travel.parkedAt ?? 0) + 10], INDEX: [0, 270], ENCODER_NOISE: [0, 4], CLOCK: [-50, 50], FRAMES_LOST: [0, 1], MOMENT: [0, 1], TASK_JITTER: [0, 2000],
  }
  const [from, to] = around[code] ?? [80, 120]
  const rounded = (value: number) => Number(value.toPrecision(4))
  const base: Partial<Schemas['Condition']> = code === 'MISTAKE' ? { values: [], mistakes: [choices.all.mistakes[0]!.code as Schemas['Condition']['mistakes'][number]] } : { values: [], mistakes: [], from: rounded(from), to: rounded(to), steps: 5 }
  machine.edit({ op: 'add', path: `${root.value}/conditions/-`, value: { of: code, ...(code === 'MOMENT' ? { sentence: 0 } : ofAxis ? { axis: axis!.name } : {}), ...base } })
}
const varied = computed(() => choices.all.proof.varied.map((v) => ({ code: v.code, words: v.words.replace(/,$/, ''), disabled: v.code === 'MOMENT' && !machine.proof?.script.length })))
async function open(run: number) {
  if (await repetition.open(run)) emit('opened')
}
const seconds = (s: number) => (s < 90 ? `${Math.ceil(s)} s` : `${Math.ceil(s / 60)} min`)
</script>

<template>
  <section aria-label="Conditions">
    <p v-if="!conditions.length" class="empty">Nothing is varied yet. Add what may be other on a bad day: the heaviest wheel, weak supply, a worn guide, a shifted cam, a broken wire.</p>
    <ConditionRow v-for="(c, i) in conditions" :key="i" :condition="c" :number="i" :path="`${root}/conditions/${i}`" @remove="machine.edit({ op: 'remove', path: `${root}/conditions/${i}` })" />
    <div class="row">
      <PickOne class="adding" label="Add a condition" :value="null" placeholder="Add a condition…" :options="varied" @pick="add" />
      <span>Repeat by</span> <PickOne sentence label="Plan" :value="plan.kind" :options="choices.all.proof.plans" @pick="(code) => machine.set(`${root}/plan/kind`, code)" />
      <template v-if="counted">up to <NumberField hide-label whole :path="`${root}/plan/runs`" label="Runs" :value="plan.runs" unit="runs" /></template>
      <template v-if="plan.kind === 'STOP'">every <NumberField hide-label :path="`${root}/plan/every`" label="Time between moments" :value="plan.every" unit="s" /></template>
      <template v-if="plan.kind === 'RANDOM' || plan.kind === 'WORST'">with seed <NumberField hide-label whole :path="`${root}/plan/seed`" label="Seed" :value="plan.seed" title="The same seed gives the same runs on any machine" /></template>
      <v-btn v-if="running" class="go" @click="repetition.cancel()">Cancel</v-btn>
      <v-btn v-else class="go" variant="flat" color="primary" :disabled="!props.possible" @click="repetition.start()">{{ repetition.shown?.map ? 'Repeat again' : 'Repeat' }}</v-btn>
    </div>
    <p v-if="running" class="sub" role="status">
      <template v-if="progress?.before">Waiting: another proof is repeated first.</template>
      <template v-else>{{ progress?.done ?? 0 }} of {{ repetition.shown!.total }} runs<template v-if="progress?.seconds != null">, about {{ seconds(progress.seconds) }} left</template>
        <v-progress-linear class="far" :model-value="progress?.done ?? 0" :max="repetition.shown!.total" color="primary" aria-label="Progress of the repeated proof" /></template>
      It goes on when this page is closed.
    </p>
    <p v-else-if="repetition.shown?.message" class="stopped" role="alert">{{ repetition.shown.message }}</p>
    <template v-if="!running && repetition.shown?.map">
      <p class="sub" data-testid="repetition-summary">{{ repetition.shown.plan }}: <b>{{ repetition.shown.map.failed === 0 ? 'everything held in all of them' : `${repetition.shown.map.failed} did not hold everything` }}</b>.
        <button type="button" class="link" :disabled="repetition.opening" @click="open(repetition.shown.map.worst)">Open the worst run</button><span v-if="repetition.opening" role="status"> Running it again…</span>
        <b v-if="stale"> Revision {{ repetition.shown.revision }} was repeated; the machine has changed since.</b></p>
      <ConditionMap :map="repetition.shown.map" :opening="repetition.opening" @open="open" />
      <ul v-if="repetition.shown.map.remarks.length" class="remarks"><li v-for="r in repetition.shown.map.remarks" :key="r">{{ r }}</li></ul>
    </template>
  </section>
</template>

<style scoped>
.row { display: flex; flex-wrap: wrap; gap: 4px 8px; align-items: center; margin: 4px 0 6px; }
.row :deep(.field) { width: 112px; }
.adding { width: 210px; flex: none; } .go { margin-left: auto; }
.far { display: inline-block; width: 160px; vertical-align: middle; }
.remarks { margin: 8px 0; padding-left: 20px; font-size: 13.5px; }
.stopped { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; }
</style>
