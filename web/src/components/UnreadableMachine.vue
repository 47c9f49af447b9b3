<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { api, type Schemas } from '../api/client'
import { useMachine } from '../stores/machine'

/** A machine whose stored document cannot be read: the reason, earlier revisions to open and its text to take out. */
const machine = useMachine()
const revisions = ref<Schemas['ListedRevision'][]>([])
const time = (instant: string) => new Date(instant).toLocaleString('en-GB')

async function list() {
  await machine.guarded(async () => {
    revisions.value = await api.revisions(machine.unreadable!.id)
  })
}
onMounted(list)
</script>

<template>
  <main class="pane" aria-label="Machine that cannot be opened" data-testid="unreadable">
    <h1>{{ machine.unreadable!.name }} cannot be opened</h1>
    <p>Revision {{ machine.unreadable!.revision }} is stored and cannot be read: <b>{{ machine.unreadable!.unreadable }}</b>. Nothing of it is lost. Open an earlier revision, or take its text out and have it mended.</p>
    <v-table class="plain">
      <thead><tr><th>Revision</th><th>Saved</th><th>Name</th><th></th><th></th></tr></thead>
      <tbody>
        <tr v-for="r in revisions" :key="r.number">
          <td class="mono">{{ r.number }}</td><td class="whole">{{ time(r.savedAt) }}</td><td>{{ r.unreadable ? `cannot be read: ${r.unreadable}` : r.name }}</td>
          <td><v-btn v-if="!r.unreadable" size="small" color="primary" variant="flat" :aria-label="`Open revision ${r.number}`" @click="machine.openRevision(machine.unreadable!, r.number)">Open</v-btn></td>
          <td class="whole"><a class="link" :href="`/api/machines/${machine.unreadable!.id}/revisions/${r.number}/text`" :download="`revision-${r.number}.json`" :aria-label="`Take the text out, revision ${r.number}`">Take the text out</a></td>
        </tr>
      </tbody>
    </v-table>
    <p class="gap"><router-link class="link" to="/">All machines</router-link></p>
  </main>
</template>

<style scoped>
.pane { padding: 18px 22px; max-width: 1000px; }
h1 { font-size: 20px; margin-bottom: 8px; }
.whole { white-space: nowrap; }
a.link { color: var(--cmd); font-weight: 700; }
.gap { margin-top: 14px; }
p { margin-bottom: 12px; }
</style>
