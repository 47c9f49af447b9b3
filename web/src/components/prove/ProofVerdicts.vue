<script setup lang="ts">
import { computed } from 'vue'
import { fixed } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'
import { useProof } from '../../stores/proof'
import ProgramEditor from '../ProgramEditor.vue'

/** The verdicts of the chosen proof's newest run; of the chosen one the line of the program and why. */
const machine = useMachine()
const proof = useProof()
const stale = computed(() => machine.run !== null && machine.run.revision !== machine.revision)
const verdict = computed(() => proof.verdict)
const bar = (room: number | null | undefined) => (room == null ? 100 : Math.min(100, Math.max(2, (1 - room) * (room < 0 ? 100 / (1 - room) : 100))))

/** Which file of the program has this name; the first where none has, as in runs of before there were several. */
const fileOf = (name: string) => Math.max(0, machine.draft!.plc.files.findIndex((f) => f.name === name))
/** The file to look at beside a verdict. */
const shownFile = computed(() => fileOf(verdict.value?.order?.file ?? machine.run?.stoppedFile ?? ''))
const inFile = (name: string) => (machine.draft!.plc.files.length > 1 && name ? ` of ${name}` : '')

async function mend() {
  const m = verdict.value?.mend
  if (!m) return
  const at = fileOf(m.file)
  const lines = machine.draft!.plc.files[at]!.source.split('\n')
  if (!lines[m.line - 1]?.includes(m.find)) return
  lines[m.line - 1] = lines[m.line - 1]!.replace(m.find, m.replace)
  machine.set(`/plc/files/${at}/source`, lines.join('\n'))
  await machine.prove()
}
const mendable = computed(() => {
  const m = verdict.value?.mend
  return Boolean(m && machine.draft!.plc.files[fileOf(m.file)]!.source.split('\n')[m.line - 1]?.includes(m.find))
})
</script>

<template>
  <template v-if="machine.run">
    <v-table class="plain verdicts" :class="{ stale }">
      <thead><tr><th>What must be true</th><th>Limit</th><th>Measured</th><th>Room left</th><th>Where</th></tr></thead>
      <tbody>
        <tr v-for="(v, i) in machine.run.verdicts" :key="i" :class="{ failed: !v.holds, on: i === proof.index }" data-testid="verdict" @click="proof.chosen = i">
          <td><button type="button" class="pick" :aria-pressed="i === proof.index" @click.stop="proof.chosen = i"><span aria-hidden="true">{{ v.holds ? '✓' : '✗' }}</span><span class="visually-hidden">{{ v.holds ? 'holds: ' : 'does not hold: ' }}</span> {{ v.sentence }}</button></td>
          <td class="mono">{{ v.limit == null ? '–' : `${fixed(v.limit, v.unit === 'errors' ? 0 : 3)} ${v.unit}` }}</td>
          <td class="mono"><b>{{ v.measured == null ? (v.limit == null ? '–' : 'never') : fixed(v.measured, v.unit === 'errors' ? 0 : 3) }}</b> {{ v.measured == null ? '' : v.unit }}</td>
          <td>
            <span v-if="v.room != null || v.limit != null" class="bar" role="img" :aria-label="v.room == null ? 'no measure' : `${fixed(v.room * 100, 0)} % of the limit left`">
              <span :class="{ over: !v.holds }" :style="{ width: bar(v.room) + '%' }" />
              <i :style="{ left: v.room != null && v.room < 0 ? 100 / (1 - v.room) + '%' : '100%' }" />
            </span>
            <span v-if="v.margin != null" class="mono margin">{{ fixed(v.margin, 3) }} {{ v.unit }}</span><template v-else-if="v.limit == null">–</template>
          </td>
          <td class="mono">{{ fixed(v.time, 3) }} s</td>
        </tr>
      </tbody>
    </v-table>
    <div v-if="verdict" class="below">
      <ProgramEditor class="code" readonly :key="shownFile" :model-value="machine.draft!.plc.files[shownFile]!.source" :diagnostics="[]" :marked="stale ? 0 : (verdict.order?.line ?? machine.run.stoppedLine)" label="Program line responsible" />
      <div class="sheet why">
        <h2>{{ verdict.holds ? 'What was in force there' : 'Why it does not hold' }}</h2>
        <p v-if="verdict.cause">{{ verdict.cause }}</p>
        <p v-if="verdict.order" class="sub">In force at {{ fixed(verdict.time, 3) }} s: {{ verdict.order.words }}, {{ verdict.order.block ? `by ${verdict.order.block} ` : '' }}in line {{ verdict.order.line }}{{ inFile(verdict.order.file) }}.</p>
        <p v-else-if="!verdict.cause" class="sub">No order of the program was in force.</p>
        <p v-if="machine.run.happened.length" class="sub">Script: {{ machine.run.happened.slice(0, 6).map((h) => `at ${fixed(h.time, 3)} s ${h.words}`).join('; ') }}{{ machine.run.happened.length > 6 ? `; and ${machine.run.happened.length - 6} more` : '' }}.</p>
        <p v-if="verdict.mend && mendable" class="mend">{{ verdict.mend.words }} <button type="button" class="link" @click="mend">Try it</button></p>
      </div>
    </div>
  </template>
</template>

<style scoped>
.verdicts tr.failed { background: var(--stop-wash); }
.verdicts tr.on td:first-child { box-shadow: inset 4px 0 var(--ink); }
.verdicts.stale { opacity: 0.75; }
.pick { border: 0; background: none; font: inherit; color: inherit; text-align: left; cursor: pointer; padding: 2px 4px; }
td.mono { white-space: nowrap; }
.bar { position: relative; display: block; width: 84px; height: 12px; background: var(--hair); }
.bar span { position: absolute; inset: 0 auto 0 0; background: var(--ok); }
.bar span.over { background: var(--stop); }
.margin { font-size: 12px; white-space: nowrap; }
.bar i { position: absolute; top: -3px; bottom: -3px; width: 2px; background: var(--ink); }
.below { display: grid; grid-template-columns: 1.15fr 1fr; gap: 10px; margin-top: 8px; height: 216px; }
.code { height: 216px; min-width: 0; }
.why { padding: 6px 10px; overflow: auto; font-size: 13px; }
.why p { margin: 4px 0; }
.mend { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; }
</style>
