<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useMachine } from '../../stores/machine'
import { kindOf, valueOf } from '../../lib/names'
import TextEntry from '../TextEntry.vue'

/** What the name under the cursor means, where it stands, and another one for it. */
const props = defineProps<{ file: string; line: number; column: number }>()
const emit = defineEmits<{ goTo: [file: string, line: number] }>()
const machine = useMachine()
const bench = useBench()
type Named = Schemas['Named']
const named = shallowRef<Named | null>(null)
const listed = ref(false)
const renaming = ref(false)
const HOW: Record<Schemas['Use']['how'], string> = { DECLARED: 'declared', READ: 'read', WRITTEN: 'written', CALLED: 'called', TYPE: 'as a type' }
const what = computed(() => (named.value ? kindOf(named.value) : ''))
const declaration = computed(() => named.value?.uses.find((u) => u.how === 'DECLARED') ?? null)
const several = computed(() => machine.draft!.plc.files.length > 1)
const where = (u: Schemas['Use']) => `${several.value ? `${u.file}, ` : ''}line ${u.line}`
const value = computed(() => (named.value && bench.state?.program === 'program' && !bench.behind ? valueOf(named.value, bench.state.values) : ''))

async function ask() {
  const { file, line, column } = props
  const given = await machine.asked((document) => machine.byKey(document, (asked) => api.nameAt(asked, file, line, column)))
  if (!given || file !== props.file || line !== props.line || column !== props.column) return
  if (given.found?.name !== named.value?.name || given.found?.owner !== named.value?.owner) renaming.value = listed.value = false
  named.value = given.found ?? null
}
watchDebounced(() => [props.file, props.line, props.column, machine.draft?.plc.files], ask, { debounce: 250, immediate: true })

async function rename(name: string) {
  const use = named.value?.uses[0]
  if (!use) return
  const given = await machine.guarded(() => machine.byKey(machine.draft!, (asked) => api.renameName(asked, use.file, use.line, use.column, name)))
  if (!given) return
  machine.edit({ op: 'replace', path: '/plc/files', value: given.files }, { op: 'replace', path: '/plc/tasks', value: given.tasks }, { op: 'replace', path: '/proofs', value: given.proofs })
  renaming.value = false
}
function declared() {
  if (declaration.value) emit('goTo', declaration.value.file, declaration.value.line)
}
defineExpose({ declared, rename: () => (renaming.value = Boolean(declaration.value)), list: () => (listed.value = true) })
</script>

<template>
  <div class="bar" role="status" aria-label="Name under the cursor">
    <template v-if="named">
      <b class="mono">{{ named.name }}</b><span v-if="named.type" class="mono">: {{ named.type }}</span>
      <b v-if="value" class="mono live">= {{ value }}</b>
      <span class="sub">{{ what }}{{ named.comment ? ` · ${named.comment}` : '' }}</span>
      <span class="acts">
        <v-btn v-if="declaration" size="small" variant="text" title="Where it is declared (F12)" @click="declared">Declaration</v-btn>
        <v-btn size="small" variant="text" :aria-expanded="listed" title="All places where it stands (Shift+F12)" @click="listed = !listed">{{ named.uses.length === 1 ? '1 place' : `${named.uses.length} places` }}</v-btn>
        <v-btn v-if="declaration" size="small" variant="text" :aria-expanded="renaming" title="Another name, in all places (F2)" @click="renaming = !renaming">Rename</v-btn>
      </span>
      <TextEntry v-if="renaming" class="new mono" :value="named.name" autofocus aria-label="New name" @enter="rename" @keydown.esc="renaming = false" />
      <ul v-if="listed" class="places">
        <li v-for="u in named.uses" :key="`${u.file}:${u.line}:${u.column}`"><button type="button" class="link" @click="emit('goTo', u.file, u.line)">{{ where(u) }}</button> {{ HOW[u.how] }}{{ u.unit ? ` in ${u.unit}` : '' }}</li>
      </ul>
    </template>
    <span v-else class="sub">Put the cursor on a name: what it is stands here.</span>
  </div>
</template>

<style scoped>
.bar { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: center; font-size: 13px; min-height: 30px; flex: none; }
.sub { margin: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; max-width: 320px; }
.live { color: var(--act); }
.acts { margin-left: auto; display: inline-flex; }
.new { flex: 0 1 220px; }
.places { flex-basis: 100%; margin: 0; padding-left: 16px; max-height: 110px; overflow: auto; columns: 2; }
</style>
