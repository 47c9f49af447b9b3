import { computed } from 'vue'
import { useAxis } from './axis'

/** What the chosen axis follows: another axis, a virtual master, or the encoder at its second input. */
export function useMaster() {
  const { machine, axis, bench } = useAxis()
  const following = computed(() => axis.value.following)
  const encoder = computed(() => following.value.source === 'ENCODER')
  const other = computed(() => (encoder.value ? undefined : machine.draft?.axes.find((a) => a.name === following.value.master)))
  const virtual = computed(() => (encoder.value ? undefined : machine.draft?.plc.virtualMasters.find((v) => v.name === following.value.master)))
  const unit = computed(() => (encoder.value ? following.value.encoder.unit : (other.value?.unit.symbol ?? virtual.value?.unit.symbol ?? '')))
  const usualSpeed = computed(() => (encoder.value ? Math.abs(following.value.encoder.speed) : (other.value?.limits.normal.speed ?? virtual.value?.speed ?? 0)))
  /** Its speed on the bench, and whether it takes orders there. */
  const live = computed(() => {
    const name = following.value.master
    const axisLive = bench.state?.axes.find((a) => a.name === name)
    if (axisLive) return { speed: axisLive.speed, enabled: axisLive.power === 'OPERATION_ENABLED' }
    const line = bench.state?.virtualMasters.find((v) => v.name === name)
    return line ? { speed: line.speed, enabled: line.enabled } : null
  })
  return { encoder, other, virtual, unit, usualSpeed, live }
}
