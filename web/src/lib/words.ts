/** Bits of controlword and statusword by the names of IEC 61800-7-201; bits 4 to 6, 8, 12 and 13 depend on the mode. */
const CONTROL = ['switch on', 'enable voltage', 'quick stop (0 stops)', 'enable operation', '', '', '', 'fault reset', 'halt']
const STATUS = ['ready to switch on', 'switched on', 'operation enabled', 'fault', 'voltage enabled', 'quick stop (0 stops)', 'switch on disabled', 'warning',
  'referenced', 'remote', 'target reached', 'internal limit active']

export interface Bit { number: number; name: string; on: boolean }

const HOMING = 6

function bits(word: number, names: Record<number, string>): Bit[] {
  return Object.entries(names).filter(([, name]) => name).map(([number, name]) => ({ number: Number(number), name, on: ((word >> Number(number)) & 1) === 1 }))
}

export function controlBits(word: number, mode: number): Bit[] {
  return bits(word, { ...CONTROL, 4: mode === HOMING ? 'start homing' : '' })
}

export function statusBits(word: number, mode: number): Bit[] {
  return bits(word, { ...STATUS, 12: mode === HOMING ? 'homing attained' : 'follows the setpoint', 13: mode === HOMING ? 'homing error' : 'following error' })
}
