<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from '../stores/machine'

/** A machine whose stored document cannot be read: the reason, earlier revisions to open, its text to take out, and the other machines. */
const machine = useMachine()
const revisions = ref<Schemas['ListedRevision'][]>([])
const machines = ref<Schemas['Listed'][]>([])
const time = (instant: string) => new Date(instant).toLocaleString('en-GB')

async function list() {
  await machine.guarded(async () => {
    machines.value = await api.machines()
    revisions.value = await api.revisions(machine.unreadable!.id)
  })
}
onMounted(list)
</script>

<template>
  <main class="pane" aria-label="Machine that cannot be opened" data-testid="unreadable">
    <h1>{{ machine.unreadable!.name }} cannot be opened</h1>
    <p>Revision {{ machine.unreadable!.revision }} is stored and cannot be read: <b>{{ machine.unreadable!.unreadable }}</b>. Nothing of it is lost. Open an earlier revision, or take its text out and have it mended.</p>
    <table class="plain">
      <thead><tr><th>Revision</th><th>Saved</th><th>Machine</th><th></th><th></th></tr></thead>
      <tbody>
        <tr v-for="r in revisions" :key="r.number">
          <td class="mono">{{ r.number }}</td><td class="whole">{{ time(r.savedAt) }}</td><td>{{ r.unreadable ? `cannot be read: ${r.unreadable}` : r.name }}</td>
          <td><v-btn v-if="!r.unreadable" size="small" color="primary" variant="flat" :aria-label="`Open revision ${r.number}`" @click="machine.openRevision(machine.unreadable!, r.number)">Open</v-btn></td>
          <td class="whole"><a class="link" :href="`/api/machines/${machine.unreadable!.id}/revisions/${r.number}/text`" :download="`revision-${r.number}.json`" :aria-label="`Take the text out, revision ${r.number}`">Take the text out</a></td>
        </tr>
      </tbody>
    </table>
    <template v-if="machines.length > 1">
      <h2>Other machines</h2>
      <ul><li v-for="m in machines.filter((x) => x.id !== machine.unreadable!.id)" :key="m.id">{{ m.name }}
        <template v-if="m.unreadable">, cannot be read: {{ m.unreadable }}</template>
        <v-btn v-else size="small" @click="machine.open(m.id)">Open</v-btn></li></ul>
    </template>
  </main>
</template>

<style scoped>
.pane { padding: 18px 22px; max-width: 1000px; }
h1 { font-size: 20px; margin-bottom: 8px; }
.whole { white-space: nowrap; }
a.link { color: var(--cmd); font-weight: 700; }
h2 { margin-top: 18px; }
p { margin-bottom: 12px; }
</style>
