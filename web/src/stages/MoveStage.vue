<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import EntryList from '../components/move/EntryList.vue'
import ListRules from '../components/move/ListRules.vue'
import ListRun from '../components/move/ListRun.vue'
import MoveStrip from '../components/move/MoveStrip.vue'
import PickOne from '../components/PickOne.vue'
import TabRow from '../components/TabRow.vue'
import { useAxis } from '../lib/axis'
import { useChoices } from '../stores/choices'
import { useMoves } from '../stores/moves'

const { machine, axis, at } = useAxis()
const moves = useMoves()
const choices = useChoices()
const tab = ref('entries')
const tabs = computed(() => ({
  entries: `Entries ${axis.value.moves.entries.length}`, starters: `Starters ${axis.value.moves.starters.length}`,
  exceptions: `Exceptions ${axis.value.moves.exceptions.length}`, zones: `Zones ${axis.value.moves.zones.length}`,
}))
watch(() => axis.value.name, moves.forget)
watch([() => machine.draft, () => machine.axisIndex, () => moves.from, () => moves.at], () => void moves.plan(), { immediate: true })
onBeforeUnmount(moves.forget)
</script>

<template>
  <h1>Move · {{ axis.name }}</h1>
  <p class="sub top">Moves that live in the drive. The axis is commanded by
    <PickOne sentence label="Commanded by" :value="axis.commandedBy" :options="choices.all.moves.commanders" @pick="(code) => machine.set(`${at}/commandedBy`, code)" />.</p>
  <div class="stay"><MoveStrip /></div>
  <ListRun />
  <TabRow v-model="tab" :tabs="tabs" label="Parts of the move list" />
  <EntryList v-if="tab === 'entries'" />
  <ListRules v-else :key="tab" :what="tab as 'starters'" />
</template>

<style scoped>
/* the plan stays in sight while entries are edited below it */
.stay { position: sticky; top: 0; z-index: 2; background: var(--paper); }
.top { font-size: 15px; line-height: 1.9; margin: 0; }
</style>
