<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { mdiPlus } from '@mdi/js'
import { api, type Schemas } from '../api/client'
import GuardEntries from '../components/guard/GuardEntries.vue'
import GuardLive from '../components/guard/GuardLive.vue'
import GuardMatrix from '../components/guard/GuardMatrix.vue'
import GuardTrial from '../components/guard/GuardTrial.vue'
import SafetyRequests from '../components/guard/SafetyRequests.vue'
import StopTable from '../components/guard/StopTable.vue'
import StopDrawing from '../components/guard/StopDrawing.vue'
import StopEntries from '../components/guard/StopEntries.vue'
import TabRow from '../components/TabRow.vue'
import { useAxis } from '../lib/axis'
import { useChoices } from '../stores/choices'

/** Safe stops of an axis: who asks for what, what the watch allows, and what the bench makes of it. */
const { machine, axis, at, bench } = useAxis()
const choices = useChoices()
const guard = computed(() => axis.value.guard)
const functionOf = (code: string) => choices.all.guard.functions.find((f) => f.code === code)
/** What can be looked at: each pair of a request and what it asks for here. */
const tabs = computed(() => Object.fromEntries(guard.value.asks.map((a, i) => [String(i), `${a.request}: ${functionOf(a.function)?.words ?? ''}`])))
const tab = ref('0')
watch(() => [axis.value.name, guard.value.asks.length], () => { if (!(tab.value in tabs.value)) tab.value = '0' })
const ask = computed(() => guard.value.asks[Number(tab.value)] ?? null)
/** Entry of the guard that says how it is watched. */
const rules = computed(() => functionOf(ask.value?.function ?? '')?.rules ?? '')
const stopRules = computed(() => (rules.value.startsWith('stop') ? guard.value[rules.value as 'stop1'] : null))
const stops = computed(() => functionOf(ask.value?.function ?? '')?.endsMotion ?? false)

const plan = ref<Schemas['GuardPlan'] | null>(null)
const trial = ref<Schemas['Stopped'] | null>(null)
let question = 0
/* the plan is asked for with every change; a trial belongs to the document that it was made of */
watch([() => machine.answer, ask], async () => {
  const mine = ++question
  const wanted = ask.value
  if (!wanted || !stops.value || !guard.value.fitted) {
    plan.value = null
    return
  }
  const answer = await machine.asked((document, number) => machine.byKey(document, (asked) => api.guardPlan(asked, number, wanted)))
  if (mine === question && answer !== undefined) plan.value = answer
}, { immediate: true })
watch([() => machine.draft, tab, () => axis.value.name], () => (trial.value = null))

async function fit() {
  const usual = await machine.asked((document, number) => machine.byKey(document, (asked) => api.guardUsual(asked, number)))
  if (usual) machine.set(`${at.value}/guard`, { ...usual, asks: guard.value.asks })
}
</script>

<template>
  <h1>Guard · {{ axis.name }}</h1>
  <p class="disclaimer" role="note">{{ choices.all.guard.note }}</p>
  <template v-if="guard.fitted">
    <template v-if="guard.asks.length">
      <TabRow v-model="tab" :tabs="tabs" label="What requests ask this axis for" />
      <StopDrawing v-if="plan && ask && stops" :plan="plan" :trial="trial" :ask="ask" :watched="stopRules" :path="`${at}/guard/${rules}`"><StopEntries :key="tab" :ask="ask" :rules="rules" /></StopDrawing>
      <StopEntries v-else-if="ask" :key="tab" :ask="ask" :rules="rules" />
      <GuardTrial v-if="ask && stops" v-model="trial" :ask="ask" />
      <GuardEntries v-if="ask" />
    </template>
    <p v-else class="sub">Nothing asks this guard yet. {{ machine.draft!.safetyRequests.length ? 'Choose below what each request asks this axis for.' : 'Add a request below: a door, an emergency stop.' }}</p>
  </template>
  <p v-else class="sub">This axis has no guard: nothing watches how it stops. <v-btn variant="flat" color="primary" size="small" :prepend-icon="mdiPlus" @click="fit">Fit a guard</v-btn></p>
  <GuardLive v-if="bench.state && bench.state.guards.requests.length" />
  <GuardMatrix />
  <StopTable />
  <SafetyRequests />
</template>

<style scoped>
.disclaimer { font-size: 12.5px; color: var(--pencil); border-left: 4px solid var(--warn); padding: 1px 8px; margin: 0 0 6px; }
</style>
