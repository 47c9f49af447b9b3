<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp, mdiDelete } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted } from 'vue'
import type { Change, Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { useSentences } from '../../stores/sentences'
import PickOne from '../PickOne.vue'
import SlotSentence from './SlotSentence.vue'

type Step = Schemas['ScriptStep']

/** What the operator and the world do while the program runs, sentence by sentence. */
const machine = useMachine()
const choices = useChoices()
const sentences = useSentences()
onMounted(() => sentences.looked++)
onBeforeUnmount(() => sentences.looked--)
const root = computed(() => `/proofs/${machine.proofIndex}/script`)
const steps = computed(() => machine.proof?.script ?? [])
const lists = computed(() => choices.all.proof)
const does = (step: Step) => lists.value.happens.find((d) => d.code === step.does)
const start = (step: Step) => lists.value.starts.find((s) => s.code === step.start)
const ending = (step: Step) => lists.value.endings.find((e) => e.code === step.ending)
const endings = (step: Step) => lists.value.endings.filter((e) => does(step)?.endings.includes(e.code))
const linear = (step: Step) => choices.all.feeds.find((f) => f.code === machine.draft!.axes.find((a) => a.name === step.axis)?.train.feed.kind)?.linear ?? true

/** Slots that a sentence has not used yet begin with something that can stand there. */
function begun(step: Step): Partial<Step> {
  const axis = machine.axis?.name
  const event = sentences.bits[0] ?? 'TRUE'
  const first: Partial<Step> = { time: 1, when: event, until: event, lasts: 0.5, target: sentences.targets[0] ?? '', value: 'TRUE', axis, amount: 10, mistake: choices.all.mistakes[0]?.code as Step['mistake'], request: machine.draft!.safetyRequests[0]?.name ?? '' }
  const patterns = [start(step)?.pattern, does(step)?.pattern, does(step)?.endings.length ? ending(step)?.pattern : ''].join(' ')
  const used = [...patterns.matchAll(/\{(\w+)\}/g)].map((m) => m[1] as keyof Step)
  return Object.fromEntries(used.filter((slot) => step[slot] === null || step[slot] === undefined).map((slot) => [slot, first[slot]]))
}
function add(code: string) {
  const step = { start: 'AT', time: 1, does: code, ending: code === 'SET' ? 'ONCE' : 'FOR_GOOD' } as Step
  machine.edit({ op: 'add', path: `${root.value}/-`, value: { ...step, ...begun(step) } })
}
function choose(i: number, slot: 'start' | 'does' | 'ending', code: string) {
  const step = { ...steps.value[i]!, [slot]: code } as Step
  const possible = does(step)?.endings ?? []
  if (possible.length && !possible.includes(step.ending)) step.ending = possible[0] as Step['ending']
  const changes: Record<string, unknown> = { [slot]: code, ending: step.ending, ...begun(step) }
  machine.edit(...Object.entries(changes).map(([key, value]): Change => ({ op: 'add', path: `${root.value}/${i}/${key}`, value })))
}
/** The moment of a sentence that is varied goes with it. */
function follow(of: (sentence: number) => number | null): Change[] {
  return (machine.proof?.conditions ?? []).flatMap((c, i): Change[] => {
    if (c.sentence === null || c.sentence === undefined) return []
    const to = of(c.sentence)
    return to === null || to === c.sentence ? [] : [{ op: 'replace', path: `/proofs/${machine.proofIndex}/conditions/${i}/sentence`, value: to }]
  })
}
function remove(at: number) {
  const gone = (machine.proof?.conditions ?? []).flatMap((c, i) => (c.sentence === at ? [i] : [])).reverse()
  machine.edit({ op: 'remove', path: `${root.value}/${at}` }, ...follow((n) => (n > at ? n - 1 : n)), ...gone.map((i): Change => ({ op: 'remove', path: `/proofs/${machine.proofIndex}/conditions/${i}` })))
}
function move(from: number, to: number) {
  const step = steps.value[from]
  if (!step || to < 0 || to >= steps.value.length) return
  machine.edit({ op: 'remove', path: `${root.value}/${from}` }, { op: 'add', path: `${root.value}/${to}`, value: step }, ...follow((n) => (n === from ? to : n === to ? from : n)))
}
</script>

<template>
  <section aria-label="Script">
    <p v-if="steps.length === 0" class="empty">Nothing happens but the program. Say here what the operator and the world do: an input that comes, a stop that is pressed, a load that changes.</p>
    <div v-for="(step, i) in steps" :key="i" class="sheet sentence">
      <span class="number mono" aria-hidden="true">{{ i + 1 }}</span>
      <div class="words">
        <SlotSentence :pattern="start(step)?.pattern ?? ''" :units="start(step)?.units" :entries="step" :path="`${root}/${i}`" :called="`sentence ${i + 1}`">
          <template #before><PickOne sentence :label="`Begin of sentence ${i + 1}`" :value="step.start" :options="lists.starts" @pick="(code) => choose(i, 'start', code)" /></template>
        </SlotSentence>
        <SlotSentence :pattern="does(step)?.pattern ?? ''" :entries="step" :path="`${root}/${i}`" :called="`sentence ${i + 1}`" :amount-unit="linear(step) ? does(step)?.linear : does(step)?.turning">
          <template #before><PickOne sentence :label="`What happens in sentence ${i + 1}`" :value="step.does" :options="lists.happens" @pick="(code) => choose(i, 'does', code)" /></template>
        </SlotSentence>
        <SlotSentence v-if="endings(step).length" :pattern="ending(step)?.pattern ?? ''" :units="ending(step)?.units" :entries="step" :path="`${root}/${i}`" :called="`sentence ${i + 1}`">
          <template #before><PickOne sentence :label="`How long in sentence ${i + 1}`" :value="step.ending" :options="endings(step)" @pick="(code) => choose(i, 'ending', code)" /></template>
        </SlotSentence>
        <p v-if="sentences.fault(`${root}/${i}/does`)" class="wrong" role="alert">{{ sentences.fault(`${root}/${i}/does`)!.message }}</p>
      </div>
      <v-btn :icon="mdiChevronUp" variant="text" size="x-small" :disabled="i === 0" :aria-label="`Move sentence ${i + 1} up`" @click="move(i, i - 1)" />
      <v-btn :icon="mdiChevronDown" variant="text" size="x-small" :disabled="i === steps.length - 1" :aria-label="`Move sentence ${i + 1} down`" @click="move(i, i + 1)" />
      <v-btn :icon="mdiDelete" variant="text" size="x-small" :aria-label="`Remove sentence ${i + 1}`" @click="remove(i)" />
    </div>
    <PickOne class="adding" label="Add a sentence" :value="null" placeholder="Add what happens…" :options="lists.happens" @pick="add" />
  </section>
</template>

<style scoped>
.sentence { display: flex; gap: 4px; align-items: flex-start; padding: 5px 8px; margin-bottom: 5px; }
.number { padding-top: 6px; color: var(--pencil); width: 22px; }
/* one sentence out of three parts: their words and fields flow together */
.words { flex: 1; min-width: 0; display: flex; flex-wrap: wrap; gap: 4px 6px; align-items: center; }
.words > .slots, .words > .slots > :deep(.line) { display: contents; }
.words > .slots > :deep(.wrong) { flex-basis: 100%; }
.wrong { flex-basis: 100%; color: var(--stop); margin: 2px 0 0; font-size: 13px; }
.adding { width: 280px; }
</style>
