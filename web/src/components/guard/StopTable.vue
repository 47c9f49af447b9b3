<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { fixed, plain } from '../../lib/numbers'
import { useProblem } from '../../lib/problems'
import { placeOf } from '../../router'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import PickOne from '../PickOne.vue'
import ProblemNote from '../ProblemNote.vue'

/** Every stop of the machine at its worst moment, one after the other: how long and how far each axis goes on. */
const machine = useMachine()
const choices = useChoices()
const { problem, tried } = useProblem()
const proofs = computed(() => machine.draft!.proofs.map((p) => p.name))
const chosen = ref('')
const proof = computed(() => (proofs.value.includes(chosen.value) ? chosen.value : (proofs.value[0] ?? '')))
const functionOf = (code: string) => choices.all.guard.functions.find((f) => f.code === code)
/** What is stopped: each axis for each request that asks it for a stop that brings it to rest. */
const stops = computed(() => machine.draft!.axes.flatMap((a, number) => (a.guard.fitted ? a.guard.asks.filter((ask) => functionOf(ask.function)?.endsMotion).map((ask) => ({ axis: a.name, unit: a.unit.symbol, number, ask })) : [])))
const results = ref<Schemas['Stopped'][]>([])
const at = ref(-1)
const short = (value: number) => plain(Number(value.toPrecision(4)))
let work = new AbortController()
/* what was found belongs to the document that it was made of */
watch([() => machine.draft, proof], () => { cancel(); results.value = [] })

async function all() {
  work = new AbortController()
  const mine = work
  results.value = []
  at.value = 0
  const document = await machine.asked(async (settled) => settled)
  for (const [i, stop] of document ? stops.value.entries() : []) {
    at.value = i
    const answer = await tried(() => machine.byKey(document!, (asked) => api.guardStop(asked, stop.number, stop.ask, proof.value, mine.signal)))
    if (mine.signal.aborted) {
      problem.value = null
      return
    }
    if (!answer) break
    results.value.push(answer)
  }
  if (mine === work) at.value = -1
}
function cancel() {
  work.abort()
  at.value = -1
}
onBeforeUnmount(cancel)
</script>

<template>
  <section v-if="stops.length" aria-label="Every stop at its worst moment" data-testid="every-stop">
    <h2>Every stop at its worst moment</h2>
    <div class="line">
      <v-btn v-if="at >= 0" size="small" @click="cancel">Cancel</v-btn>
      <v-btn v-else size="small" variant="outlined" :disabled="!proofs.length || machine.faults.length > 0" @click="all">Try all {{ stops.length }} stops</v-btn>
      <span v-if="proofs.length">of <PickOne sentence label="Proof whose program runs, for every stop" :value="proof" :options="proofs" @pick="(name) => (chosen = name)" /></span>
      <span v-else class="sub">A proof says what the program does: add one in the stage Prove.</span>
      <span v-if="at >= 0" class="sub" role="status">{{ at + 1 }} of {{ stops.length }}: {{ stops[at]?.axis }}, {{ stops[at]?.ask.request }}</span>
    </div>
    <v-progress-linear v-if="at >= 0" :model-value="(100 * at) / stops.length" color="primary" aria-label="Stops tried" />
    <ProblemNote v-if="problem" :problem="problem" @close="problem = null" />
    <v-table v-if="results.length" class="plain">
      <thead><tr><th>Axis</th><th>Stop</th><th class="right">Longest time, s</th><th class="right">asked at, s</th><th class="right">Way at the worst moment</th><th class="right">asked at, s</th><th class="right">Load</th><th>What came of it</th></tr></thead>
      <tbody>
        <tr v-for="(r, i) in results" :key="i">
          <th scope="row"><router-link class="link" :to="placeOf('guard', stops[i]!.axis)">{{ stops[i]!.axis }}</router-link></th>
          <td>{{ stops[i]!.ask.request }}: {{ functionOf(stops[i]!.ask.function)?.words }}</td>
          <template v-if="r.moment == null"><td colspan="4" class="sub">does not move in this program</td></template>
          <template v-else>
            <td class="right num">{{ r.longest == null ? '–' : fixed(r.longest, 3) }}</td><td class="right num">{{ fixed(r.longestAt, 3) }}</td>
            <td class="right num">{{ short(r.distance) }} {{ stops[i]!.unit }}</td><td class="right num">{{ fixed(r.moment, 3) }}</td>
          </template>
          <td class="right num">{{ short(r.load) }} {{ r.loadUnit }}</td>
          <td class="came"><span v-if="r.breachWords" class="refused" :title="r.breachWords">the guard took the torque</span><span v-if="r.moment != null && r.longest == null" class="refused">did not stand within 4 s</span><span v-if="r.sag > 1e-4">fell {{ short(r.sag) }} {{ stops[i]!.unit }}</span><span v-if="r.movedAgain > 0" class="refused">moved by itself afterwards</span><template v-if="r.longest != null && !r.breachWords && !(r.sag > 1e-4) && !(r.movedAgain > 0)">stood</template></td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
h2 { font-size: 15px; margin: 12px 0 2px; }
.line { display: flex; gap: 8px; align-items: center; }
.right { text-align: right; } .num { font-family: 'Atkinson Hyperlegible Mono Variable', monospace; white-space: nowrap; }
.came span + span::before { content: ', '; }
.refused { color: var(--stop); } a.link { color: var(--cmd); }
</style>
