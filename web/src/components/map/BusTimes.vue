<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, type CycleTimes } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { fixed } from '../../lib/numbers'
import { useBench } from '../../stores/bench'

/** Every frame of a cycle with its time, as bars on the cycle. */
const { machine } = useAxis()
const bench = useBench()
const times = ref<CycleTimes | null>(null)
watch(
  () => machine.answer,
  async () => {
    times.value = (await machine.asked((document) => api.times(document))) ?? times.value
  },
  { immediate: true },
)
const micros = (nanos: number) => fixed(nanos / 1000, 2)
const can = () => machine.draft?.bus.family === 'CANOPEN'
</script>

<template>
  <section v-if="times" aria-label="Times">
    <p class="sub">{{ times.messages.length }} frames take {{ micros(times.wireNanos) }} µs of the {{ machine.draft!.bus.cycleMicros }} µs of a bus cycle. {{ times.formula }}.</p>
    <div class="scroll">
      <v-table class="plain">
        <thead><tr><th>Frame</th><th class="end">{{ can() ? 'Bits, at most' : 'Byte times' }}</th><th class="end">On the wire</th><th v-if="can()" class="end" title="Longest frame that has just begun, all with a lower identifier, its own">Worst case</th><th>Share of the cycle</th></tr></thead>
        <tbody>
          <tr v-for="m in times.messages" :key="m.name">
            <td>{{ m.name }}</td><td class="mono end">{{ m.size }}</td><td class="mono end">{{ micros(m.nanos) }} µs</td><td v-if="can()" class="mono end">{{ micros(m.worstNanos) }} µs</td>
            <td><span class="bar" :style="{ width: Math.min(100, (m.nanos / 10 / machine.draft!.bus.cycleMicros)) * 2 + 'px' }" /> {{ fixed(m.nanos / 10 / machine.draft!.bus.cycleMicros, 2) }} %</td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p class="take">
      <a v-if="bench.state" class="link" :href="`/api/machines/${machine.id}/bench/traffic`" download="bus-traffic.pcapng">Take the frames of the last bus cycles out as pcapng</a>
      <span v-else class="empty">Run the bench, and the frames that travelled can be taken out as pcapng.</span>
    </p>
  </section>
</template>

<style scoped>
.end { text-align: right; }
.bar { display: inline-block; height: 9px; background: var(--cmd); min-width: 1px; }
.scroll { overflow: auto; max-height: 340px; }
.link { color: var(--cmd); font-weight: 700; }
</style>
