<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { fixed, plain } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { useChoices } from '../../stores/choices'
import PickOne from '../PickOne.vue'
import ProblemNote from '../ProblemNote.vue'

/** The stop at the worst moment of a program, on a bench of its own. */
const props = defineProps<{ ask: Schemas['Ask'] }>()
const result = defineModel<Schemas['Stopped'] | null>({ required: true })
const { machine, unit } = useAxis()
const choices = useChoices()
const { problem, tried } = useProblem()
const proofs = computed(() => machine.draft!.proofs.map((p) => p.name))
const chosen = ref('')
const proof = computed(() => (proofs.value.includes(chosen.value) ? chosen.value : (proofs.value[0] ?? '')))
const protection = computed(() => {
  const kind = machine.draft!.safetyRequests.find((r) => r.name === props.ask.request)?.protection.kind
  return `the ${choices.all.guard.protections.find((p) => p.code === kind)?.words ?? 'protection'}`
})
const running = ref(false)
const short = (value: number) => plain(Number(value.toPrecision(4)))
let work = new AbortController()

async function attempt() {
  running.value = true
  work = new AbortController()
  const mine = work
  try {
    const answer = await tried(() => machine.asked((document, number) => machine.byKey(document, (asked) => api.guardStop(asked, number, props.ask, proof.value, mine.signal))))
    if (mine === work && answer) result.value = answer
  } finally {
    if (mine === work) running.value = false
  }
}
function cancel() {
  work.abort()
  running.value = false
}
</script>

<template>
  <section class="trial" aria-label="On the bench">
    <div class="line">
      <v-btn v-if="running" size="small" @click="cancel">Cancel</v-btn>
      <v-btn v-else size="small" variant="flat" color="primary" :disabled="!proofs.length || machine.faults.length > 0" @click="attempt">Try it at the worst moment</v-btn>
      <span v-if="proofs.length">of <PickOne sentence label="Proof whose program runs" :value="proof" :options="proofs" @pick="(name) => { chosen = name; result = null }" /></span>
      <span v-else>A proof says what the program does: add one in the stage Prove.</span>
    </div>
    <v-progress-linear v-if="running" indeterminate color="primary" aria-label="Stopping at many moments" />
    <ProblemNote v-if="problem" :problem="problem" data-testid="stop-refused" @close="problem = null" />
    <p v-if="result && result.moment == null" class="sub" role="status">The axis does not move in this program: choose another proof.</p>
    <div v-else-if="result" class="numbers" role="status" data-testid="stopped">
      <p><b>{{ result.stoppingTime == null ? 'It does not stand within 4 s' : `Stands after ${fixed(result.stoppingTime, 3)} s` }}</b>, {{ short(result.distance) }} {{ unit }} farther: asked at {{ fixed(result.moment!, 3) }} s, at {{ short(result.speed) }} {{ unit }}/s with {{ short(result.load) }} {{ result.loadUnit }}. Worst of {{ result.runs }} moments<template v-if="result.longest != null && result.stoppingTime != null && result.longest > result.stoppingTime">; longest {{ fixed(result.longest, 3) }} s, asked at {{ fixed(result.longestAt, 3) }} s</template>.</p>
      <p v-if="result.away != null">With its longest time {{ protection }} must stand <b>{{ fixed(result.away, 0) }} mm</b> away: {{ result.awayWords }}.</p>
      <p v-if="result.breachWords" class="refused">The guard took the torque. {{ result.breachWords }}</p>
      <p v-if="result.sag > 1e-4">Afterwards the load fell by <b>{{ short(result.sag) }} {{ unit }}</b>.</p>
      <p v-if="result.movedAgain > 0" class="refused"><b>It moved by itself</b>, {{ short(result.movedAgain) }} {{ unit }} within 1.5 s, once the request had gone and was acknowledged: the program orders motion again without being asked to.</p>
      <p class="sub">Then the program sees the axis {{ result.state.toLowerCase() }}, {{ result.referenced ? 'still referenced' : 'no longer referenced' }}. {{ result.lost.length ? `Lost: ${result.lost.join(', ')}; it must be ordered anew.` : 'Nothing was lost that ran.' }} The guard: {{ result.phases.map((p) => `${fixed(1000 * p.time, 0)} ms ${p.words}`).join(', ') }}.</p>
    </div>
  </section>
</template>

<style scoped>
.trial { margin: 6px 0; } .line { display: flex; gap: 8px; align-items: center; }
.numbers { font-size: 13.5px; } .numbers p { margin: 3px 0; } .refused { color: var(--stop); }
</style>
