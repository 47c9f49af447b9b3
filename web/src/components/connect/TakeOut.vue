<script setup lang="ts">
import ProblemNote from '../ProblemNote.vue'
import { useProblem } from '../../lib/problems'
import { api, type Machine } from '../../api/client'
import { download } from '../../lib/download'
import { useMachine } from '../../stores/machine'

/** The result in open formats, and a machine file back in. */
const machine = useMachine()
const { problem, tried } = useProblem()

async function save(work: (document: Machine) => Promise<{ name: string; text: string }>) {
  problem.value = null
  const file = await machine.ordered(work)
  if (file) download(file)
}

async function bring(file: File | undefined) {
  if (!file) return
  const read = await tried(() => api.readMachine(file))
  if (read) machine.edit(...(['name', 'bus', 'plc', 'axes', 'proofs'] as const).map((part) => ({ op: 'replace' as const, path: `/${part}`, value: read[part] })))
}
</script>

<template>
  <section aria-label="Take out">
    <ProblemNote v-if="problem" :problem="problem" data-testid="file-refused" @close="problem = null" />
    <v-table class="plain">
      <thead><tr><th>What</th><th>Format</th><th>Take out</th></tr></thead>
      <tbody>
        <tr v-if="machine.draft!.bus.family === 'ETHERCAT'"><td>Network for an EtherCAT master</td><td>ENI, ETG.2100</td><td><button type="button" class="link" @click="save((document) => api.eni(document))">network.eni.xml</button></td></tr>
        <template v-if="machine.draft!.bus.family === 'CANOPEN'"><tr v-for="(a, i) in machine.draft!.axes" :key="a.name"><td>Configuration of {{ a.name }}</td><td>DCF, CiA 306</td><td><button type="button" class="link" @click="save((document) => api.dcf(document, i))">{{ a.name }}.dcf</button></td></tr></template>
        <tr><td>Bound tags with addresses</td><td>CSV, RFC 4180</td><td><button type="button" class="link" @click="save((document) => api.exportTags(document, 'CSV'))">tags.csv</button></td></tr>
        <tr><td>Bound tags with addresses</td><td>XML, IEC 61131-10</td><td><button type="button" class="link" @click="save((document) => api.exportTags(document, 'XML'))">tags.xml</button></td></tr>
        <tr><td>Bound tags as structures</td><td>Structured Text, IEC 61131-3</td><td><button type="button" class="link" @click="save((document) => api.exportTags(document, 'STRUCTURED_TEXT'))">tags.st</button></td></tr>
        <tr><td>The whole machine, as saved</td><td>JSON, by the schema beside it</td><td><a class="link" :href="`/api/machines/${machine.id}/file`" download>machine.json</a> · <a class="link" href="/api/machines/schema" download>machine.schema.json</a></td></tr>
      </tbody>
    </v-table>
    <v-file-input class="snug file" :model-value="null" accept=".json" placeholder="Bring a machine file in…" aria-label="Machine file" @update:model-value="(file) => bring(file as File)" /><p class="bring">It takes the place of this machine; undo brings this one back.</p>
  </section>
</template>

<style scoped>
a.link { color: var(--cmd); font-weight: 700; } .bring { font-size: 13px; color: var(--pencil); margin-top: 10px; }
.refused { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; font-size: 13px; }
</style>
