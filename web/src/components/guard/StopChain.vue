<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { fixed, plain } from '../../lib/numbers'

/** What passes one after the other until the axis stands: at most, and on the bench. */
const props = defineProps<{ plan: Schemas['GuardPlan']; trial: Schemas['Stopped'] | null }>()
const short = (value: number, digits = 4) => plain(Number(value.toPrecision(digits)))
const measured = computed(() => new Map(props.trial?.chain.map((p) => [p.of, p.millis]) ?? []))
const tried = computed(() => measured.value.size > 0)
const ms = (seconds: number | undefined) => (seconds == null ? '–' : fixed(1000 * seconds, 1))
/** The sums stand behind the last link of each: until it acts, until it stands. */
const behind = computed(() => {
  const all = props.plan.chain
  return { acts: all.map((l) => l.reaction).lastIndexOf(true), stands: all.map((l) => l.of).lastIndexOf('RAMP') }
})
</script>

<template>
  <v-table class="plain chain" aria-label="Chain of times">
    <thead>
      <tr>
        <th>ms</th>
        <template v-for="(l, i) in plan.chain" :key="l.of">
          <th>{{ l.words }}</th>
          <th v-if="i === behind.acts" class="sum">= {{ plan.torque === plan.reaction ? 'the torque goes' : 'the ramp begins' }}</th>
          <th v-if="i === behind.stands" class="sum">= it stands</th>
        </template>
      </tr>
    </thead>
    <tbody>
      <tr>
        <th scope="row">at most</th>
        <template v-for="(l, i) in plan.chain" :key="l.of">
          <td class="number">{{ short(l.millis) }}</td>
          <td v-if="i === behind.acts" class="number sum">{{ short(plan.reaction) }}</td>
          <td v-if="i === behind.stands" class="number sum">{{ short(plan.stands!) }}</td>
        </template>
      </tr>
      <tr v-if="tried" class="act">
        <th scope="row">on the bench</th>
        <template v-for="(l, i) in plan.chain" :key="l.of">
          <td class="number">{{ measured.has(l.of) ? fixed(measured.get(l.of)!, 1) : '–' }}</td>
          <td v-if="i === behind.acts" class="number sum">{{ ms(trial!.reaction) }}</td>
          <td v-if="i === behind.stands" class="number sum">{{ ms(trial!.stoppingTime) }}</td>
        </template>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.chain { font-size: 12.5px; }
.chain :deep(th) { font-weight: 400; color: var(--pencil); line-height: 1.2; vertical-align: bottom; text-align: right; padding: 2px 5px !important; height: auto !important; max-width: 92px; white-space: normal; }
.chain :deep(th:first-child) { text-align: left; }
.chain :deep(td) { padding: 2px 5px !important; height: auto !important; text-align: right; }
.chain :deep(.sum) { font-weight: 700; color: var(--ink); }
.act :deep(td), .act td { color: var(--act) !important; }
</style>
