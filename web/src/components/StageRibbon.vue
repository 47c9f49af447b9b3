<script setup lang="ts">
import { placeOf, stages, type StageKey } from '../router'
import { useMachine } from '../stores/machine'

const machine = useMachine()

function mark(stage: StageKey) {
  const state = machine.stageState(stage)
  if (state === 'not started') return { text: '', kind: 'open', words: state }
  if (state === 'not known') return { text: '', kind: 'unknown', words: state }
  if (state.faults > 0) return { text: String(state.faults), kind: 'fault', words: state.faults === 1 ? '1 fault' : `${state.faults} faults` }
  if (state.warnings > 0) return { text: String(state.warnings), kind: 'warning', words: state.warnings === 1 ? '1 warning' : `${state.warnings} warnings` }
  return { text: '', kind: 'good', words: 'nothing wrong' }
}
</script>

<template>
  <nav class="ribbon" aria-label="Stages">
    <router-link :to="placeOf('overview')" title="The machine at a glance">Overview</router-link>
    <router-link v-for="stage in stages" :key="stage.key" :to="placeOf(stage.key)" :title="`${stage.title}: ${mark(stage.key).words}`">
      <span class="mark mono" :class="mark(stage.key).kind" aria-hidden="true">{{ mark(stage.key).text }}</span>
      {{ stage.title }}<span class="visually-hidden">, {{ mark(stage.key).words }}</span>
    </router-link>
  </nav>
</template>

<style scoped>
.ribbon { display: flex; align-items: stretch; padding: 0 8px; border-bottom: 1px solid var(--hair); }
a { padding: 0 12px; display: flex; align-items: center; gap: 7px; color: var(--pencil); text-decoration: none; border-bottom: 3px solid transparent; border-top: 3px solid transparent; }
a.router-link-active { color: var(--ink); font-weight: 700; border-bottom-color: var(--ink); }
a:focus-visible { outline-offset: -3px; }
.mark { width: 9px; height: 9px; border-radius: 50%; border: 2px solid var(--pencil); }
.mark.unknown { border-style: dotted; }
.mark.good { background: var(--ok); border-color: var(--ok); }
.mark.warning, .mark.fault { width: auto; height: auto; border: 0; border-radius: 3px; padding: 0 5px; font-size: 11px; color: var(--sheet); background: var(--warn); }
.mark.fault { background: var(--stop); }
</style>
