<script setup lang="ts">
import { moment } from '../../lib/times'
import ProblemNote from '../ProblemNote.vue'
import { useProblem } from '../../lib/problems'
import PickOne from '../PickOne.vue'
import { computed, onMounted, ref, watch } from 'vue'
import { api, type DeviceGroup, type ImageView } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'

/** Project, device and a kept image three ways; what is chosen of one is written to the device. */
const { machine, bench, axis, live } = useAxis()
const images = ref<ImageView[]>([])
const groups = ref<DeviceGroup[]>([])
const image = ref(0)
const source = ref<'project' | 'image'>('project')
const chosen = ref<string[]>([])
const name = ref('')
const cut = ref(false)
const resetting = ref(false)
const { problem, tried } = useProblem()
const choices = useChoices()
const own = computed(() => images.value.filter((i) => i.axis === axis.value.name))
const device = computed(() => live.value?.device ?? null)
const other = (v: DeviceGroup['values'][number]) => (source.value === 'image' ? v.image : v.project)
const rows = computed(() => groups.value.map((g) => ({ ...g, values: g.values.filter((v) => new Set([v.project, v.working, v.permanent, ...(image.value ? [v.image] : [])]).size > 1) })).filter((g) => g.values.length))
const differing = computed(() => groups.value.filter((g) => g.values.some((v) => other(v) !== v.working)))
const pending = computed(() => differing.value.filter((g) => chosen.value.includes(g.group)).flatMap((g) => g.values.filter((v) => other(v) !== v.working).map((v) => ({ ...v, to: other(v), acts: g.acts }))))
const restart = computed(() => pending.value.some((p) => p.acts === 'AFTER_RESTART'))
const unseen = computed(() => bench.state !== null && own.value.length === 0 && groups.value.some((g) => g.values.some((v) => v.working !== v.project)))

let asked = 0
/** Only the newest answer counts: an image that was kept meanwhile is not in an older one. */
async function load() {
  const turn = ++asked
  const kept = await machine.guarded(() => api.images(machine.id))
  const held = await machine.guarded(() => api.device(machine.id, axis.value.name, image.value || undefined))
  if (turn !== asked) return
  images.value = kept ?? images.value
  groups.value = held ?? groups.value
}
onMounted(load)
watch(() => [axis.value.name, machine.revision, bench.state?.revision, JSON.stringify(live.value?.device), image.value], load)
watch(() => axis.value.name, () => {
  image.value = 0
  source.value = 'project'
  chosen.value = []
})
watch([image, source, () => axis.value.name, groups], () => (chosen.value = differing.value.map((g) => g.group)))

const keep = () => tried(async () => {
  const kept = await api.keepImage(machine.id, axis.value.name, name.value.trim() || `${axis.value.name} ${new Date().toISOString().slice(0, 16).replace('T', ' ')}`)
  name.value = ''
  await load()
  image.value = kept.id
})
const bring = (file: File | undefined) => file && tried(async () => {
  const kept = await api.bringImage(machine.id, file)
  await load()
  if (kept.axis === axis.value.name) image.value = kept.id
})
const forget = (id: number) => tried(async () => {
  await api.forgetImage(machine.id, id)
  if (image.value === id) image.value = 0
  await load()
})
const write = () => tried(async () => {
  await api.writeDevice(machine.id, axis.value.name, { groups: chosen.value as DeviceGroup['group'][], ...(source.value === 'image' ? { image: image.value } : {}), ...(cut.value ? { interruptedAfter: Math.floor(chosen.value.length / 2) } : {}) })
  cut.value = false
  await load()
})
const end = (way: 'finish' | 'undo') => tried(async () => {
  await api.endWriting(machine.id, axis.value.name, way)
  await load()
})
</script>

<template>
  <section aria-label="Device images">
    <ProblemNote v-if="problem" :problem="problem" @close="problem = null" />
    <p v-if="device && device.missing.length" class="refused" role="alert" data-testid="interrupted"><b>Writing was interrupted.</b> The device gives no torque. Not written: {{ device.missing.join(', ') }}.
      <button type="button" class="link" @click="end('finish')">Finish it</button> <button type="button" class="link" @click="end('undo')">Undo it</button></p>
    <div class="line">
      <v-text-field v-model="name" class="snug named" maxlength="80" placeholder="name of the image" aria-label="Name of the image" @keydown.enter="keep" />
      <v-btn size="small" color="primary" variant="flat" @click="keep">Keep an image of {{ axis.name }}</v-btn>
      <span class="pencil">or</span> <v-file-input class="snug file" :model-value="null" accept=".json,.csv" placeholder="bring one in…" aria-label="Device image file" @update:model-value="(file) => bring(file as File)" />
    </div>
    <!-- below the button that it is about: what comes up while one aims does not move it -->
    <p v-if="unseen" class="warn" role="status">{{ axis.name }}'s device holds parameters that differ from the project, and nothing of it has been kept. Keep an image first: every later step can then be taken back.</p>
    <v-table v-if="own.length" class="plain" data-testid="images">
      <thead><tr><th>Compare</th><th>Image of {{ axis.name }}</th><th>Taken</th><th>Take out</th><th /></tr></thead>
      <tbody>
        <tr><td><v-radio v-model="image" name="image" :value="0" aria-label="Compare with no image" /></td><td colspan="4" class="pencil">none</td></tr>
        <tr v-for="i in own" :key="i.id"><td><v-radio v-model="image" name="image" :value="i.id" :aria-label="`Compare with ${i.name}`" /></td><td>{{ i.name }}</td><td>{{ moment(i.takenAt) }}</td>
          <td><a class="link" :href="`/api/machines/${machine.id}/images/${i.id}/file`" download>JSON</a> <a class="link" :href="`/api/machines/${machine.id}/images/${i.id}/file?format=csv`" download>CSV</a></td><td><button type="button" class="link" @click="forget(i.id)">Forget</button></td></tr>
      </tbody>
    </v-table>
    <h2 class="gap">{{ image ? 'Project, device and image' : 'Project and device' }}</h2>
    <p v-if="!bench.state" class="empty">The bench is off. Keeping an image switches it on; Run does too.</p>
    <p v-else-if="rows.length === 0" class="pencil">{{ image ? 'All three agree.' : 'Project and device agree.' }}</p>
    <template v-if="rows.length">
      <v-table class="plain" data-testid="three-ways">
        <thead><tr><th>Write</th><th>Parameter</th><th>Project</th><th>Device</th><th>Kept in it</th><th v-if="image">Image</th><th>A change acts</th></tr></thead>
        <tbody v-for="g in rows" :key="g.group">
          <tr v-for="(v, n) in g.values" :key="v.name"><td><v-checkbox-btn v-if="n === 0" v-model="chosen" multiple :value="g.group" :aria-label="`Write ${g.words}`" :disabled="!differing.some((d) => d.group === g.group)" /></td><td :title="g.words">{{ v.words }}<i v-if="v.unit">, {{ v.unit }}</i></td>
            <td class="mono" :class="{ other: v.project !== v.working }">{{ v.project }}</td><td class="mono">{{ v.working }}</td><td class="mono" :class="{ other: v.permanent !== v.working }">{{ v.permanent }}</td><td v-if="image" class="mono" :class="{ other: v.image !== v.working }">{{ v.image }}</td><td>{{ choices.words(choices.all.acts, g.acts) }}</td></tr>
        </tbody>
      </v-table>
      <div class="line gap">
        <span class="from">Write from <PickOne label="Write from" :value="source" :options="[{ code: 'project', words: 'the project' }, ...(image ? [{ code: 'image', words: 'the image' }] : [])]" @pick="(code) => (source = code as typeof source)" /></span>
        <v-btn size="small" :disabled="pending.length === 0 || !device || device.restarting" @click="write">Write {{ pending.length }} {{ pending.length === 1 ? 'value' : 'values' }} into {{ axis.name }}</v-btn>
        <v-checkbox-btn v-model="cut" class="pencil" title="A condition of the bench: the connection breaks half-way" label="break the connection half-way" />
      </div>
      <p v-if="pending.length" class="pencil" data-testid="pending">Will change: {{ pending.map((p) => `${p.words} ${p.working} → ${p.to} ${p.unit}`.trim()).join('; ') }}. {{ restart ? 'Some act only after a restart.' : 'All act without a restart.' }}</p>
    </template>
    <div v-if="device" class="line gap">
      <v-btn size="small" :disabled="!device.unkept.length" @click="tried(() => api.keepDevice(machine.id, axis.name))">Keep permanently in the device</v-btn>
      <v-btn size="small" @click="tried(() => api.restartDevice(machine.id, axis.name))">Restart it</v-btn>
      <v-btn v-if="!resetting" size="small" @click="resetting = true">Factory reset…</v-btn>
      <template v-else><span class="fault-text">All its parameters are lost, and it restarts.</span><v-btn size="small" color="error" @click="resetting = false; tried(() => api.factoryReset(machine.id, axis.name))">Reset {{ axis.name }}</v-btn><v-btn size="small" @click="resetting = false">Leave it</v-btn></template>
    </div>
  </section>
</template>

<style scoped>
.from { display: inline-flex; gap: 6px; align-items: center; }
.line { display: flex; gap: 10px; align-items: center; font-size: 13px; margin-bottom: 6px; } .gap { margin-top: 10px; }
.pencil { color: var(--pencil); font-size: 13px; } .pencil, i { font-style: normal; } i { color: var(--pencil); font-size: 12px; } .other { font-weight: 700; color: var(--act); }
td, th { padding: 1px 5px !important; } a.link { color: var(--cmd); font-weight: 700; }
.refused { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 4px 8px; font-size: 13px; }
.warn { border-left: 4px solid var(--warn); background: var(--warn-wash); padding: 4px 8px; font-size: 13px; }
</style>
