<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { fixed, significant } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useTraces } from '../../stores/traces'
import PickOne from '../PickOne.vue'
import ProblemNote from '../ProblemNote.vue'

type Unknown = Schemas['LearningQuestion']['unknowns'][number]

/** The bench tries other loads until its run lies over the recording; what it finds can be taken over, and undone. */
const props = defineProps<{ recording: Schemas['RecordingView'] }>()
const machine = useMachine()
const choices = useChoices()
const traces = useTraces()
const { problem, tried } = useProblem()
const told = computed(() => machine.draft!.axes.filter((a) => props.recording.signals.some((s) => s.name.toLowerCase() === `${a.name}.torque`.toLowerCase())).map((a) => a.name))
const axis = ref('')
watch(told, (names) => { if (!names.includes(axis.value)) axis.value = names[0] ?? '' }, { immediate: true })
const index = computed(() => machine.draft!.axes.findIndex((a) => a.name === axis.value))
const unknowns = computed(() => choices.all.recording.unknowns.filter((u) => u.code !== 'DELAY'))
const wanted = ref<Unknown[]>(['LOAD', 'COULOMB', 'VISCOUS'])
const progress = shallowRef<Schemas['LearningProgress'] | null>(null)
const learned = shallowRef<Schemas['Learned'] | null>(null)
const taken = ref(false)
const without = ref<string[]>([])
let work = new AbortController()
onBeforeUnmount(() => work.abort())
watch([() => props.recording.id, axis, () => machine.proof?.name], () => { learned.value = null; taken.value = false })

async function learn() {
  await machine.flush()
  if (machine.conflict !== null || machine.faults.length) return
  work = new AbortController()
  learned.value = null
  taken.value = false
  without.value = []
  progress.value = { runs: 0, of: 0, apart: 1 }
  learned.value = (await tried(() => api.learn(machine.id, { recording: props.recording.id, proof: machine.proof!.name, axis: index.value, unknowns: wanted.value }, (line) => (progress.value = line), work.signal))) ?? null
  progress.value = null
  if (learned.value) without.value = learned.value.values.filter((v) => !v.sure).map((v) => v.of)
}
const some = computed(() => learned.value?.values.filter((v) => v.pointer && !without.value.includes(v.of)) ?? [])
/** All of it is one change. */
function take() {
  machine.edit(...some.value.map((v) => ({ op: 'replace' as const, path: `/axes/${index.value}${v.pointer}`, value: Number(v.found.toPrecision(4)) })))
  taken.value = true
}
/** As many decimals as the doubt leaves. */
const sure = (v: Schemas['LearnedValue']) => fixed(v.found, Math.min(9, Math.max(0, 1 - Math.floor(Math.log10(v.doubt || 1)))))
const toggle = (of: string, on: boolean) => (without.value = on ? without.value.filter((o) => o !== of) : [...without.value, of])
</script>

<template>
  <section aria-label="Learning from the recording" class="learning">
    <h2>Let the bench learn from it</h2>
    <p v-if="!told.length" class="sub">No axis has its torque in this recording, and load and friction show in nothing else.</p>
    <template v-else>
      <div class="line">Of <PickOne sentence label="Axis that is learned" :value="axis" :options="told" @pick="axis = $event" />
        <v-checkbox-btn v-for="u in unknowns" :key="u.code" v-model="wanted" class="one" :value="u.code" :label="u.words" />
        <v-btn v-if="progress" @click="work.abort()">Cancel</v-btn>
        <v-btn v-else :disabled="!wanted.length || !machine.proof" @click="learn">Learn</v-btn></div>
      <p v-if="progress" class="sub" role="status">{{ progress.runs }} of about {{ progress.of }} runs of {{ machine.proof?.name }}<template v-if="progress.runs">, {{ fixed(progress.apart * 100, 0) }} % of the difference left</template> <v-progress-linear class="far" :model-value="progress.runs" :max="Math.max(1, progress.of)" color="primary" aria-label="Progress of learning" /></p>
      <ProblemNote v-if="problem" :problem="problem" data-testid="learning-refused" @close="problem = null" />
      <template v-if="learned">
        <v-table class="plain" data-testid="learned">
          <thead><tr><th>Take over</th><th>Value</th><th>In the document</th><th>Learned</th><th title="Three standard deviations">In doubt by</th></tr></thead>
          <tbody><tr v-for="v in learned.values" :key="v.of">
            <td><v-checkbox-btn v-if="v.pointer" :model-value="!without.includes(v.of)" :aria-label="`Take over the ${v.words}`" @update:model-value="toggle(v.of, Boolean($event))" /></td>
            <td>{{ v.words }}</td><td class="mono">{{ significant(v.before) }} {{ v.unit }}</td><td class="mono"><b>{{ sure(v) }}</b> {{ v.unit }}</td><td class="mono">± {{ significant(v.doubt, 2) }} {{ v.unit }}{{ v.sure ? '' : ', not sure' }}</td>
          </tr></tbody>
        </v-table>
        <p class="sub">{{ learned.runs }} runs. Left of the difference: <template v-for="(f, i) in learned.fits" :key="f.signal">{{ i ? '; ' : '' }}{{ traces.words(f.signal) }} {{ significant(f.before, 3) }} → {{ significant(f.after, 3) }} {{ f.unit }} RMS</template>.<template v-for="r in learned.remarks" :key="r"> {{ r }}</template></p>
        <p v-if="taken" class="sub" role="status">Taken over for {{ axis }}; undo brings back what was there. Prove again to see what it changes.</p>
        <v-btn v-else color="primary" variant="flat" :disabled="!some.length" @click="take">Take over {{ some.length === 1 ? 'one value' : `${some.length} values` }}</v-btn>
      </template>
    </template>
  </section>
</template>

<style scoped>
.learning { margin-top: 10px; }
.line { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: center; font-size: 13.5px; } .one { flex: none; }
.far { display: inline-block; width: 160px; vertical-align: middle; }
td, th { padding: 1px 6px !important; } td.mono { white-space: nowrap; }
</style>
