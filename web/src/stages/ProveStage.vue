<script setup lang="ts">
import { mdiContentCopy, mdiDelete, mdiDotsVertical, mdiPlus } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../api/client'
import NumberField from '../components/NumberField.vue'
import TabRow from '../components/TabRow.vue'
import TextEntry from '../components/TextEntry.vue'
import ProofBook from '../components/prove/ProofBook.vue'
import ProofConditions from '../components/prove/ProofConditions.vue'
import ProofFastest from '../components/prove/ProofFastest.vue'
import ProofRecordings from '../components/prove/ProofRecordings.vue'
import ProofExpectations from '../components/prove/ProofExpectations.vue'
import ProofScript from '../components/prove/ProofScript.vue'
import ProofVerdicts from '../components/prove/ProofVerdicts.vue'
import { fixed } from '../lib/numbers'
import { useMachine } from '../stores/machine'
import { useRecordings } from '../stores/recordings'

const machine = useMachine()
const recordings = useRecordings()
const view = ref('verdicts')
const stale = computed(() => machine.run !== null && machine.run.revision !== machine.revision)
const failed = computed(() => machine.run?.verdicts.filter((v) => !v.holds).length ?? 0)
const root = computed(() => `/proofs/${machine.proofIndex}`)
/* which views there are, and which is looked at first, depends on the runs: nothing is shown that would move under the hand when they come */
const known = computed(() => machine.proof && (machine.runKnown || machine.run))
const possible = computed(() => machine.diagnostics.length === 0 && machine.faults.length === 0)
const proofs = computed(() => machine.draft!.proofs)
const tabs = computed(() => ({
  ...(machine.run ? { verdicts: 'Verdicts' } : {}),
  expectations: `Expectations ${machine.proof?.expectations.length ?? 0}`,
  script: `Script ${machine.proof?.script.length ?? 0}`,
  conditions: `Conditions ${machine.proof?.conditions.length ?? 0}`,
  fastest: 'Fastest',
  recordings: `Recordings ${recordings.all.length}`,
  ...(proofs.value.length > 1 ? { all: `All proofs ${proofs.value.length}` } : {}),
}))
/* what is not there cannot be looked at */
const shown = computed({ get: () => (view.value in tabs.value ? view.value : 'expectations'), set: (to: string) => (view.value = to) })
watch(() => machine.id, () => (view.value = 'verdicts'))
const inFile = (name: string) => (machine.draft!.plc.files.length > 1 && name ? ` of ${name}` : '')

async function run(names?: string[]) {
  await machine.prove(names)
  if (!names) view.value = 'verdicts'
}
const all = computed(() => proofs.value.filter((p) => p.on).map((p) => p.name))

/** How a proof stands, in a word. */
function standing(name: string) {
  const last = machine.runOf(name)
  if (!last) return 'not run yet'
  return (last.holds ? 'holds' : 'does not hold') + (last.revision === machine.revision ? '' : ', the machine has changed since')
}
const choices = computed(() => machine.draft!.proofs
  .map((p, i) => ({ value: i, title: p.group ? `${p.group} · ${p.name}` : p.name, props: { subtitle: standing(p.name), 'data-code': i } }))
  .sort((a, b) => a.title.localeCompare(b.title)))

/** A name that no proof has yet. */
function unused(wanted: string) {
  const taken = machine.draft!.proofs.map((p) => p.name.toLowerCase())
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted} ${n}`
    if (!taken.includes(name.toLowerCase())) return name
  }
}
function put(proof: Schemas['Proof']) {
  machine.edit({ op: 'add', path: '/proofs/-', value: proof })
  machine.proofIndex = machine.draft!.proofs.length - 1
  view.value = 'expectations'
}
const begin = () => put({ name: unused('New proof'), group: machine.proof?.group ?? '', purpose: '', on: true, duration: 10, script: [], expectations: [], conditions: [], plan: { kind: 'ONE_AT_A_TIME', runs: 1000, seed: 1, every: 0.1 } })
const copy = () => put({ ...machine.proof!, name: unused(`${machine.proof!.name}, copy`) })
function open(index: number) {
  machine.proofIndex = index
  view.value = 'verdicts'
}
</script>

<template>
  <div class="head">
    <div>
      <div class="which">
        <h1>{{ machine.proof ? `Prove · ${machine.proof.name}` : 'Prove' }}</h1>
        <v-menu v-if="machine.proof">
          <template #activator="{ props }"><v-btn v-bind="props" :icon="mdiDotsVertical" size="x-small" variant="text" aria-label="What can be done with proofs" /></template>
          <v-list density="compact">
            <v-list-item :prepend-icon="mdiPlus" title="New proof" @click="begin" />
            <v-list-item :prepend-icon="mdiContentCopy" title="Copy this proof" @click="copy" />
            <v-list-item :prepend-icon="mdiDelete" title="Remove this proof" @click="machine.edit({ op: 'remove', path: root })" />
          </v-list>
        </v-menu>
      </div>
      <p class="sub" role="status" data-testid="proof-summary">
        <template v-if="!machine.proof">A proof runs the program on the bench and says whether the machine moves as it is meant to.</template>
        <template v-else-if="machine.proving">
          <template v-if="machine.draft!.proofs.length > 1">{{ machine.proving.name }}: </template>
          <template v-if="machine.proving.before">Waiting: {{ machine.proving.before === 1 ? 'another proof runs' : `${machine.proving.before} other proofs run` }} first.</template>
          <template v-else-if="machine.proving.of">Running the program on the bench: {{ fixed(machine.proving.time, 1) }} of {{ fixed(machine.proving.of, 1) }} s <v-progress-linear class="far" :model-value="machine.proving.time" :max="machine.proving.of" color="primary" aria-label="Progress of the proof" /></template>
          <template v-else>Running the program on the bench…</template>
        </template>
        <template v-else-if="!known">Looking for its last run…</template>
        <template v-else-if="!machine.run">Not run yet. Run the proof to see whether the program keeps what is expected.</template>
        <template v-else>
          The program ran for {{ fixed(machine.run.duration, 1) }} s of machine time, computed in {{ fixed(machine.run.computedMillis / 1000, 2) }} s.
          {{ machine.run.verdicts.length - failed }} of {{ machine.run.verdicts.length }} expectations held.
          <template v-if="machine.run.circumstances"><b>Under this condition: {{ machine.run.circumstances }}.</b> <button type="button" class="link" @click="machine.show(null)">Back to the run as the document says</button></template>
          <b v-if="stale">Revision {{ machine.run.revision }} was proven; the machine has changed since.</b>
        </template>
      </p>
    </div>
    <div v-if="!machine.proof" class="row"><v-btn variant="flat" color="primary" @click="begin">New proof</v-btn></div>
    <div v-else class="controls">
     <div class="row">
      <v-btn v-if="machine.proving" @click="machine.proving.cancel.abort()">Cancel</v-btn>
      <template v-else>
        <v-btn variant="flat" color="primary" :disabled="!possible" @click="run()">{{ machine.run ? 'Run again' : 'Run proof' }}</v-btn>
        <v-btn v-if="proofs.length > 1" :disabled="!possible || all.length === 0" @click="run(all)">Run all {{ all.length }}</v-btn>
      </template>
     </div>
     <v-select v-if="proofs.length > 1" v-model="machine.proofIndex" class="snug proofs" aria-label="Proof" :items="choices" :menu-props="{ contentClass: 'small-list' }" />
    </div>
  </div>
  <div v-if="known" class="tabbed">
    <TabRow v-model="shown" class="views" :tabs="tabs" label="Parts of the proof" />
  </div>
  <p v-if="machine.run?.stopped" class="stopped" role="alert">The program was stopped in line {{ machine.run.stoppedLine }}{{ inFile(machine.run.stoppedFile) }}: {{ machine.run.stopped }}</p>

  <template v-if="machine.proof && known">
    <ProofBook v-if="shown === 'all'" :possible="possible" @open="open" @run="run" />
    <ProofVerdicts v-else-if="shown === 'verdicts'" />
    <ProofRecordings v-else-if="shown === 'recordings'" />
    <ProofFastest v-else-if="shown === 'fastest'" :possible="possible" />
    <ProofConditions v-else-if="shown === 'conditions'" :possible="possible" @opened="view = 'verdicts'" />
    <template v-else>
      <div class="inline names">
        <span class="inline">Name <TextEntry class="named" :value="machine.proof.name" maxlength="200" aria-label="Name of the proof" @enter="machine.set(root + '/name', $event.trim())" /></span>
        <span class="inline">Group <TextEntry class="grouped" :value="machine.proof.group" maxlength="80" aria-label="Group of the proof" placeholder="none" @enter="machine.set(root + '/group', $event.trim())" /></span>
        <span class="inline">The program runs for <NumberField hide-label :path="root + '/duration'" label="Duration" :value="machine.proof.duration" unit="s" /></span>
        <span class="inline purpose">Purpose <TextEntry :value="machine.proof.purpose" maxlength="1000" aria-label="Purpose of the proof" placeholder="what it is to show" @enter="machine.set(root + '/purpose', $event.trim())" /></span>
      </div>
      <ProofScript v-if="shown === 'script'" />
      <ProofExpectations v-else />
    </template>
  </template>
</template>

<style scoped>
.far { display: inline-block; width: 140px; vertical-align: middle; }
.head { display: flex; justify-content: space-between; gap: 12px; }
.row { display: flex; gap: 8px; align-items: flex-start; margin-top: 4px; }
.inline { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
.which { display: flex; align-items: center; gap: 4px; }
.tabbed { display: flex; align-items: center; gap: 12px; margin-bottom: 8px; }
.views { flex: 1; min-width: 0; }
.controls { flex: none; width: 250px; } .controls .row { justify-content: flex-end; }
.proofs { margin-top: 6px; }
.names { margin-bottom: 8px; }
.named { width: 260px; } .grouped { width: 130px; }
.purpose { flex: 1 1 100%; } .purpose > :last-child { flex: 1; }
.stopped { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; }
</style>
