<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { fixed, parsed, significant } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { useMachine } from '../../stores/machine'
import { useSentences } from '../../stores/sentences'
import ProblemNote from '../ProblemNote.vue'
import TextEntry from '../TextEntry.vue'

/** How fast may it go and still hold everything? What may be changed, what counts, and what was found: taken over as one change. */
const props = defineProps<{ possible: boolean }>()
const machine = useMachine()
const sentences = useSentences()
const { problem, tried } = useProblem()
onMounted(() => sentences.looked++)
onBeforeUnmount(() => { sentences.looked--; work.abort() })
const all = shallowRef<Schemas['Freedom'][]>([])
const chosen = ref<Record<string, { low: number; high: number }>>({})
const from = ref('')
const to = ref('')
const conditions = ref(true)
const filter = ref('')
const progress = shallowRef<Schemas['FastestProgress'] | null>(null)
const found = shallowRef<Schemas['FastestProgress'] | null>(null)
const taken = ref(false)
/** Revision that was searched: texts of another one would be lost under what was found. */
const searched = ref(0)
const same = computed(() => machine.revision === searched.value && !machine.dirty)
/** What the search still needs. */
const missing = computed(() => (!Object.keys(chosen.value).length ? 'Tick the numbers that may change; then it can be searched.' : !from.value.trim() || !to.value.trim() ? 'Name both events; then it can be searched.' : ''))
let work = new AbortController()

/* numbers are found again when the machine has been saved with others; what is free stays free by its words */
watch(() => machine.revision, async () => {
  const list = await machine.guarded(() => api.freedoms(machine.id))
  if (!list) return
  const before = all.value.filter((f) => f.key in chosen.value)
  all.value = list
  chosen.value = Object.fromEntries(before.flatMap((f) => { const now = list.find((n) => n.words === f.words); return now ? [[now.key, chosen.value[f.key]!]] : [] }))
}, { immediate: true })
/* what a proof waits for is what counts, until something else is said */
watch(() => machine.proof?.name, () => {
  const time = machine.proof?.expectations.find((e) => e.kind === 'TIME')
  const arrives = machine.proof?.expectations.filter((e) => e.kind === 'ARRIVES') ?? []
  from.value = time?.after ?? arrives[0]?.after ?? ''
  /* a program that is done with a move takes its order back; that it was done may be seen by nobody */
  to.value = time?.then ?? (arrives.length ? `NOT ${arrives.at(-1)!.after}` : '')
  found.value = null
}, { immediate: true })
const shown = computed(() => {
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter((f) => f.key in chosen.value || words.every((w) => f.words.toLowerCase().includes(w)))
})
const events = computed(() => sentences.bits.map((name) => ({ value: name, title: name })))
function free(f: Schemas['Freedom'], on: boolean) {
  const { [f.key]: _, ...rest } = chosen.value
  chosen.value = on ? { ...rest, [f.key]: { low: Number(f.low.toPrecision(4)), high: Number(f.high.toPrecision(4)) } } : rest
}
function bound(f: Schemas['Freedom'], end: 'low' | 'high', text: string) {
  const value = parsed(text)
  if (value !== null) chosen.value = { ...chosen.value, [f.key]: { ...chosen.value[f.key]!, [end]: value } }
}
const now = (f: Schemas['Freedom']) => found.value?.fastest?.values.find((v) => v.of.words === f.words)

async function search() {
  await machine.flush()
  if (machine.conflict !== null || machine.faults.length || !machine.proof) return
  work = new AbortController()
  found.value = null
  taken.value = false
  searched.value = machine.revision
  progress.value = { points: 0, of: 200, changes: [] }
  const question = { proof: machine.proof.name, from: from.value.trim(), to: to.value.trim(), conditions: conditions.value, freedoms: Object.entries(chosen.value).map(([key, b]) => ({ key, ...b })), most: 200 }
  found.value = (await tried(() => api.fastest(machine.id, question, (line) => (progress.value = line), work.signal))) ?? null
  progress.value = null
}
function take() {
  machine.edit(...found.value!.changes.map((c) => ({ op: 'replace' as const, path: c.pointer, value: c.text ?? c.number })))
  taken.value = true
}
const outcome = computed(() => {
  const f = found.value?.fastest
  if (!f) return ''
  if (!f.holds) return f.held ? 'Nothing that was tried is faster and holds everything.' : 'Nothing that was tried holds everything: give the numbers other bounds, or the expectations more room.'
  const gain = f.before != null && f.after != null ? f.before - f.after : null
  return `${significant(f.after)} s instead of ${f.before == null ? 'never' : `${significant(f.before)} s`}${gain !== null && gain > 0 && f.before ? `: ${significant(gain, 3)} s less, ${fixed((100 * gain) / f.before, 1)} %` : ''}${f.held ? '' : '. As it is, it does not hold everything; with these values it does'}.`
})
</script>

<template>
  <section aria-label="Fastest that holds">
    <div class="line">The time from <TextEntry class="mono event" :value="from" :options="events" aria-label="Event with which the time begins" maxlength="1000" @enter="from = $event" /> to <TextEntry class="mono event" :value="to" :options="events" aria-label="Event with which the time ends" maxlength="1000" @enter="to = $event" /> counts: as short as it gets while every expectation holds
      <v-checkbox-btn v-model="conditions" class="under" :disabled="!machine.proof?.conditions.length" :label="machine.proof?.conditions.length ? 'under every condition' : 'the proof has no conditions'" />
      <v-btn v-if="progress" class="go" @click="work.abort()">Cancel</v-btn>
      <v-btn v-else class="go" color="primary" variant="flat" :disabled="!props.possible || Boolean(missing)" @click="search">Search</v-btn></div>
    <p v-if="!progress && missing" class="sub">{{ missing }}</p>
    <p v-if="progress" class="sub" role="status">{{ progress.points }} of at most {{ progress.of }} sets of values{{ progress.best == null ? ', none that holds yet' : `, ${significant(progress.best)} s so far` }} <v-progress-linear class="far" :model-value="progress.points" :max="progress.of" color="primary" aria-label="Progress of the search" /></p>
    <ProblemNote v-if="problem" :problem="problem" data-testid="fastest-refused" @close="problem = null" />
    <div v-if="found?.fastest" class="found" :class="{ ok: found.fastest.holds }" data-testid="fastest">
      <b>{{ outcome }}</b> {{ found.fastest.tightest ? `The least room: ${found.fastest.tightest}.` : '' }} {{ found.fastest.points }} sets of values in {{ found.fastest.runs }} runs.
      <span v-if="taken" role="status"> Taken over; undo brings back what was there.</span>
      <span v-else-if="!same"> The machine has changed since; search again to take it over.</span>
      <v-btn v-else-if="found.changes.length && found.fastest.holds" color="primary" variant="flat" @click="take">Take it over</v-btn>
    </div>
    <div class="pick"><b>What may be changed</b> <v-text-field v-model="filter" class="snug typed" placeholder="find a number" aria-label="Find a number that may be changed" /></div>
    <div class="scroll"><table class="plain free">
      <thead><tr><th scope="col">Number</th><th scope="col">Now</th><th scope="col">From</th><th scope="col">To</th><th v-if="found?.fastest" scope="col">Found</th></tr></thead>
      <tbody><tr v-for="f in shown" :key="f.key">
        <td><v-checkbox-btn :model-value="f.key in chosen" :label="f.words" @update:model-value="free(f, Boolean($event))" /></td>
        <td class="mono">{{ significant(f.value) }} {{ f.unit }}</td>
        <template v-if="chosen[f.key]"><td><TextEntry class="mono bound" :value="chosen[f.key]!.low" :aria-label="`Least ${f.words}`" @enter="(t) => bound(f, 'low', t)" /></td><td><TextEntry class="mono bound" :value="chosen[f.key]!.high" :aria-label="`Most ${f.words}`" @enter="(t) => bound(f, 'high', t)" /></td></template>
        <td v-else colspan="2" class="sub">stays</td>
        <td v-if="found?.fastest" class="mono"><b v-if="now(f)">{{ significant(now(f)!.found) }} {{ f.unit }}</b></td>
      </tr><tr v-if="!shown.length"><td colspan="5" class="sub">No number has this in its name.</td></tr></tbody>
    </table></div>
  </section>
</template>

<style scoped>
.line { display: flex; flex-wrap: wrap; gap: 4px 6px; align-items: center; font-size: 13.5px; }
.event { width: 190px; flex: none; } .under { flex: none; } .go { margin-left: auto; }
.far { display: inline-block; width: 160px; vertical-align: middle; }
.found { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 5px 8px; font-size: 13.5px; margin: 6px 0; } .found.ok { border-color: var(--ok); background: var(--ok-wash); }
.pick { display: flex; gap: 10px; align-items: center; margin: 8px 0 4px; } .typed { max-width: 240px; }
.scroll { overflow-x: auto; } .free { border-collapse: collapse; width: 100%; font-size: 13px; } .free th { text-align: left; padding: 2px 6px; } .free td { padding: 0 6px; border-top: 1px solid var(--hair); white-space: nowrap; }
.bound { width: 92px; }
</style>
