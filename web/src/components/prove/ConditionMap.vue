<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { fixed } from '../../lib/numbers'

/** Conditions down, expectations across: how much room is left in the worst run of each. Every cell opens its run. */
const props = defineProps<{ map: Schemas['ConditionMap']; opening: boolean }>()
const emit = defineEmits<{ open: [run: number] }>()
type Cell = Schemas['MapCell']
const number = (margin: number | null | undefined) => (margin == null ? '' : fixed(margin, Math.abs(margin) >= 100 ? 0 : Math.abs(margin) >= 1 ? 2 : 3))
/** The less room, the darker; none of it says anything that the sign and the number do not. */
function shade(cell: Cell) {
  const share = cell.share ?? (cell.holds ? 1 : -1)
  const strength = cell.holds ? 8 + 24 * (1 - Math.min(1, Math.max(0, share))) : 18 + 22 * Math.min(1, Math.max(0, -share))
  return { '--strength': `${Math.round(strength)}%` }
}
const repeated = (i: number) => i > 0 && props.map.rows[i]!.condition === props.map.rows[i - 1]!.condition
const label = (row: Schemas['MapRow'], cell: Cell, i: number) => `${props.map.columns[i]!.sentence}, ${row.condition} ${row.value}: ${cell.holds ? 'holds' : 'does not hold'}${cell.margin == null ? '' : `, room ${number(cell.margin)} ${props.map.columns[i]!.unit}`}. Open run ${cell.run}`
const worst = computed(() => props.map.rows.length > 1)
</script>

<template>
  <div class="scroll">
    <table class="map" data-testid="condition-map">
      <thead>
        <tr><th scope="col">Condition</th><th scope="col">Value</th><th v-for="(c, i) in map.columns" :key="i" scope="col" class="sentence" :title="c.sentence"><span>{{ c.sentence }}</span><i v-if="c.unit" class="mono">{{ c.unit }}</i></th></tr>
      </thead>
      <tbody>
        <tr v-for="(row, r) in map.rows" :key="r">
          <th scope="row" class="what">{{ repeated(r) ? '' : row.condition }}</th>
          <td class="mono value">{{ row.value }}<small v-if="row.runs > 1"> {{ row.runs }} runs</small></td>
          <td v-for="(cell, i) in row.cells" :key="i" class="cell" :class="{ fails: !cell.holds }" :style="shade(cell)">
            <button type="button" :disabled="opening" :aria-label="label(row, cell, i)" :title="`${map.columns[i]!.sentence}: open run ${cell.run}`" @click="emit('open', cell.run)">
              <span aria-hidden="true">{{ cell.holds ? '✓' : '✗' }}</span> <span class="mono">{{ number(cell.margin) }}</span><small v-if="row.runs > 1 && cell.failed">{{ cell.failed }} fail</small>
            </button>
          </td>
        </tr>
      </tbody>
      <tfoot v-if="worst">
        <tr><th scope="row">Worst of all</th><td class="mono value">{{ map.runs }} runs</td>
          <td v-for="(c, i) in map.columns" :key="i" class="cell" :class="{ fails: c.failed > 0 }"><button type="button" :disabled="opening" :aria-label="`${c.sentence}, worst of all: open run ${c.worst}`" @click="emit('open', c.worst)"><span aria-hidden="true">{{ c.failed ? '✗' : '✓' }}</span> <span class="mono">{{ number(c.margin) }}</span><small v-if="c.failed">{{ c.failed }} fail</small></button></td></tr>
      </tfoot>
    </table>
  </div>
</template>

<style scoped>
.scroll { overflow-x: auto; }
.map { border-collapse: collapse; font-size: 13px; width: 100%; }
th { text-align: left; font-weight: 600; padding: 3px 6px; vertical-align: bottom; }
.sentence { min-width: 84px; font-weight: 500; font-size: 12px; }
.sentence span { display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 3; overflow: hidden; }
.sentence i { font-style: normal; color: var(--pencil); }
.what { font-weight: 500; color: var(--pencil); vertical-align: top; min-width: 104px; }
.value { padding: 3px 6px; white-space: nowrap; }
.value small { color: var(--pencil); }
.cell { padding: 1px; }
.cell button { display: flex; gap: 3px; white-space: nowrap; align-items: baseline; width: 100%; min-height: 26px; padding: 2px 6px; border: 1px solid transparent; background: color-mix(in srgb, var(--ok) var(--strength, 12%), var(--sheet)); color: var(--ink); font: inherit; cursor: pointer; text-align: left; }
.cell.fails button { background: color-mix(in srgb, var(--stop) var(--strength, 30%), var(--sheet)); }
.cell button:hover { border-color: var(--ink); }
.cell small { margin-left: auto; white-space: nowrap; }
tfoot th, tfoot td { border-top: 2px solid var(--ink); }
</style>
