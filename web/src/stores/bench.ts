import { defineStore } from 'pinia'
import { useWebSocket } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type BenchState, type Mistake } from '../api/client'
import { useMachine } from './machine'

/** Signals of one axis in a sample, in the order the stream sends them. */
export const streamed = ['commandedPosition', 'position', 'commandedSpeed', 'speed', 'torque', 'followingError', 'referenceCam',
  'inPosition', 'standstill', 'allowedFollowingError', 'torqueLimited', 'brakeOpen'] as const
const KEPT = 6000
const RECONNECT_AFTER = 1000

/** The server's word that a bench has ended by a mistake. */
interface Ended {
  type: 'ended'
  words: string
}

/** There is no bench; the mistakes of wiring that the next one will have. */
interface Off {
  type: 'off'
  condition: Record<string, Mistake[]>
}

/** The live bench of the open machine as it comes over the WebSocket. Nothing is asked for by timer. */
export const useBench = defineStore('bench', () => {
  const state = shallowRef<BenchState | null>(null)
  const connected = ref(false)
  /** Columns: time, then the streamed signals of every axis. Replaced as a whole with each block. */
  const samples = shallowRef<number[][]>([])
  const machine = useMachine()
  /** Mistakes made on the bench, by axis. */
  const condition = ref<Record<string, Mistake[]>>({})
  /** The dock shows what the device of the chosen axis holds. */
  const deviceOpen = ref(false)
  const behind = computed(() => state.value !== null && state.value.revision !== machine.revision)

  /** Where the bench of the open machine is heard; nothing while none is open. */
  const address = computed(() => (machine.id ? `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/machines/${machine.id}/live` : undefined))
  useWebSocket(address, {
    autoReconnect: { delay: RECONNECT_AFTER, retries: -1 },
    onConnected(socket) {
      socket.binaryType = 'arraybuffer'
      connected.value = true
    },
    onDisconnected: () => (connected.value = false),
    onMessage(_, message) {
      if (typeof message.data === 'string') heard(JSON.parse(message.data) as BenchState | Off | Ended)
      else append(new DataView(message.data as ArrayBuffer))
    },
  })

  /* what was heard belongs to the machine that was open */
  watch(() => machine.id, forget, { flush: 'sync' })
  function forget() {
    state.value = null
    samples.value = []
    condition.value = {}
    connected.value = false
    deviceOpen.value = false
  }

  /** A state, that there is no bench, or the end of one by a mistake of the server. */
  function heard(message: BenchState | Off | Ended) {
    if (message.type === 'state') return take(message as BenchState)
    state.value = null
    samples.value = []
    if (message.type === 'off') condition.value = (message as Off).condition
    else machine.tell('Bench ended', (message as Ended).words)
  }

  function take(next: BenchState) {
    state.value = next
    condition.value = next.condition as Record<string, Mistake[]>
  }

  function append(view: DataView) {
    /* the state says how many axes a sample has; it always comes before the samples */
    if (!state.value) return
    const columns = 1 + streamed.length * state.value.axes.length
    const rowBytes = 8 + 4 * (columns - 1)
    if (view.byteLength % rowBytes !== 0) return
    const rows = view.byteLength / rowBytes
    let kept = samples.value.length === columns ? samples.value : Array.from({ length: columns }, () => [] as number[])
    const last = kept[0][kept[0].length - 1] ?? -1
    if (rows > 0 && view.getFloat64(0) <= last) kept = kept.map(() => [])
    const next = kept.map((column) => column.slice(Math.max(0, column.length + rows - KEPT)))
    for (let row = 0; row < rows; row++) {
      const at = row * rowBytes
      next[0].push(view.getFloat64(at))
      for (let c = 1; c < columns; c++) next[c].push(view.getFloat32(at + 8 + 4 * (c - 1)))
    }
    samples.value = next
  }

  /** Makes the bench anew from the saved machine. */
  async function start(program: 'PROGRAM' | 'HOMING', running: boolean) {
    await machine.flush()
    if (machine.conflict !== null) return
    samples.value = []
    const made = await machine.guarded(() => api.startBench(machine.id, program, machine.axis?.name ?? '', running))
    if (made) take(made)
  }

  async function order(what: 'run' | 'hold' | 'cycle' | 'stop') {
    if (!state.value && what !== 'stop') return start('PROGRAM', what === 'run')
    if (!state.value) return
    const next = await machine.guarded(() => api.bench(machine.id, what))
    if (next) take(next)
  }

  async function oneCycle() {
    if (!state.value) await start('PROGRAM', false)
    await order('cycle')
  }

  async function setSpeed(factor: number) {
    const next = await machine.guarded(() => api.benchSpeed(machine.id, factor))
    if (next) take(next)
  }

  async function setCondition(axis: string, faults: Mistake[]) {
    const made = await machine.guarded(() => api.benchCondition(machine.id, axis, faults))
    if (made) condition.value = made
  }

  /** Orders to the devices of the bench; what they hold comes over the stream. */
  async function device(what: 'write' | 'keep' | 'restart', axis: string) {
    await machine.flush()
    const next = await machine.guarded(() => (what === 'write' ? api.writeDevices(machine.id) : what === 'keep' ? api.keepDevice(machine.id, axis) : api.restartDevice(machine.id, axis)))
    if (next) take(next)
  }

  return { device, deviceOpen, condition, setCondition, state, connected, samples, behind, start, order, oneCycle, setSpeed }
})
