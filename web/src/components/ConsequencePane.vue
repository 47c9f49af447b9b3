<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { computed } from 'vue'
import { stageOfField, useMachine } from '../stores/machine'
import { placeOf } from '../router'
import { useBus } from '../stores/bus'
import { useLayout } from '../stores/layout'
import { fixed } from '../lib/numbers'
import FigureList from './FigureList.vue'
import FindingCard from './FindingCard.vue'
import ProgramSide from './program/ProgramSide.vue'
import ValueFollower from './ValueFollower.vue'

const props = defineProps<{ stage: string }>()
const machine = useMachine()
const bus = useBus()
const layout = useLayout()
const advice = computed(() => machine.advice(props.stage))
const refused = computed(() => machine.faults.filter((f) => stageOfField(f.field) === props.stage))
const elsewhere = computed(() => machine.faults.filter((f) => stageOfField(f.field) !== props.stage))
const figures = computed(() => machine.run?.figures ?? null)
const wrong = computed(() => {
  const count = (severity: string) => advice.value?.findings.filter((f) => f.severity === severity).length ?? 0
  return { faults: count('FAULT'), warnings: count('WARNING') }
})
</script>

<template>
  <aside v-if="layout.sideFolded" class="side folded" aria-label="What this gives">
    <v-btn :icon="mdiChevronLeft" size="x-small" variant="text" aria-label="Show the consequences" aria-expanded="false" title="Show what this gives" @click="layout.sideFolded = false" />
    <span class="upright">What this gives</span>
    <b v-if="wrong.faults + refused.length" class="count fault" :title="`${wrong.faults + refused.length} faults`">{{ wrong.faults + refused.length }}</b>
    <b v-if="wrong.warnings" class="count" :title="`${wrong.warnings} warnings`">{{ wrong.warnings }}</b>
  </aside>
  <aside v-else class="side pane" aria-label="What this gives">
    <div class="title"><h2>What this gives</h2><v-btn :icon="mdiChevronRight" size="x-small" variant="text" aria-label="Fold the consequences" aria-expanded="true" title="Fold" @click="layout.sideFolded = true" /></div>
    <div v-for="fault in refused" :key="fault.field" class="refusal" data-testid="refusal">
      <b>{{ fault.label }} {{ fault.value }} is refused.</b><br />Allowed: {{ fault.allowed }}; {{ fault.mend }}. The machine stays as it was saved; undo takes the entry back.
    </div>
    <p v-if="elsewhere.length" class="refusal">
      {{ elsewhere.length === 1 ? 'One entry' : elsewhere.length + ' entries' }} of another stage refused: <router-link :to="placeOf(stageOfField(elsewhere[0].field))">{{ elsewhere[0].label }}</router-link>.
    </p>
    <ValueFollower v-if="stage === 'map' && bus.family && refused.length === 0" />
    <template v-if="advice && refused.length === 0">
      <FindingCard v-for="finding in advice.findings.filter((f) => f.severity !== 'GOOD')" :key="finding.title" :finding="finding" />
      <FigureList :figures="advice.figures" />
      <FindingCard v-for="finding in advice.findings.filter((f) => f.severity === 'GOOD')" :key="finding.title" :finding="finding" />
    </template>
    <ProgramSide v-if="stage === 'program'" />
    <template v-if="stage === 'prove'">
      <p v-if="!figures" class="empty">Run the proof and the motion commanded stands here against the motion made.</p>
      <dl v-else class="values">
        <div title="Moves ordered by the program"><dt>Moves commanded</dt><dd class="mono">{{ figures.moves }}</dd></div>
        <div title="Sum of the planned times"><dt>Theory, all moves</dt><dd class="mono">{{ fixed(figures.theory, 2) }} s</dd></div>
        <div title="Share of the run in which the setpoint stood"><dt>Standing</dt><dd class="mono">{{ fixed(figures.standing, 2) }} s</dd></div>
        <div title="Highest torque ÷ peak torque of the motor"><dt>Peak torque</dt><dd class="mono">{{ fixed(figures.peakTorque * 100, 0) }} %</dd></div>
        <div title="√(mean of torque²) ÷ rated torque of the motor"><dt>RMS torque</dt><dd class="mono">{{ fixed(figures.rmsTorque * 100, 0) }} %</dd></div>
      </dl>
    </template>
  </aside>
</template>

<style scoped>
.side { width: 292px; }
.title { display: flex; justify-content: space-between; align-items: center; }
.folded { width: 34px; padding: 8px 2px; display: flex; flex-direction: column; align-items: center; gap: 8px; }
.upright { writing-mode: vertical-rl; font-weight: 700; }
.count { border-radius: 3px; padding: 0 5px; font-size: 11px; color: var(--sheet); background: var(--warn); }
.count.fault { background: var(--stop); }
.refusal { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; margin: 8px 0; font-size: 13px; }
.refusal a { color: var(--cmd); font-weight: 700; }
.values { margin: 0; font-size: 13px; }
.values div { display: flex; justify-content: space-between; border-bottom: 1px dotted var(--hair); padding: 3px 0; }
.values dd { margin: 0; font-weight: 600; }
</style>
