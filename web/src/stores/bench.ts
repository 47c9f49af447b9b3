import { defineStore } from 'pinia'
import { useWebSocket } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type BenchState, type Mistake, type Schemas } from '../api/client'
import { useMachine } from './machine'

/** Samples that are kept at least; as many again before the older half is dropped, so that no message copies them all. */
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

/** What the columns of the blocks of samples are that begin with this key. */
interface Columns {
  type: 'columns'
  key: number
  names: string[]
}

type Message = BenchState | Off | Ended | Columns | Schemas['ProcessData']

/** The live bench of the open machine as it comes over the WebSocket. Nothing is asked for by timer. */
export const useBench = defineStore('bench', () => {
  const state = shallowRef<BenchState | null>(null)
  const connected = ref(false)
  /** What travels to and from the chosen axis. */
  const processData = shallowRef<Schemas['ProcessData'] | null>(null)
  let columns: Columns = { type: 'columns', key: 0, names: [] }
  /** Columns: time, then the signals that were named. The list of them is a new one with each block; the columns grow in place. */
  const samples = shallowRef<number[][]>([])
  const machine = useMachine()
  /** Mistakes made on the bench, by axis. */
  const condition = ref<Record<string, Mistake[]>>({})
  /** The dock shows what the device of the chosen axis holds. */
  const deviceOpen = ref(false)
  const behind = computed(() => state.value !== null && state.value.revision !== machine.revision)

  /** Where the bench of the open machine is heard; nothing while none is open. */
  const address = computed(() => (machine.id ? `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/machines/${machine.id}/live` : undefined))
  const { send } = useWebSocket(address, {
    autoReconnect: { delay: RECONNECT_AFTER, retries: -1 },
    onConnected(socket) {
      socket.binaryType = 'arraybuffer'
      connected.value = true
      look()
    },
    onDisconnected: () => (connected.value = false),
    onMessage(_, message) {
      if (typeof message.data === 'string') heard(JSON.parse(message.data) as Message)
      else append(new DataView(message.data as ArrayBuffer))
    },
  })

  /* what was heard belongs to the machine that was open */
  watch(() => machine.id, forget, { flush: 'sync' })
  function forget() {
    state.value = null
    processData.value = null
    samples.value = []
    condition.value = {}
    connected.value = false
    deviceOpen.value = false
  }

  /** The server tells what travels of the axis that is looked at. */
  function look() {
    const name = machine.axis?.name
    if (processData.value?.axis !== name) processData.value = null
    if (name && connected.value) send(name)
  }
  watch(() => machine.axis?.name, look)

  /** A state, what travels, what samples are of, that there is no bench, or the end of one by a mistake of the server. */
  function heard(message: Message) {
    switch (message.type) {
      case 'state': return take(message as BenchState)
      case 'columns': return (columns = message as Columns)
      case 'process-data':
        if ((message as Schemas['ProcessData']).axis === machine.axis?.name) processData.value = message as Schemas['ProcessData']
        return
    }
    state.value = null
    processData.value = null
    samples.value = []
    if (message.type === 'off') condition.value = (message as Off).condition
    else machine.tell('Bench ended', (message as Ended).words)
  }

  function take(next: BenchState) {
    /* the answer to an order can come behind a message of the stream that is younger */
    if (state.value && next.number < state.value.number) return
    state.value = next
    condition.value = next.condition as Record<string, Mistake[]>
  }

  function append(view: DataView) {
    /* samples of a bench that has been replaced */
    if (!state.value || view.getInt32(0) !== columns.key) return
    const count = 1 + columns.names.length
    const head = 4
    const rowBytes = 8 + 4 * (count - 1)
    const rows = (view.byteLength - head) / rowBytes
    let kept = samples.value.length === count ? samples.value : Array.from({ length: count }, () => [] as number[])
    const last = kept[0][kept[0].length - 1] ?? -1
    if (rows > 0 && view.getFloat64(head) <= last) kept = kept.map(() => [])
    if (kept[0].length + rows > 2 * KEPT) kept = kept.map((column) => column.slice(Math.max(0, column.length + rows - KEPT)))
    for (let row = 0; row < rows; row++) {
      const at = head + row * rowBytes
      kept[0].push(view.getFloat64(at))
      for (let c = 1; c < count; c++) kept[c].push(view.getFloat32(at + 8 + 4 * (c - 1)))
    }
    samples.value = [...kept]
  }

  /** Values of a signal by its name, as many as there are times. */
  const column = (name: string) => samples.value[1 + columns.names.indexOf(name)] ?? []

  /** Makes the bench anew from the saved machine. */
  async function start(program: 'PROGRAM' | 'HOMING', running: boolean, retained = false) {
    await machine.flush()
    if (machine.conflict !== null) return
    samples.value = []
    const made = await machine.guarded(() => api.startBench(machine.id, program, machine.axis?.name ?? '', running, retained))
    if (made) take(made)
  }

  async function order(what: 'run' | 'hold' | 'cycle' | 'stop') {
    if (!state.value && what !== 'stop') return start('PROGRAM', what === 'run')
    if (!state.value) return
    const next = await machine.guarded(() => api.bench(machine.id, what))
    if (next) take(next)
  }

  /** An order whose answer is the new state. */
  async function taken(order: () => Promise<BenchState>) {
    const next = await machine.guarded(order)
    if (next) take(next)
    return Boolean(next)
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

  return { device, deviceOpen, condition, setCondition, state, processData, column, connected, samples, behind, start, order, oneCycle, setSpeed, taken }
})
