import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, type CyclicItem, type Entry, type FamilyView } from '../api/client'
import { fixed } from '../lib/numbers'
import { useMachine } from './machine'

export type BusDirection = 'outputs' | 'inputs'

/** What the bus of the machine decides, and the entry that is being looked at. */
export const useBus = defineStore('bus', () => {
  const machine = useMachine()
  const families = ref<FamilyView[]>([])
  const chosen = ref<{ direction: BusDirection; index: number }>({ direction: 'outputs', index: -1 })
  const family = computed(() => families.value.find((f) => f.family === machine.draft?.bus.family) ?? null)

  async function load() {
    if (families.value.length === 0) families.value = (await machine.guarded(() => api.families())) ?? []
  }

  function itemOf(entry: Entry): CyclicItem | undefined {
    return family.value?.items.find((i) => i.object === entry.object && i.subIndex === entry.subIndex)
  }

  function titleOf(entry: Entry): string {
    if (entry.object === 0) return 'filler'
    return entry.name || itemOf(entry)?.title || `${entry.object.toString(16).toUpperCase()}h:${entry.subIndex}`
  }

  const symbolOf = (entry: Entry) => (entry.object === 0 ? '' : (itemOf(entry)?.symbol ?? ''))

  /** First bit of each entry; a message begins on a byte. */
  function offsets(entries: Entry[]): number[] {
    let bit = 0
    return entries.map((entry, i) => {
      if (i > 0 && entry.pdo !== entries[i - 1].pdo) bit = Math.ceil(bit / 8) * 8
      const at = bit
      bit += entry.bits
      return at
    })
  }

  /** Bits of an entry as they stand in the bytes of a cycle, not sign-extended; null when they are not there. */
  function rawOf(entry: Entry, offset: number, bytes: number[]): bigint | null {
    const first = Math.floor(offset / 8)
    const last = Math.floor((offset + entry.bits - 1) / 8)
    if (last >= bytes.length) return null
    const whole = offset % 8 === 0 && entry.bits % 8 === 0
    const order = machine.draft?.bus.family
    let part = bytes.slice(first, last + 1)
    if (whole && (order === 'PROFINET' || (order === 'MODBUS_TCP' && !machine.draft?.bus.lowWordFirst))) part = [...part].reverse()
    else if (whole && order === 'MODBUS_TCP' && part.length > 1) part = part.flatMap((_, i) => (i % 2 ? [] : [part[i + 1], part[i]]))
    const value = part.reduceRight((sum, byte) => sum * 256n + BigInt(byte), 0n)
    return (value >> BigInt(offset % 8)) & ((1n << BigInt(entry.bits)) - 1n)
  }

  /** What the bits mean, in the units of the axis. */
  function meaning(entry: Entry, raw: bigint, unit: { symbol: string; decimals: number }): string {
    const item = itemOf(entry)
    if (!item) return ''
    const value = Number(item.signed ? BigInt.asIntN(entry.bits, raw) : raw)
    switch (item.meaning) {
      case 'POSITION': return `${fixed(value / 10 ** unit.decimals, 3)} ${unit.symbol}`
      case 'SPEED': return `${fixed(value / 10 ** unit.decimals, 3)} ${unit.symbol}/s`
      case 'TORQUE': return `${fixed(value / 10, 1)} % of rated`
      case 'N2': return `${fixed((value / 0x4000) * 100, 2)} %`
      case 'N4': return `${fixed((value / 0x40000000) * 100, 3)} %`
      case 'GAIN': return `${fixed(value / 1000, 3)} 1/s`
      case 'SWITCHES': return ['negative limit', 'positive limit', 'reference cam'].filter((_, i) => (value >> i) & 1).join(', ') || 'no switch active'
      case 'MODE': return ({ 6: 'homing', 8: 'cyclic synchronous position', 10: 'cyclic synchronous torque' } as Record<number, string>)[value] ?? String(value)
      case 'CONTROLWORD': return ordered(value)
      case 'STATUSWORD': return stateOf(value)
      default: return String(value)
    }
  }

  return { families, family, chosen, load, itemOf, titleOf, symbolOf, offsets, rawOf, meaning }
})

/** The command a control word gives, by the table of IEC 61800-7-201; the first four bits of PROFIdrive's STW1 mean the same. */
export function ordered(word: number): string {
  if (word & 0x80) return 'fault reset'
  if (!(word & 2)) return 'disable voltage'
  if (!(word & 4)) return 'quick stop'
  if (!(word & 1)) return 'shutdown'
  if (!(word & 8)) return 'switch on'
  return 'enable operation'
}

export const STATES: { name: string; mask: number; pattern: number }[] = [
  { name: 'not ready to switch on', mask: 0x4f, pattern: 0x00 },
  { name: 'switch on disabled', mask: 0x4f, pattern: 0x40 },
  { name: 'ready to switch on', mask: 0x6f, pattern: 0x21 },
  { name: 'switched on', mask: 0x6f, pattern: 0x23 },
  { name: 'operation enabled', mask: 0x6f, pattern: 0x27 },
  { name: 'quick stop active', mask: 0x6f, pattern: 0x07 },
  { name: 'fault reaction active', mask: 0x4f, pattern: 0x0f },
  { name: 'fault', mask: 0x4f, pattern: 0x08 },
]

export function stateOf(word: number): string {
  return STATES.find((s) => (word & s.mask) === s.pattern)?.name ?? 'unknown state'
}
