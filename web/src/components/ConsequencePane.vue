<script setup lang="ts">
import { computed } from 'vue'
import { stageOfField, useMachine } from '../stores/machine'
import { useBench } from '../stores/bench'
import { useBus } from '../stores/bus'
import { fixed, grouped } from '../lib/numbers'
import FigureList from './FigureList.vue'
import FindingCard from './FindingCard.vue'
import ValueFollower from './ValueFollower.vue'

const props = defineProps<{ stage: string }>()
const machine = useMachine()
const bench = useBench()
const bus = useBus()
const advice = computed(() => machine.advice(props.stage))
const refused = computed(() => machine.faults.filter((f) => stageOfField(f.field) === props.stage))
const elsewhere = computed(() => machine.faults.filter((f) => stageOfField(f.field) !== props.stage))
const figures = computed(() => machine.run?.figures ?? null)
</script>

<template>
  <aside class="side pane" aria-label="What this gives">
    <h2>What this gives</h2>
    <div v-for="fault in refused" :key="fault.field" class="refusal" data-testid="refusal">
      <b>{{ fault.label }} {{ fault.value }} is refused.</b><br />Allowed: {{ fault.allowed }}; {{ fault.mend }}. The machine stays as it was saved; undo takes the entry back.
    </div>
    <p v-if="elsewhere.length" class="refusal">
      {{ elsewhere.length === 1 ? 'One entry' : elsewhere.length + ' entries' }} of another stage refused: <router-link :to="'/' + stageOfField(elsewhere[0].field)">{{ elsewhere[0].label }}</router-link>.
    </p>
    <ValueFollower v-if="stage === 'map' && bus.family && refused.length === 0" />
    <template v-if="advice && refused.length === 0">
      <FindingCard v-for="finding in advice.findings.filter((f) => f.severity !== 'GOOD')" :key="finding.title" :finding="finding" />
      <FigureList :figures="advice.figures" />
      <FindingCard v-for="finding in advice.findings.filter((f) => f.severity === 'GOOD')" :key="finding.title" :finding="finding" />
    </template>
    <template v-if="stage === 'program'">
      <dl class="values">
        <div><dt>Task interval</dt><dd class="mono">{{ fixed((machine.draft?.plc.taskIntervalMicros ?? 0) / 1000, 3) }} ms</dd></div>
        <div><dt>Budget of one cycle</dt><dd class="mono">{{ grouped(machine.draft?.plc.instructionBudget ?? 0) }} statements</dd></div>
        <div v-if="bench.state"><dt>Last cycle</dt><dd class="mono">{{ bench.state.statements }} statements</dd></div>
      </dl>
      <h2 class="gap">Values</h2>
      <p v-if="bench.state?.program !== 'program'" class="empty">Run the program and its variables stand here.</p>
      <table v-else class="plain">
        <tbody>
          <tr v-for="value in bench.state.values" :key="value.name"><td>{{ value.name }}</td><td class="mono end" :title="value.type">{{ value.value }}</td></tr>
        </tbody>
      </table>
    </template>
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
.refusal { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; margin: 8px 0; font-size: 13px; }
.refusal a { color: var(--cmd); font-weight: 700; }
.values { margin: 0; font-size: 13px; }
.values div { display: flex; justify-content: space-between; border-bottom: 1px dotted var(--hair); padding: 3px 0; }
.values dd { margin: 0; font-weight: 600; }
.gap { margin-top: 12px; }
.end { text-align: right; white-space: nowrap; }
td { overflow-wrap: anywhere; }
</style>
