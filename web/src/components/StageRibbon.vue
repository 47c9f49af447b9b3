<script setup lang="ts">
import { markOf } from '../lib/marks'
import { placeOf, stages, type StageKey } from '../router'
import { useMachine } from '../stores/machine'

const machine = useMachine()

const mark = (stage: StageKey) => markOf(machine.stageState(stage))
</script>

<template>
  <nav class="ribbon" aria-label="Stages">
    <router-link :to="placeOf('overview')" title="The machine at a glance">Overview</router-link>
    <router-link v-for="stage in stages" :key="stage.key" :to="placeOf(stage.key)" :title="`${stage.title}: ${mark(stage.key).words}`">
      <span class="state-mark mono" :class="mark(stage.key).kind" aria-hidden="true">{{ mark(stage.key).text }}</span>
      {{ stage.title }}<span class="visually-hidden">, {{ mark(stage.key).words }}</span>
    </router-link>
  </nav>
</template>

<style scoped>
.ribbon { display: flex; align-items: stretch; padding: 0 8px; border-bottom: 1px solid var(--hair); }
a { padding: 0 12px; display: flex; align-items: center; gap: 7px; color: var(--pencil); text-decoration: none; border-bottom: 3px solid transparent; border-top: 3px solid transparent; }
a.router-link-active { color: var(--ink); font-weight: 700; border-bottom-color: var(--ink); }
a:focus-visible { outline-offset: -3px; }
</style>
