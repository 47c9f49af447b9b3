<script setup lang="ts">
import { computed, ref } from 'vue'
import ProgramEditor from '../components/ProgramEditor.vue'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const bench = useBench()
const editor = ref<InstanceType<typeof ProgramEditor> | null>(null)
const running = computed(() => bench.state?.program === 'program' && !bench.behind)
const line = computed(() => (running.value ? (bench.state?.fault?.line ?? bench.state?.line ?? 0) : 0))
</script>

<template>
  <div class="program">
    <div>
      <h1>Program</h1>
      <p class="sub">Structured Text, checked as you type. While the bench runs it, green marks the lines of the last cycle, amber the one reached last.</p>
      <div class="row">
        <v-btn variant="flat" color="primary" :disabled="machine.diagnostics.length > 0" @click="bench.start('PROGRAM', true)">Run program</v-btn>
        <v-btn :disabled="!bench.state" @click="bench.order(bench.state?.running ? 'hold' : 'run')">{{ bench.state?.running ? 'Hold' : 'Go on' }}</v-btn>
        <v-btn :disabled="machine.diagnostics.length > 0" @click="bench.oneCycle()">One cycle</v-btn>
        <span v-if="running" class="sub" role="status">in line {{ line }}</span>
      </div>
    </div>
    <ProgramEditor ref="editor" :model-value="machine.draft!.plc.files[0].source" :diagnostics="machine.diagnostics" :marked="line" :ran="running ? bench.state?.lines : []" label="Program, Structured Text" @update:model-value="machine.set('/plc/files/0/source', $event)" />
    <div v-if="bench.state?.fault && running" class="faults" role="alert">
      <button type="button" class="link" @click="editor?.goTo(bench.state!.fault!.line)">Line {{ bench.state.fault.line }}</button>: {{ bench.state.fault.message }} The task stopped and the axes made a quick stop. Mend the line and run again.
    </div>
    <ul v-if="machine.diagnostics.length" class="faults" aria-label="Faults of the program">
      <li v-for="(d, i) in machine.diagnostics.slice(0, 6)" :key="i"><button type="button" class="link" @click="editor?.goTo(d.line)">Line {{ d.line }}, column {{ d.column }}</button>: {{ d.message }}</li>
    </ul>
  </div>
</template>

<style scoped>
.program { display: grid; grid-template-rows: auto minmax(0, 1fr) auto; gap: 8px; height: calc(100vh - 46px - 42px - 168px - 24px); }
.row { display: flex; gap: 8px; align-items: center; }
.row .sub { margin: 0; }
.faults { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; margin: 0; font-size: 13px; list-style: none; max-height: 96px; overflow: auto; }
</style>
