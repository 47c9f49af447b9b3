<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { useMaster } from '../../lib/master'
import { fixed, parsed } from '../../lib/numbers'
import PickOne from '../PickOne.vue'
import TracePlot, { type Line } from '../TracePlot.vue'

/** A trial on a bench of its own: the master runs, the axis is tied to it, trimmed and let go. Made anew for every change. */
const { machine, axis, unit } = useAxis()
const f = computed(() => axis.value.following)
const { encoder, unit: masterUnit, usualSpeed } = useMaster()
const masterName = computed(() => (encoder.value ? 'the master' : f.value.master))
const usual = computed(() => String(encoder.value ? f.value.encoder.speed : usualSpeed.value))
const running = ref('running')
const speedText = ref('')
const speed = computed(() => (speedText.value.trim() === '' ? undefined : (parsed(speedText.value) ?? null)))
const result = ref<Schemas['Followed'] | null>(null)
/** Why the speed that was typed cannot be tried. */
const refused = ref('')
let question = 0

async function attempt() {
  const mine = ++question
  refused.value = ''
  if (f.value.source === 'NONE' || speed.value === null) {
    result.value = null
    if (speed.value === null) refused.value = 'Enter a number, or nothing for the default speed.'
    return
  }
  const answer = await machine.asked((document, number, wanted) => machine.byKey(document, (asked) => api.followTrial(asked, number, speed.value ?? undefined, running.value === 'running', wanted).catch((error) => {
    if (error?.status !== 422 || wanted.aborted) throw error
    refused.value = error.faults[0] ? `${error.faults[0].value} is refused. Allowed: ${error.faults[0].allowed}.` : error.detail
    return null
  })))
  if (mine === question && answer !== undefined) result.value = answer
}
watch([() => machine.answer, running, speed], attempt, { immediate: true })
watch([() => axis.value.name, () => f.value.master], () => {
  result.value = null
  speedText.value = ''
})

const lines = computed<Line[]>(() => {
  const r = result.value
  if (!r || r.refusal) return []
  const phase: Line[] = r.predicted.length ? [{ label: 'phase, predicted', unit: unit.value, colour: '--cmd', dashed: true, values: r.predicted, scale: 'phase' }] : []
  return [
    { label: 'master × ratio', unit: unit.value + '/s', colour: '--ref', values: r.masterSpeed, scale: 'speed' },
    { label: 'follower', unit: unit.value + '/s', colour: '--act', values: r.followerSpeed, scale: 'speed' },
    ...phase,
    { label: 'phase, measured', unit: unit.value, colour: '--ink', values: r.phase, scale: 'phase' },
  ]
})
</script>

<template>
  <section class="sheet trial" aria-label="A trial on the bench">
    <div class="keys">
      <span class="tried">On a bench of its own, tied while {{ masterName }} is
        <PickOne label="Master when tied" :value="running" :options="[{ code: 'running', words: 'running' }, { code: 'standing', words: 'standing' }]" @pick="(code) => (running = code)" /> at
        <v-text-field v-model="speedText" class="snug number typed" aria-label="Speed of the master" :placeholder="usual" :suffix="`${masterUnit}/s`" :error="refused !== ''" /></span>
      <b class="ref">— {{ masterName }} × ratio</b> <b class="act">— {{ axis.name }}</b> <span>{{ unit }}/s ·</span> <b v-if="result?.predicted.length" class="cmd">╌ phase, predicted</b> <b>— phase, measured</b> <span>{{ unit }}</span>
    </div>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
    <p v-else-if="result?.refusal" class="refused" role="alert">{{ result.refusal }}</p>
    <div v-else class="plot"><TracePlot v-if="result" :time="result.time" :lines="lines" label="Speeds of master and follower, and the phase, in a trial" /></div>
    <p v-if="result && !result.refusal && !refused" class="numbers" data-testid="follow-trial">
      {{ result.locked == null ? 'never locked' : `locked after ${fixed(result.locked - result.engaged, 3)} s` }}<template v-if="result.lost"> · lost {{ fixed(result.lost, 2) }} {{ unit }}</template>
      · gap {{ fixed(result.gap, 3) }} {{ unit }}<template v-if="result.worst != null"> · worst phase {{ fixed(result.worst, 3) }} {{ unit }}</template><template v-if="result.trimmed != null"> · trimmed by {{ fixed(result.trimmedBy, 2) }} {{ unit }}</template>
      · fastest {{ fixed(result.fastest, 1) }} {{ unit }}/s
    </p>
  </section>
</template>

<style scoped>
.trial { padding: 5px 10px; margin: 6px 0; }
.keys { font-size: 12.5px; color: var(--pencil); display: flex; flex-wrap: wrap; gap: 2px 10px; align-items: center; white-space: nowrap; }
.tried { display: inline-flex; gap: 6px; align-items: center; }
.typed { width: 104px; }
.plot { height: 170px; }
.numbers { margin: 2px 0; font-size: 13px; }
.refused { color: var(--stop); margin: 4px 0; }
.ref { color: var(--ref); } .act { color: var(--act); } .cmd { color: var(--cmd); }
</style>
