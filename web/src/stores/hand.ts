import { useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { api, Problem, showControlKey, type HandOrderKind } from '../api/client'
import { useBench } from './bench'
import { useMachine } from './machine'

/** Moving by hand: this page holds the control lease, renews it at half the monitoring time, and gives orders. */
export const useHand = defineStore('hand', () => {
  const machine = useMachine()
  const bench = useBench()
  const key = ref('')
  watch(key, showControlKey, { flush: 'sync' })
  const monitoring = ref(2)
  const open = ref(false)
  /** Why the last order was refused. */
  const refusal = ref('')
  const lost = ref(false)

  const renewal = useIntervalFn(() => void renew(), () => (monitoring.value * 1000) / 2, { immediate: false })

  async function take() {
    await machine.flush()
    if (machine.conflict !== null) return
    lost.value = false
    refusal.value = ''
    const taken = await machine.guarded(() => api.takeControl(machine.id, monitoring.value))
    if (!taken) return
    key.value = taken.key
    if (!bench.state) bench.samples = []
    renewal.resume()
  }

  async function renew() {
    if (!key.value) return
    try {
      await api.renewControl(machine.id, key.value)
    } catch (error) {
      /* without an answer the server has let go by now, or will have */
      if (error instanceof Problem) gone()
    }
  }

  function gone() {
    renewal.pause()
    key.value = ''
    lost.value = true
  }

  async function release() {
    const mine = key.value
    renewal.pause()
    key.value = ''
    refusal.value = ''
    if (mine) await machine.guarded(() => api.releaseControl(machine.id, mine))
  }

  /* whoever goes to another machine gives control back: the axes ramp down there */
  watch(() => machine.id, (_, left) => {
    const mine = key.value
    renewal.pause()
    key.value = ''
    refusal.value = ''
    lost.value = false
    open.value = false
    /* without an answer it ends by itself, after the monitoring time */
    if (mine) void api.releaseControl(left, mine).catch(() => undefined)
  }, { flush: 'sync' })

  async function order(kind: HandOrderKind, value?: number, fast?: boolean, terminal?: string, axis = machine.axis?.name, speedLimit?: number) {
    if (!key.value || !axis) return
    try {
      const answer = await api.handOrder(machine.id, key.value, { axis, order: kind, value, fast, terminal, speedLimit })
      refusal.value = answer.refusal ?? ''
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      if (error.status === 404 || error.status === 0) gone()
      else refusal.value = error.detail
    }
  }

  async function releaseForces() {
    for (const axis of bench.state?.axes ?? []) if (axis.forcedInputs || axis.forcedOutputs || axis.forcedControlBits || axis.forcedStatusBits) await order('RELEASE_FORCES', undefined, undefined, undefined, axis.name)
  }

  return { releaseForces, key, monitoring, open, refusal, lost, take, release, order }
})
