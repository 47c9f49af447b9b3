<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { api, type Schemas } from '../api/client'
import { moment } from '../lib/times'
import { useMachine } from '../stores/machine'

type Listed = Schemas['ListedRevision']
type Change = Schemas['DocumentChange']

/** The revisions of the machine: what each changed, a comparison of any two, a way back, and names. */
const machine = useMachine()
const all = ref<Listed[] | null>(null)
const more = ref(false)
const PAGE = 50
/** The two that are compared. */
const one = ref<number | null>(null)
const other = ref<number | null>(null)
const compared = ref<{ from: number; to: number; changes: Change[] } | null>(null)
const naming = ref<{ number: number; name: string } | null>(null)

async function list() {
  const id = machine.id
  const given = await machine.guarded(() => api.revisions(id))
  if (!given || id !== machine.id) return
  all.value = given
  more.value = given.length === PAGE
  const there = (n: number | null) => given.some((r) => r.number === n)
  if (!there(one.value)) one.value = given.find((r) => !r.current)?.number ?? given[0]?.number ?? null
  if (!there(other.value) || given.some((r) => r.current && r.number !== other.value)) other.value = given.find((r) => r.current)?.number ?? null
}
watch(() => [machine.id, machine.revision], () => machine.id && void list(), { immediate: true })

async function older() {
  const last = all.value?.at(-1)
  if (!last) return
  const given = (await machine.guarded(() => api.revisions(machine.id, last.number))) ?? []
  all.value = [...(all.value ?? []), ...given]
  more.value = given.length === PAGE
}

const choices = computed(() => (all.value ?? []).filter((r) => !r.unreadable).map((r) => ({ value: r.number, title: `${r.number}${r.name ? ` · ${r.name}` : ''}${r.current ? ' · stands here' : ''}` })))

async function compare() {
  const [from, to] = [one.value, other.value]
  if (from === null || to === null) return
  const changes = await machine.guarded(() => api.comparison(machine.id, to, from))
  if (changes) compared.value = { from, to, changes }
}

async function nameIt(revision: Listed) {
  naming.value = { number: revision.number, name: revision.name }
  await nextTick()
  document.getElementById('revision-name')?.focus()
}

async function named() {
  const wanted = naming.value!
  if ((await machine.guarded(async () => (await api.nameRevision(machine.id, wanted.number, wanted.name), true))) === undefined) return
  naming.value = null
  await list()
}

const words = (c: Change) => `${c.axis ? `${c.axis}: ` : ''}${c.entry}${c.from || c.to ? `, ${c.from || 'nothing'} → ${c.to || 'nothing'}` : ''}`
const first = computed(() => (r: Listed) => (r.changes.length ? r.changes.map(words).join('; ') + (r.moreChanges ? `; ${r.moreChanges} more` : '') : r.origin ? `began as ${r.origin}` : r.number === 1 ? 'the machine as it began' : 'cannot be compared with the one before it'))
</script>

<template>
  <section aria-label="Revisions">
    <h2>Revisions</h2>
    <form v-if="(all?.length ?? 0) > 1" class="pair" @submit.prevent="compare">
      <v-select v-model="one" :items="choices" density="compact" variant="outlined" hide-details label="From" />
      <v-select v-model="other" :items="choices" density="compact" variant="outlined" hide-details label="To" />
      <v-btn type="submit" :disabled="one === other">Compare</v-btn>
    </form>
    <div v-if="compared" class="compared" role="region" aria-label="Comparison of revisions">
      <b>From revision {{ compared.from }} to {{ compared.to }}</b> <v-btn size="small" @click="compared = null">Close</v-btn>
      <p v-if="compared.changes.length === 0" class="empty">They are equal.</p>
      <v-table v-else class="plain">
        <thead><tr><th>Axis</th><th>Entry</th><th>In {{ compared.from }}</th><th>In {{ compared.to }}</th></tr></thead>
        <tbody><tr v-for="(c, i) in compared.changes" :key="i"><td>{{ c.axis || 'machine' }}</td><td>{{ c.entry }}</td><td class="mono">{{ c.from }}</td><td class="mono">{{ c.to }}</td></tr></tbody>
      </v-table>
    </div>
    <p v-if="!all" class="empty">Loading…</p>
    <ol v-else class="revisions">
      <li v-for="r in all" :key="r.number" :class="{ current: r.current }" data-testid="revision">
        <div class="head">
          <b class="mono">{{ r.number }}</b> <span class="mono when">{{ moment(r.savedAt) }}</span>
          <form v-if="naming?.number === r.number" @submit.prevent="named"><v-text-field id="revision-name" v-model="naming.name" class="snug" maxlength="80" :aria-label="`Name of revision ${r.number}`" @keydown.esc="naming = null" /> <v-btn type="submit" size="x-small">Keep</v-btn></form>
          <b v-else-if="r.name" class="given">{{ r.name }}</b>
          <span v-if="r.current" class="here">stands here</span>
          <span class="acts">
            <button v-if="!r.unreadable && !r.current" type="button" class="link" :aria-label="`Go back to revision ${r.number}`" @click="machine.restore(r.number)">Go back</button>
            <button type="button" class="link" :aria-label="`Name revision ${r.number}`" @click="nameIt(r)">Name</button>
          </span>
        </div>
        <p class="what">{{ r.unreadable ? `cannot be read: ${r.unreadable}` : first(r) }}</p>
      </li>
    </ol>
    <button v-if="more" type="button" class="link" @click="older">Older revisions</button>
  </section>
</template>

<style scoped>
.pair { display: flex; gap: 8px; align-items: center; margin: 6px 0 8px; }
.revisions { list-style: none; margin: 0; padding: 0; }
.revisions li { padding: 4px 6px; border-bottom: 1px dotted var(--hair); }
.revisions li.current { background: var(--cmd-wash); }
.head { display: flex; gap: 8px; align-items: baseline; flex-wrap: wrap; }
.when, .here { color: var(--pencil); font-size: 12px; }
.given { border: 1px solid var(--hair); border-radius: 10px; padding: 0 8px; font-size: 12.5px; }
.acts { margin-left: auto; display: inline-flex; gap: 10px; font-size: 12.5px; }
.what { margin: 0; font-size: 13px; color: var(--pencil); overflow-wrap: anywhere; }
.compared { border-left: 3px solid var(--cmd); padding: 4px 0 6px 10px; margin-bottom: 10px; max-height: 320px; overflow: auto; }
</style>
