import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, type KnownDevice } from '../api/client'
import { useMachine } from './machine'

/** The library of device descriptions. */
export const useDevices = defineStore('devices', () => {
  const machine = useMachine()
  const known = ref<KnownDevice[]>([])
  /** Those for the bus of the machine. */
  const fitting = computed(() => known.value.filter((k) => k.device.family === machine.draft?.bus.family))

  async function load() {
    known.value = (await machine.guarded(() => api.devices())) ?? known.value
  }

  /** Where the description of exactly the planned device stands in `fitting`: of several the one of its name, as access points of one PROFINET device have theirs; -1 when none is known. */
  function indexOf(identity: { device: string; vendor: number; product: number; revision: number }) {
    const same = (k: { device: { identity: typeof identity } }) => k.device.identity.vendor === identity.vendor && k.device.identity.product === identity.product && k.device.identity.revision === identity.revision
    const named = fitting.value.findIndex((k) => same(k) && k.device.identity.device === identity.device)
    return named >= 0 ? named : fitting.value.findIndex(same)
  }
  const of = (identity: Parameters<typeof indexOf>[0]) => fitting.value[indexOf(identity)]?.device ?? null

  return { known, fitting, load, indexOf, of }
})

/** Major and minor revision, the upper and lower 16 bits. */
export const revisionWords = (revision: number) => `${Math.floor(revision / 65536)}.${revision % 65536}`
