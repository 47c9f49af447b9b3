<script setup lang="ts">
import { computed } from 'vue'
import { fixed } from '../../lib/numbers'
import { useMachine } from '../../stores/machine'

/** All proofs of the machine by their groups, with how each stands. */
const emit = defineEmits<{ open: [index: number]; run: [names: string[]] }>()
defineProps<{ possible: boolean }>()
const machine = useMachine()
const groups = computed(() => {
  const all = machine.draft!.proofs.map((proof, index) => ({ proof, index, run: machine.runOf(proof.name) }))
  return [...new Set(all.map((p) => p.proof.group))].sort((a, b) => a.localeCompare(b)).map((group) => ({ group, proofs: all.filter((p) => p.proof.group === group) }))
})
type Row = (typeof groups.value)[number]['proofs'][number]
const failed = (row: Row) => row.run?.verdicts.filter((v) => !v.holds) ?? []
const stale = (row: Row) => row.run !== null && row.run.revision !== machine.revision
function standing(row: Row) {
  if (!row.run) return 'not run yet'
  if (row.run.holds) return 'holds'
  return row.run.stopped ? 'the program stopped' : `${failed(row).length} of ${row.run.verdicts.length} ${failed(row).length === 1 ? 'does' : 'do'} not hold`
}
/** The least room of its expectations that have one. */
function least(row: Row) {
  const measured = row.run?.verdicts.filter((v) => v.room !== null && v.room !== undefined && v.unit !== 'errors') ?? []
  return measured.reduce<(typeof measured)[number] | null>((a, b) => (a && a.room! <= b.room! ? a : b), null)
}
const on = (rows: Row[]) => rows.filter((r) => r.proof.on).map((r) => r.proof.name)
</script>

<template>
  <section aria-label="All proofs">
    <v-table class="plain">
      <thead><tr><th>On</th><th>Proof</th><th>Last verdict</th><th>Least room</th></tr></thead>
      <tbody v-for="g in groups" :key="g.group">
        <tr v-if="groups.length > 1 || g.group" class="group">
          <th colspan="3" scope="rowgroup">{{ g.group || 'In no group' }}</th>
          <td><v-btn v-if="on(g.proofs).length > 1" size="small" :disabled="!possible || Boolean(machine.proving)" @click="emit('run', on(g.proofs))">Run these {{ on(g.proofs).length }}</v-btn></td>
        </tr>
        <tr v-for="row in g.proofs" :key="row.index" :class="{ chosen: row.index === machine.proofIndex }" data-testid="proof">
          <td><v-checkbox-btn :model-value="row.proof.on" density="compact" :aria-label="`${row.proof.name} runs with the others`" @update:model-value="(to) => machine.set(`/proofs/${row.index}/on`, Boolean(to))" /></td>
          <td class="what"><button type="button" class="link" @click="emit('open', row.index)">{{ row.proof.name }}</button><div v-if="row.proof.purpose" class="sub">{{ row.proof.purpose }}</div></td>
          <td><span :class="row.run ? (row.run.holds ? 'good' : 'bad') : 'sub'"><span aria-hidden="true">{{ row.run ? (row.run.holds ? '✓ ' : '✗ ') : '' }}</span>{{ standing(row) }}</span>
            <div v-if="failed(row).length" class="sub">{{ failed(row)[0]!.sentence }}</div>
            <div v-if="stale(row)" class="sub">revision {{ row.run!.revision }}; the machine has changed since</div></td>
          <td class="mono"><template v-if="least(row)">{{ fixed(least(row)!.room! * 100, 0) }} %<div class="sub">{{ fixed(least(row)!.margin ?? 0, 3) }} {{ least(row)!.unit }}</div></template><template v-else>–</template></td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.group th { text-align: left; padding-top: 10px; font-size: 13px; color: var(--pencil); }
.what { max-width: 330px; }
.chosen td:first-child { box-shadow: inset 4px 0 var(--ink); }
.good { color: var(--ok); } .bad { color: var(--stop); }
td .sub { font-size: 12.5px; }
</style>
