import { computed } from 'vue'
import { useAxis } from './axis'

/** When a written value begins to act. */
const ACTS = { AT_ONCE: 'at once', WHILE_DISABLED: 'while disabled', AFTER_RESTART: 'after a restart' }

/** Unit of a value, by the end of its place; u stands for the user unit. */
const UNITS: [RegExp, string][] = [
  [/positionGain$/, '1/s'], [/velocityGain$/, 'N·m·s/rad'], [/(integralTime|Dwell|Tolerance|ErrorTime|stopTime|Millis)$/, 'ms'], [/timeLimit$/, 's'], [/filterMicros$/, 'µs'],
  [/(limits\/(normal|max)\/torque|stopTorque|analogueTorque)$/, '% of rated'], [/brake\/torque$/, 'N·m'], [/(peed|followingFrom)$/, 'u/s'], [/(cceleration|deceleration|quickStop)$/, 'u/s²'], [/jerk$/, 'u/s³'],
  [/(soft(Min|Max)|Window|followingError|followingErrorAtSpeed|Offset|zone(From|To)|modulo|backlash)$/, 'u'], [/mass$/, 'kg'], [/inertia$/, 'kg·m²'], [/slope$/, '°'], [/stiffness$/, 'N·m/rad'],
  [/damping$/, 'N·m·s/rad'], [/(Bits)$/, 'bit'],
]

/** How the parameters of the chosen axis are called, and their units, by their place in the document of the axis. */
export function useParameters() {
  const { axis, unit } = useAxis()
  /** /wiring/terminals/3/filterMicros becomes "I4 filter micros", /control/positionGain "position gain". */
  function words(name: string) {
    const terminal = /^\/wiring\/terminals\/(\d+)\/(.*)$/.exec(name)
    const parts = terminal ? [axis.value.wiring.terminals[Number(terminal[1])]?.name ?? 'terminal', terminal[2]] : name.split('/').slice(2)
    return (parts.length ? parts : [name.slice(1)]).join(' ').replace(/([a-z])([A-Z])/g, '$1 $2').replace(/ [A-Z]/g, (c) => c.toLowerCase())
  }
  const linear = computed(() => ['SCREW', 'RACK', 'BELT'].includes(axis.value.train.feed.kind))
  const unitOf = (name: string) => (name.endsWith('/coulomb') ? (linear.value ? 'N' : 'N·m') : name.endsWith('/viscous') ? (linear.value ? 'N·s/m' : 'N·m·s/rad') : (UNITS.find(([end]) => end.test(name))?.[1] ?? '').replace(/^u/, unit.value))
  return { words, unitOf, ACTS }
}
