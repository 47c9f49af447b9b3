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

  /** The description of exactly the planned device of a station. */
  function of(identity: { vendor: number; product: number; revision: number }) {
    return fitting.value.find((k) => k.device.identity.vendor === identity.vendor && k.device.identity.product === identity.product && k.device.identity.revision === identity.revision)?.device ?? null
  }

  return { known, fitting, load, of }
})

/** Major and minor revision, the upper and lower 16 bits. */
export const revisionWords = (revision: number) => `${Math.floor(revision / 65536)}.${revision % 65536}`
