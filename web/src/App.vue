<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AxisRail from './components/AxisRail.vue'
import ConsequencePane from './components/ConsequencePane.vue'
import Dock from './components/Dock.vue'
import NoAxis from './components/NoAxis.vue'
import Notices from './components/Notices.vue'
import SearchPalette from './components/SearchPalette.vue'
import StageRibbon from './components/StageRibbon.vue'
import TopBar from './components/TopBar.vue'
import UnreadableMachine from './components/UnreadableMachine.vue'
import { nameAxis, stages } from './router'
import { useChoices } from './stores/choices'
import { useLayout } from './stores/layout'
import { useMachine } from './stores/machine'
import { useProgramFolder } from './stores/programFolder'

const machine = useMachine()
const folder = useProgramFolder()
const layout = useLayout()
const route = useRoute()
const router = useRouter()
const searching = ref(false)
const choices = useChoices()
const ready = computed(() => machine.draft !== null && choices.known)
const opened = computed(() => (route.params.machine ? Number(route.params.machine) : 0))
const stage = computed(() => stages.find((s) => s.key === route.name) ?? null)
const wide = computed(() => stage.value === null)

function switchTheme() {
  layout.dark = !layout.dark
}

function typing(target: EventTarget | null) {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

useEventListener(window, 'keydown', (event) => {
  const command = event.ctrlKey || event.metaKey
  if (!opened.value) return
  if (event.key === '/' && !command && !typing(event.target)) {
    event.preventDefault()
    searching.value = true
  } else if (command && event.key.toLowerCase() === 'z' && !typing(event.target)) {
    event.preventDefault()
    void (event.shiftKey ? machine.redo() : machine.undo())
  } else if (command && event.key.toLowerCase() === 'y' && !typing(event.target)) {
    event.preventDefault()
    void machine.redo()
  }
})
useEventListener(window, 'beforeunload', (event) => {
  if (machine.dirty) {
    void machine.flush()
    event.preventDefault()
  }
})

/* The address names the machine and the axis; whoever leaves a machine has it saved. */
router.beforeEach(async (to, from) => {
  if (from.params.machine && to.params.machine !== from.params.machine) return machine.leave()
  return true
})
watch(opened, (id) => {
  if (id) void machine.load(id)
  else machine.close()
  folder.follow(id)
}, { immediate: true })
/* asked again when the server answers again */
watch([() => machine.draft, () => machine.problem], ([draft, problem]) => {
  if (draft && !problem && !choices.known) void machine.guarded(choices.load)
})
watch([() => route.params.axis, () => machine.draft !== null], ([name]) => {
  const named = machine.draft?.axes.findIndex((a) => a.name === name) ?? -1
  if (named >= 0) machine.axisIndex = named
})
watch(() => machine.axis?.name, (name) => {
  if (opened.value && machine.draft && route.params.axis !== (name ?? '')) void nameAxis(name ?? '')
})
</script>

<template>
  <v-app :theme="layout.dark ? 'dark' : 'paper'">
    <div v-if="!opened" class="frame machines">
      <TopBar @search="searching = true" @theme="switchTheme" />
      <router-view />
    </div>
    <div v-else class="frame">
      <TopBar @search="searching = true" @theme="switchTheme" />
      <StageRibbon />
      <div v-if="ready" class="middle">
        <AxisRail />
        <main class="pane" tabindex="-1" aria-label="Stage">
          <Notices />
          <div class="stage">
            <NoAxis v-if="stage?.ofAxis && !machine.axis" :stage="stage.title" />
            <router-view v-else />
          </div>
        </main>
        <ConsequencePane v-if="!wide" :stage="String(route.name ?? '')" />
      </div>
      <div v-else class="stage">
        <Notices />
        <UnreadableMachine v-if="machine.unreadable" :key="machine.unreadable.id" />
        <p v-else-if="machine.missing" class="empty">There is no machine with this address; it may have been deleted. <router-link to="/">All machines</router-link></p>
        <p v-else-if="!machine.problem" class="empty">Loading the machine…</p>
      </div>
      <Dock v-if="ready" />
    </div>
    <SearchPalette v-if="opened" v-model="searching" @theme="switchTheme" />
  </v-app>
</template>
