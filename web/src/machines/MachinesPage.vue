<script setup lang="ts">
import ProblemNote from '../components/ProblemNote.vue'
import { useProblem } from '../lib/problems'
import { mdiContentCopy, mdiDelete, mdiDotsVertical, mdiFileImport, mdiPencil, mdiPlus, mdiRestore } from '@mdi/js'
import { computed, nextTick, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, type MachineState, type Schemas } from '../api/client'
import { moment } from '../lib/times'

type Listed = Schemas['Listed']

const router = useRouter()
const all = ref<Listed[] | null>(null)
const { problem, tried } = useProblem()
const renaming = ref<{ id: number; name: string } | null>(null)
const deleted = ref<Listed | null>(null)
const showDeleted = ref(false)
const file = ref<HTMLInputElement | null>(null)
const kept = computed(() => all.value?.filter((m) => !m.deletedAt) ?? [])
const gone = computed(() => all.value?.filter((m) => m.deletedAt) ?? [])

async function list() {
  const said = problem.value
  all.value = (await tried(api.machines)) ?? all.value
  problem.value ??= said
}
onMounted(list)

async function begin(work: () => Promise<MachineState>) {
  const made = await tried(work)
  if (made) await router.push({ name: 'overview', params: { machine: made.id } })
}

function brought(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  if (chosen) void begin(() => api.createFromFile(chosen))
  input.value = ''
}

async function rename() {
  const wanted = renaming.value
  const machine = kept.value.find((m) => m.id === wanted?.id)
  if (!wanted || !machine) return
  if (wanted.name.trim() === machine.name) {
    renaming.value = null
    return
  }
  /* another page may have gone on: the list says where the machine stands, and what was typed stays */
  if (!(await tried(() => api.renameMachine(machine.id, machine.revision, wanted.name)))) return list()
  renaming.value = null
  await list()
}

async function edit(machine: Listed) {
  renaming.value = { id: machine.id, name: machine.name }
  await nextTick()
  document.getElementById('rename')?.focus()
}

async function copy(machine: Listed) {
  await tried(() => api.copyMachine(machine.id))
  await list()
}

async function remove(machine: Listed) {
  if ((await tried(async () => (await api.deleteMachine(machine.id), true))) === undefined) return
  deleted.value = machine
  await list()
}

async function bringBack(machine: Listed) {
  await tried(() => api.restoreMachine(machine.id))
  if (deleted.value?.id === machine.id) deleted.value = null
  await list()
}

function proof(machine: Listed) {
  const last = machine.lastProof
  if (!last) return { text: 'not run', kind: '' }
  const stale = last.revision === machine.revision ? '' : `, of revision ${last.revision}`
  return last.holds ? { text: `all hold${stale}`, kind: 'good' } : { text: `${last.failed === 0 ? 'stopped' : last.failed === 1 ? '1 does not hold' : `${last.failed} do not hold`}${stale}`, kind: 'bad' }
}
</script>

<template>
  <main class="pane page" aria-label="Machines">
    <header class="head">
      <div>
        <h1>Machines</h1>
        <p class="sub">Kept on this computer. Each has its own revisions and its own bench.</p>
      </div>
      <div class="new">
        <v-btn color="primary" variant="flat" :prepend-icon="mdiPlus" @click="begin(() => api.createMachine('EMPTY'))">New machine</v-btn>
        <v-btn :prepend-icon="mdiFileImport" title="A machine file, as a machine is taken out in the stage Connect" @click="file?.click()">From a file…</v-btn>
        <input ref="file" type="file" accept=".json,application/json" class="visually-hidden" tabindex="-1" aria-label="Machine file" @change="brought" />
        <v-btn title="The cheese-wheel cell: five axes, a program and a proof" @click="begin(() => api.createMachine('DEMO'))">The demo cell</v-btn>
        <v-btn title="The same work and proof; the Shuttle is commanded by control word, mode and target instead of motion blocks" @click="begin(() => api.createMachine('DEMO_BY_WORDS'))">The demo cell by plain words</v-btn>
        <v-btn title="The Brush alone: it follows an encoder on the infeed belt, without the PLC" @click="begin(() => api.createMachine('DEMO_BY_ENCODER'))">The brush on the infeed belt</v-btn>
      </div>
    </header>
    <ProblemNote v-if="problem" :problem="problem" :again="() => { problem = null; void list() }" @close="problem = null" />
    <div v-if="deleted" class="notice calm" role="status">“{{ deleted.name }}” is deleted. <v-btn :prepend-icon="mdiRestore" @click="bringBack(deleted)">Bring it back</v-btn></div>
    <v-table v-if="kept.length" class="sheet" density="compact">
      <thead><tr><th>Machine</th><th class="end">Axes</th><th>Last change</th><th>Last proof</th><th><span class="visually-hidden">Actions</span></th></tr></thead>
      <tbody>
        <tr v-for="m in kept" :key="m.id" data-testid="machine">
          <td>
            <form v-if="renaming?.id === m.id" class="rename" @submit.prevent="rename">
              <v-text-field id="rename" v-model="renaming.name" density="compact" hide-details variant="outlined" maxlength="80" aria-label="Name of the machine" @keydown.esc="renaming = null" />
              <v-btn type="submit" color="primary" variant="flat">Rename</v-btn><v-btn @click="renaming = null">Leave it</v-btn>
            </form>
            <template v-else>
              <router-link class="name" :to="{ name: 'overview', params: { machine: m.id } }">{{ m.name }}</router-link>
              <p v-if="m.unreadable" class="fault-text">cannot be opened: {{ m.unreadable }}</p>
            </template>
          </td>
          <td class="mono end">{{ m.unreadable ? '–' : m.axes }}</td>
          <td class="whole"><span class="mono">{{ moment(m.changedAt) }}</span> · revision {{ m.revision }}</td>
          <td class="whole"><span :class="proof(m).kind">{{ proof(m).text }}</span><template v-if="m.lastProof"> · <span class="mono">{{ moment(m.lastProof.ranAt) }}</span></template></td>
          <td class="whole end">
            <v-menu>
              <template #activator="{ props }"><v-btn v-bind="props" :icon="mdiDotsVertical" size="x-small" variant="text" :aria-label="`What can be done with ${m.name}`" /></template>
              <v-list density="compact">
                <v-list-item :prepend-icon="mdiPencil" title="Rename" :disabled="Boolean(m.unreadable)" @click="edit(m)" />
                <v-list-item :prepend-icon="mdiContentCopy" title="Copy" :disabled="Boolean(m.unreadable)" @click="copy(m)" />
                <v-list-item :prepend-icon="mdiDelete" title="Delete" @click="remove(m)" />
              </v-list>
            </v-menu>
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-else-if="all" class="empty">No machine yet. Begin with a new one and add its axes, bring a machine file, or look at the demo cell first.</p>
    <p v-else-if="!problem" class="empty">Loading…</p>
    <template v-if="gone.length">
      <v-btn class="gone" variant="text" :aria-expanded="showDeleted" @click="showDeleted = !showDeleted">{{ gone.length === 1 ? '1 deleted machine' : `${gone.length} deleted machines` }}</v-btn>
      <ul v-if="showDeleted" class="plain-list" aria-label="Deleted machines">
        <li v-for="m in gone" :key="m.id">{{ m.name }} · deleted <span class="mono">{{ moment(m.deletedAt!) }}</span> <v-btn size="small" :prepend-icon="mdiRestore" :aria-label="`Bring back ${m.name}`" @click="bringBack(m)">Bring it back</v-btn></li>
      </ul>
    </template>
  </main>
</template>

<style scoped>
.page { padding: 22px 28px; max-width: 1120px; width: 100%; margin: 0 auto; }
.head { display: flex; justify-content: space-between; align-items: start; flex-wrap: wrap; gap: 8px 20px; margin-bottom: 12px; }
.head .sub { white-space: nowrap; margin: 0; }
.new { display: flex; flex-wrap: wrap; gap: 8px; }
.name { font-weight: 700; color: var(--ink); font-size: 15px; text-underline-offset: 3px; }
.rename { display: flex; gap: 8px; align-items: center; padding: 4px 0; min-width: 380px; }
.whole { white-space: nowrap; }
.end { text-align: right; }
.good { color: var(--ok); font-weight: 650; }
.bad { color: var(--stop); font-weight: 650; }
.notice { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 8px 14px; margin-bottom: 10px; }
.notice.calm { border-color: var(--pencil); background: var(--line-wash); }
.gone { margin-top: 12px; }
.plain-list { list-style: none; margin: 4px 0 0; padding: 0 12px; }
.plain-list li { padding: 3px 0; }
</style>
