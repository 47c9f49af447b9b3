<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type DeviceGroup } from '../api/client'
import { useAxis } from '../lib/axis'
import { useChoices } from '../stores/choices'

/** What the device of the chosen axis holds: written, kept, acting. A device keeps nothing by itself. */
const { machine, bench, axis, live } = useAxis()
const choices = useChoices()
const groups = ref<DeviceGroup[]>([])

/** Asked again when the device, the saved machine or the axis has changed. */
watch(
  () => [axis.value.name, machine.revision, bench.state?.revision, JSON.stringify(live.value?.device)],
  async () => {
    if (!live.value) return
    groups.value = (await machine.guarded(() => api.device(machine.id, axis.value.name))) ?? groups.value
  },
  { immediate: true },
)

const rows = computed(() =>
  groups.value.flatMap((g) => g.values.filter((v) => new Set([v.project, v.working, v.permanent, v.acting]).size > 1).map((v) => ({ ...v, group: g.words, acts: choices.words(choices.all.acts, g.acts) }))),
)
const unwritten = computed(() => rows.value.filter((r) => r.project !== r.working).length)
const device = computed(() => live.value?.device ?? null)
const restartTitle = computed(() => (device.value?.unkept.length ? `Will lose what is not kept: ${device.value.unkept.join(', ')}` : 'Torque goes at once; the device answers again after 2 s'))
</script>

<template>
  <section class="device" aria-label="Device">
    <p v-if="!live || !device" class="empty">The bench is off. Run it, and what the device holds stands here beside the project.</p>
    <template v-else>
      <div class="orders">
        <p role="status" data-testid="device-status">
          <b v-if="device.restarting">The device restarts and answers again by itself.</b>
          <b v-else-if="device.pending.length" class="warn">Written, not acting yet: {{ device.pending.join(', ') }}.</b>
          <span v-else-if="rows.length === 0">Project, working and permanent memory agree.</span>
          <span v-else>Everything written acts.</span>
        </p>
        <v-btn :disabled="unwritten === 0 || device.restarting" variant="flat" color="primary" title="Writes the saved machine into the working memory of every device" @click="bench.device('write', axis.name)">Write to the devices{{ unwritten ? ` (${unwritten})` : '' }}</v-btn>
        <v-btn :disabled="device.unkept.length === 0 || device.restarting" title="Copies working to permanent memory" @click="bench.device('keep', axis.name)">Keep permanently</v-btn>
        <v-btn :disabled="device.restarting" :title="restartTitle" @click="bench.device('restart', axis.name)">Restart {{ axis.name }}</v-btn>
        <p v-if="device.unkept.length && !device.restarting" class="sub">A restart would lose: {{ device.unkept.join(', ') }}.</p>
      </div>
      <div class="scroll">
        <v-table v-if="rows.length" class="plain" data-testid="device-values">
          <thead><tr><th>Parameter</th><th>Project</th><th>Working</th><th>Permanent</th><th>Acting now</th><th>A change acts</th></tr></thead>
          <tbody>
            <tr v-for="r in rows" :key="r.name">
              <td :title="r.group">{{ r.words }}<i v-if="r.unit">, {{ r.unit }}</i></td>
              <td class="mono">{{ r.project }}</td>
              <td class="mono" :class="{ other: r.working !== r.project }">{{ r.working }}</td>
              <td class="mono" :class="{ other: r.permanent !== r.working }">{{ r.permanent }}</td>
              <td class="mono" :class="{ other: r.acting !== r.working }">{{ r.acting }}</td>
              <td>{{ r.acts }}</td>
            </tr>
          </tbody>
        </v-table>
        <p v-else class="sub">Change an entry in a stage: it is saved in the project, and stands here until it is written.</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.device { display: grid; grid-template-columns: 300px 1fr; gap: 18px; padding: 4px 0; min-height: 0; }
.empty { grid-column: 1 / -1; }
.orders { display: flex; flex-wrap: wrap; gap: 6px; align-content: flex-start; }
.orders p { width: 100%; margin: 0; min-height: 20px; }
.scroll { overflow: auto; min-height: 0; }
i { font-style: normal; color: var(--pencil); font-size: 12px; }
.other { font-weight: 700; color: var(--act); }
.warn { color: var(--warn); }
</style>
