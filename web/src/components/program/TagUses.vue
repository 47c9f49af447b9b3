<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useMachine } from '../../stores/machine'

/** Who reads and who writes each tag. */
const emit = defineEmits<{ goTo: [file: string, line: number] }>()
const machine = useMachine()
const all = shallowRef<Schemas['TagReference'][] | null>(null)
const only = ref(false)
const several = computed(() => machine.draft!.plc.files.length > 1)
const where = (u: Schemas['Use']) => (several.value ? `${u.file}:${u.line}` : String(u.line))
const inputs = computed(() => new Set(machine.draft!.axes.flatMap((a) => a.station.inputs.map((e) => e.tag.toLowerCase()))))
const remark = (t: Schemas['TagReference']) => {
  if (t.twice) return 'written twice in one cycle: the first is lost'
  if (!t.reads.length && !t.writes.length) return 'not used'
  if (!t.reads.length && inputs.value.has(t.name.toLowerCase())) return 'never read'
  return ''
}
const shown = computed(() => (all.value ?? []).filter((t) => !only.value || t.reads.length || t.writes.length))
watchDebounced(() => machine.draft, async () => {
  all.value = (await machine.asked((document) => machine.byKey(document, (asked) => api.tagUses(asked)))) ?? all.value
}, { debounce: 300, immediate: true })
</script>

<template>
  <section class="uses" aria-label="Tags">
    <div class="row"><p class="sub">Lines in which the program names each tag.</p><v-checkbox v-model="only" label="Only used ones" density="compact" hide-details /></div>
    <p v-if="all && !all.length" class="empty">No tag yet. Bind one in Map.</p>
    <v-table v-else class="plain" data-testid="tag-uses">
      <thead><tr><th>Tag</th><th>Type</th><th>Written in</th><th>Read in</th><th /></tr></thead>
      <tbody>
        <tr v-for="t in shown" :key="t.name">
          <td class="mono">{{ t.name }}</td><td class="mono">{{ t.type }}</td>
          <td v-for="list in [t.writes, t.reads]" :key="list === t.writes ? 'w' : 'r'"><template v-for="(u, i) in list.slice(0, 12)" :key="i"><button type="button" class="link" :title="u.unit" @click="emit('goTo', u.file, u.line)">{{ where(u) }}</button>{{ ' ' }}</template><span v-if="list.length > 12">and {{ list.length - 12 }} more</span></td>
          <td :class="{ wrong: t.twice }">{{ remark(t) }}</td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.uses { overflow: auto; padding: 4px 12px; }
.row { display: flex; justify-content: space-between; align-items: center; }
.wrong { color: var(--stop); font-weight: 600; }
</style>
