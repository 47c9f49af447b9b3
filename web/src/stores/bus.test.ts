import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Entry, FamilyView, Machine } from '../api/client'
import { ordered, stateOf, useBus } from './bus'
import { useMachine } from './machine'

const entry = (object: number, bits: number, pdo = 1) => ({ pdo, object, subIndex: 0, bits, name: '', tag: '', tagType: '', unit: '', factor: 1 }) as Entry
const item = (object: number, bits: number, meaning: string, signed = true) => ({ object, subIndex: 0, bits, signed, title: meaning.toLowerCase(), symbol: '', toDrive: true, toPlc: true, meaning })

function on(family: string, lowWordFirst = false) {
  useMachine().draft = { axes: [], bus: { family, lowWordFirst } } as unknown as Machine
  useBus().families = [{ family, items: [item(0x607a, 32, 'POSITION'), item(7, 32, 'N4'), item(0x6077, 16, 'TORQUE'), item(0x60fd, 32, 'SWITCHES', false)] }] as unknown as FamilyView[]
  return useBus()
}

describe('bus', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('places entries one after the other, a message on a byte', () => {
    expect(on('CANOPEN').offsets([entry(1, 16), entry(2, 1), entry(3, 8, 2), entry(4, 32, 2)])).toEqual([0, 16, 24, 32])
  })

  it('reads a value in the order of the bus', () => {
    const bytes = [0x78, 0x56, 0x34, 0x12]
    expect(on('ETHERCAT').rawOf(entry(0x607a, 32), 0, bytes)).toBe(0x12345678n)
    expect(on('PROFINET').rawOf(entry(0x607a, 32), 0, bytes)).toBe(0x78563412n)
    expect(on('MODBUS_TCP').rawOf(entry(0x607a, 32), 0, bytes)).toBe(0x78563412n)
    expect(on('MODBUS_TCP', true).rawOf(entry(0x607a, 32), 0, bytes)).toBe(0x34127856n)
    expect(on('ETHERCAT').rawOf(entry(0x2000, 3), 5, [0b10100000])).toBe(0b101n)
    expect(on('ETHERCAT').rawOf(entry(0x607a, 32), 16, bytes)).toBeNull()
  })

  it('says what the bits mean, with their unit', () => {
    const unit = { symbol: 'mm', decimals: 4 }
    expect(on('ETHERCAT').meaning(entry(0x607a, 32), 4_120_000n, unit)).toBe('412.000 mm')
    expect(on('ETHERCAT').meaning(entry(0x607a, 32), 0xffffcf2cn, unit)).toMatch(/^[-−]1\.250 mm$/)
    expect(on('PROFINET').meaning(entry(7, 32), 0x40000000n, unit)).toBe('100.000 %')
    expect(on('ETHERCAT').meaning(entry(0x6077, 16), 1250n, unit)).toBe('125.0 % of rated')
    expect(on('ETHERCAT').meaning(entry(0x60fd, 32), 5n, unit)).toBe('negative limit, reference cam')
  })

  /* IEC 61800-7-201, table of the commands and of the states */
  it('names commands and states', () => {
    expect([0x06, 0x07, 0x0f, 0x02, 0x00, 0x80].map(ordered)).toEqual(['shutdown', 'switch on', 'enable operation', 'quick stop', 'disable voltage', 'fault reset'])
    expect([0x0250, 0x0231, 0x1237, 0x0008, 0x0017].map(stateOf)).toEqual(['switch on disabled', 'ready to switch on', 'operation enabled', 'fault', 'quick stop active'])
  })
})
