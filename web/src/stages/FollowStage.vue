<script setup lang="ts">
import { computed } from 'vue'
import FollowCombs from '../components/follow/FollowCombs.vue'
import FollowRun from '../components/follow/FollowRun.vue'
import FollowSentence from '../components/follow/FollowSentence.vue'
import FollowTrial from '../components/follow/FollowTrial.vue'
import VirtualMasters from '../components/follow/VirtualMasters.vue'
import { useAxis } from '../lib/axis'

const { machine, axis } = useAxis()
const follows = computed(() => axis.value.following.source !== 'NONE')
const alone = computed(() => (machine.draft?.axes.length ?? 0) < 2 && !machine.draft?.plc.virtualMasters.length)
</script>

<template>
  <h1>Follow · {{ axis.name }}</h1>
  <FollowCombs v-if="follows" />
  <FollowRun v-if="follows" />
  <FollowSentence />
  <p v-if="alone && !follows" class="sub">An axis follows another one. Add a second axis on the left first, or a virtual master here.</p>
  <p v-else-if="!follows" class="sub">Choose whose setpoint or actual position it follows: the combs, what it gives and a trial stand here then.</p>
  <FollowTrial v-if="follows" />
  <VirtualMasters />
</template>
