<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Expectation, type Schemas } from '../../api/client'
import { fixed, significant } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { placeOf } from '../../router'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useTraces, type Shown } from '../../stores/traces'
import PickOne from '../PickOne.vue'
import ProblemNote from '../ProblemNote.vue'
import TextEntry from '../TextEntry.vue'

/** The newest run of the chosen proof under a recording: how far they are apart, and both over one time. */
const props = defineProps<{ recording: Schemas['RecordingView'] }>()
const emit = defineEmits<{ compared: [comparison: Schemas['Comparison'] | null] }>()
const machine = useMachine()
const choices = useChoices()
const traces = useTraces()
const router = useRouter()
const { problem, tried } = useProblem()
const alignments = computed(() => choices.all.proof.alignments)
const alignment = ref<NonNullable<Expectation['alignment']>>('BEST_FIT')
const shared = computed(() => props.recording.signals.filter((s) => s.ofMachine).map((s) => s.name))
/** What moves, and moves the same whatever is pushed, tells best where it lies. */
const usual = () => shared.value.find((s) => s.endsWith('.commandedSpeed')) ?? shared.value.find((s) => s.endsWith('.commandedPosition')) ?? shared.value.find((s) => s.endsWith('.position')) ?? shared.value[0] ?? ''
const signal = ref(usual())
const event = ref('')
const at = ref('')
const comparison = shallowRef<Schemas['Comparison'] | null>(null)

let asking = 0
watch([() => props.recording.id, () => machine.run?.id, alignment, signal, event, at], async ([id], before) => {
  if (before[0] !== undefined && id !== before[0]) signal.value = usual()
  const mine = ++asking
  comparison.value = null
  emit('compared', null)
  if (!machine.run || !shared.value.length || (alignment.value === 'EVENT' && !event.value)) return
  const found = await tried(() => api.overlay({ run: machine.run!.id, recording: props.recording.id, alignment: alignment.value, event: event.value || undefined, signal: signal.value, at: at.value || undefined }))
  if (mine !== asking || !found) return
  comparison.value = found
  emit('compared', found)
}, { immediate: true })

const rank = (signal: string) => ['.torque', '.position', '.speed'].findIndex((end) => signal.endsWith(end)) + 1 || (signal.includes('.commanded') ? 9 : 5)
/** Each signal in a pane of its own: run, recording, and the difference below. */
async function lay() {
  const shift = Number(comparison.value!.shift.toFixed(6))
  /* what is commanded tells least of the machine */
  const told = [...comparison.value!.signals].sort((a, b) => rank(a.signal) - rank(b.signal))
  const run = { kind: 'RUN' as const, id: machine.run!.id, shift: 0 }
  const recording = { kind: 'RECORDING' as const, id: props.recording.id, shift }
  const shown = told.slice(0, 3).flatMap<Omit<Shown, 'colour'>>((s, i) => [{ ...run, signal: s.signal, less: null, pane: 2 * i }, { ...recording, signal: s.signal, less: null, pane: 2 * i }, ...(i === 0 ? [{ ...run, signal: s.signal, less: recording, pane: 2 * i + 1 }] : [])])
  await traces.show(shown)
  await router.push(placeOf('traces'))
}
function expect(s: Schemas['Apart']) {
  const e = { kind: 'DIFFERS', signal: s.signal, recording: props.recording.name, limit: Number((Math.abs(s.peak) * 1.2 || 0.1).toPrecision(2)), alignment: alignment.value, ...(alignment.value === 'EVENT' ? { after: event.value } : {}) }
  machine.edit({ op: 'add', path: `/proofs/${machine.proofIndex}/expectations/-`, value: e })
}
const expected = (s: Schemas['Apart']) => machine.proof?.expectations.some((e) => e.kind === 'DIFFERS' && e.signal === s.signal && e.recording?.toLowerCase() === props.recording.name.toLowerCase())
</script>

<template>
  <section aria-label="Comparison with the newest run">
    <h2>Against the newest run of {{ machine.proof?.name }}</h2>
    <p v-if="!machine.run" class="sub">Run the proof: its run is held against the recording here.</p>
    <p v-else-if="!shared.length" class="sub">None of its signals is one of this machine, so there is nothing to compare. Bring the file in again and say which column is which signal.</p>
    <template v-else>
      <div class="line">The recording lies <PickOne sentence label="How it is laid over the run" :value="alignment" :options="alignments" @pick="alignment = $event as typeof alignment" />
        <template v-if="alignment === 'EVENT'"><TextEntry class="mono event" :value="event" aria-label="Event that both have" placeholder="Shuttle.position > 1800" maxlength="1000" @enter="event = $event.trim()" /></template>
        <template v-if="alignment === 'BEST_FIT'">by <PickOne sentence label="Signal that is laid" :value="signal" :options="shared" @pick="signal = $event" /></template>
        and is looked at each time <TextEntry class="mono event" :value="at" aria-label="Event of the run at which they are compared" placeholder="Step = 40" maxlength="1000" @enter="at = $event.trim()" /> comes
      </div>
      <ProblemNote v-if="problem" :problem="problem" @close="problem = null" />
      <template v-if="comparison">
        <p class="sub" data-testid="laid">Moved by <b class="mono">{{ fixed(comparison.shift, 4) }} s</b>; both are there from {{ fixed(comparison.from, 3) }} to {{ fixed(comparison.to, 3) }} s. Differences are run less recording. <v-btn class="lay" @click="lay">Lay them over one another</v-btn></p>
        <v-table v-if="comparison.signals.length" class="plain apart" data-testid="apart">
          <thead><tr><th>Signal</th><th>Largest difference</th><th>At</th><th title="Root of the mean square of the difference">RMS</th><th>Mean</th><th>As expectation</th></tr></thead>
          <tbody><template v-for="s in comparison.signals" :key="s.signal">
            <tr><td>{{ traces.words(s.signal) }}</td><td class="mono"><b>{{ significant(s.peak) }}</b> {{ s.unit }}</td><td class="mono">{{ fixed(s.peakAt, 3) }} s</td><td class="mono">{{ significant(s.rms) }} {{ s.unit }}</td><td class="mono">{{ significant(s.mean) }} {{ s.unit }}</td>
              <td><span v-if="expected(s)" class="sub">added</span><button v-else type="button" class="link" :aria-label="`Add ${s.signal} as expectation`" @click="expect(s)">Add</button></td></tr>
            <tr v-for="e in s.events" :key="`${s.signal} ${e.time}`" class="event-row"><td class="sub">at the event</td><td class="mono">{{ e.recorded == null ? '–' : significant(e.run - e.recorded) }} {{ s.unit }}</td><td class="mono">{{ fixed(e.time, 3) }} s</td><td colspan="3" class="mono sub">run {{ significant(e.run) }}, recording {{ e.recorded == null ? 'nothing there' : significant(e.recorded) }} {{ s.unit }}</td></tr>
          </template></tbody>
        </v-table>
        <ul v-if="comparison.remarks.length" class="sub"><li v-for="r in comparison.remarks" :key="r">{{ r }}</li></ul>
      </template>
    </template>
  </section>
</template>

<style scoped>
.line { display: flex; flex-wrap: wrap; gap: 4px 6px; align-items: center; font-size: 13.5px; }
.event { width: 190px; flex: none; } .lay { margin-top: 4px; color: var(--ink); }
.apart { font-size: 13px; } td, th { padding: 1px 6px !important; } td.mono { white-space: nowrap; }
</style>
