<script setup lang="ts">
import { mdiRedo, mdiThemeLightDark, mdiUndo } from '@mdi/js'
import { computed } from 'vue'
import { clock } from '../lib/numbers'
import { placeOf } from '../router'
import { useBench } from '../stores/bench'
import { useHand } from '../stores/hand'
import { useLayout } from '../stores/layout'
import { useMachine } from '../stores/machine'

defineEmits<{ search: []; theme: [] }>()
const machine = useMachine()
const bench = useBench()
const hand = useHand()
const layout = useLayout()
const opened = computed(() => machine.id !== 0)

const saved = computed(() => {
  if (!machine.draft) return machine.unreadable || machine.missing ? 'No machine open' : 'Loading'
  if (machine.conflict !== null) return 'Not saved: another page was first'
  if (machine.faults.length > 0) return `Not saved: ${machine.faults.length === 1 ? '1 entry' : machine.faults.length + ' entries'} refused`
  if (machine.saving || machine.dirty) return 'Saving…'
  return `All saved · revision ${machine.revision}`
})
const mistakes = computed(() => Object.values(bench.condition).reduce((sum, faults) => sum + faults.length, 0))
const stopTitle = computed(() =>
  !bench.state ? 'Nothing to stop: the bench is off' : bench.state.stopped ? 'Stopped. Start the bench anew to move again' : 'Quick stop of every axis on the bench',
)
const clockText = computed(() => {
  const state = bench.state
  if (!bench.connected) return 'bench not connected'
  if (!state) return 'bench off'
  const hand = state.byHand ? ' · by hand' : ''
  return `bench ${clock(state.time)} ${state.running ? '▸ ×' + state.speed : '‖ held'}${hand}`
})
</script>

<template>
  <header class="top">
    <router-link to="/" class="home" title="All machines">
      <svg width="24" height="24" viewBox="0 0 24 24" aria-hidden="true">
        <circle cx="12" cy="12" r="10" fill="none" stroke="currentColor" stroke-width="2" />
        <circle cx="12" cy="12" r="2.4" fill="var(--act)" />
        <path d="M12 2v7.5M20.7 17l-6.6-3.8M3.3 17l6.6-3.8" stroke="currentColor" stroke-width="2" />
      </svg>
      <span class="word">rueda</span><span class="visually-hidden">, all machines</span>
    </router-link>
    <template v-if="opened">
      <router-link :to="placeOf('overview')" class="pill machine-name" title="Overview of the machine">{{ machine.draft?.name ?? machine.unreadable?.name ?? '…' }}</router-link>
      <span class="pill mono" data-testid="bench-clock">{{ clockText }}</span>
      <span class="saved" role="status" data-testid="saved" :class="{ refused: machine.faults.length > 0 || machine.conflict !== null }">{{ saved }}</span>
      <v-btn :disabled="!machine.canUndo && !machine.dirty && machine.faults.length === 0" size="x-small" :icon="mdiUndo" aria-label="Undo" title="Undo (Ctrl+Z)" variant="text" @click="machine.undo()" />
      <v-btn :disabled="!machine.canRedo" size="x-small" :icon="mdiRedo" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" variant="text" @click="machine.redo()" />
      <button class="pill find" type="button" @click="$emit('search')">Find anything <kbd class="mono">/</kbd></button>
      <button v-if="bench.state?.forced" type="button" class="pill forced" title="Let the contacts have their terminals again" @click="hand.releaseForces()">{{ bench.state.forced }} forced · release all</button>
      <span v-if="mistakes" class="pill forced" title="Made in the stage Wire">{{ mistakes }} {{ mistakes === 1 ? 'mistake' : 'mistakes' }} on the bench</span>
    </template>
    <v-btn class="theme" size="x-small" :icon="mdiThemeLightDark" :aria-label="layout.dark ? 'Light theme' : 'Dark theme'" :title="layout.dark ? 'Light theme' : 'Dark theme'" variant="text" @click="$emit('theme')" />
    <button v-if="opened" class="stop" type="button" :disabled="!bench.state || bench.state.stopped" :title="stopTitle" @click="bench.order('stop')">Stop all axes</button>
  </header>
</template>

<style scoped>
.top { display: flex; align-items: center; gap: 10px; padding: 0 14px; border-bottom: 1px solid var(--hair); background: var(--sheet); white-space: nowrap; }
.word { font-weight: 760; font-size: 19px; }
.pill { border: 1px solid var(--hair); border-radius: 14px; padding: 3px 11px; font-size: 13px; background: var(--paper); color: var(--ink); }
.machine-name { overflow: hidden; text-overflow: ellipsis; }

.forced { background: var(--warn); color: var(--sheet); border: 0; font-weight: 650; }
button.forced { cursor: pointer; }
.find { cursor: pointer; }
.saved { color: var(--pencil); font-size: 13px; }
.saved.refused { color: var(--stop); font-weight: 650; }
.home { display: inline-flex; align-items: center; gap: 10px; color: var(--ink); text-decoration: none; }
a.machine-name { text-decoration: none; }
.theme { margin-left: auto; }
.stop { background: #b0261e; color: #fff; border: 0; border-radius: 4px; padding: 6px 14px; font-weight: 700; cursor: pointer; }
.stop:disabled { background: none; color: var(--pencil); box-shadow: inset 0 0 0 1px var(--field-line); cursor: default; }
</style>
