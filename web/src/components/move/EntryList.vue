<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp, mdiContentCopy, mdiDelete } from '@mdi/js'
import { computed, nextTick } from 'vue'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'
import { useMoves } from '../../stores/moves'
import PickOne from '../PickOne.vue'
import EntryEditor from './EntryEditor.vue'

/** The entries as sentences; the chosen one is open. Arrow keys go from one to the next. */
const { machine, live } = useAxis()
const moves = useMoves()
const choices = useChoices()
const entries = computed(() => moves.list!.entries)
const running = computed(() => (live.value?.moves.leads ? live.value.moves.entry : -1))
const phase = computed(() => live.value?.moves.phase ?? '')
const changed = (i: number) => live.value?.moves.changed.find((c) => c.entry === i)?.words ?? ''
const refused = (i: number) => machine.faults.some((f) => f.field.startsWith(`${moves.root}/entries/${i}/`))

async function go(to: number) {
  if (to < 0 || to >= entries.value.length) return
  moves.chosen = to
  await nextTick()
  document.getElementById(`entry-${to}`)?.focus()
}
function keyed(event: KeyboardEvent, i: number) {
  if (event.key === 'ArrowDown') void go(i + 1)
  else if (event.key === 'ArrowUp') void go(i - 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <ol class="entries" aria-label="Entries of the move list">
    <li v-for="(entry, i) in entries" :key="i" v-memo="[entry, moves.sentences[i], i === moves.chosen && entries.length, i === running && phase, changed(i), refused(i)]" :class="{ chosen: i === moves.chosen, running: i === running }">
      <div class="line">
        <button :id="`entry-${i}`" type="button" class="say" :aria-expanded="i === moves.chosen" @click="moves.chosen = i" @keydown="keyed($event, i)">
          <span class="no mono">{{ i }}</span>
          <span class="words"><b v-if="entry.name">{{ entry.name }}: </b>{{ moves.sentences[i] ?? '…' }}
            <span v-if="i === running" class="mark">{{ phase }}</span><span v-if="changed(i)" class="mark" title="The PLC has changed it since the list was written; writing the list takes that back">{{ changed(i) }}</span><span v-if="refused(i)" class="fault-text">refused</span></span>
        </button>
        <span v-if="i === moves.chosen" class="tools">
          <v-btn :icon="mdiChevronUp" size="x-small" variant="text" :disabled="i === 0" :aria-label="`Move entry ${i} up`" title="Up" @click="moves.edit({ edit: 'MOVE', entry: i, to: i - 1 }, i - 1)" />
          <v-btn :icon="mdiChevronDown" size="x-small" variant="text" :disabled="i === entries.length - 1" :aria-label="`Move entry ${i} down`" title="Down" @click="moves.edit({ edit: 'MOVE', entry: i, to: i + 1 }, i + 1)" />
          <v-btn :icon="mdiContentCopy" size="x-small" variant="text" :aria-label="`Copy entry ${i}`" title="Copy" @click="moves.edit({ edit: 'COPY', entry: i }, i + 1)" />
          <v-btn :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Remove entry ${i}`" title="Remove" @click="moves.edit({ edit: 'REMOVE', entry: i }, Math.max(0, i - 1))" />
        </span>
      </div>
      <EntryEditor v-if="i === moves.chosen" :number="i" />
    </li>
  </ol>
  <div class="add">
    <PickOne :value="null" label="Add an entry" placeholder="Add an entry…" :disabled="entries.length >= choices.all.moves.mostEntries" :options="choices.all.moves.kinds" @pick="(code) => moves.edit({ edit: 'ADD', kind: code as 'GO_TO', entry: entries.length === 0 ? 0 : moves.chosen + 1 }, entries.length === 0 ? 0 : moves.chosen + 1)" />
    <span class="sub">{{ entries.length === 0 ? 'Say first what the axis does: “go by” repeats a distance, “go to” takes a position.' : `Behind the chosen one; ${entries.length} of ${choices.all.moves.mostEntries}.` }}</span>
  </div>
</template>

<style scoped>
.entries { list-style: none; margin: 0; padding: 0; border-top: 1px solid var(--hair); }
.entries li { border-bottom: 1px solid var(--hair); }
.line { display: flex; align-items: center; }
.say { flex: 1; display: flex; gap: 10px; align-items: baseline; text-align: left; background: none; border: 0; font: inherit; color: var(--ink); padding: 5px 4px; cursor: pointer; min-width: 0; }
.no { min-width: 22px; text-align: right; color: var(--pencil); }
.chosen .no { color: var(--cmd); font-weight: 700; }
.running { background: color-mix(in srgb, var(--act) 5%, transparent); box-shadow: inset 3px 0 var(--act); }
.mark { color: var(--act); font-weight: 700; margin-left: 8px; }
.tools { white-space: nowrap; }
.add { display: flex; gap: 12px; align-items: center; margin: 8px 0; }
.add > :first-child { flex: 0 0 190px; }
</style>
