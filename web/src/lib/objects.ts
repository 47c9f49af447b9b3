import type { Entry } from '../api/client'

/** Objects of the drive that can travel cyclically (IEC 61800-7-201), as the page names them. */
export const objects = [
  { object: 0x6040, subIndex: 0, bits: 16, type: 'UINT', title: 'Controlword', writable: true },
  { object: 0x607a, subIndex: 0, bits: 32, type: 'DINT', title: 'Target position', writable: true, signed: true, position: true },
  { object: 0x6060, subIndex: 0, bits: 8, type: 'SINT', title: 'Mode of operation', writable: true, signed: true },
  { object: 0x6072, subIndex: 0, bits: 16, type: 'UINT', title: 'Max torque', writable: true },
  { object: 0x6071, subIndex: 0, bits: 16, type: 'INT', title: 'Target torque', writable: true, signed: true },
  { object: 0x6041, subIndex: 0, bits: 16, type: 'UINT', title: 'Statusword' },
  { object: 0x6064, subIndex: 0, bits: 32, type: 'DINT', title: 'Position actual value', signed: true, position: true },
  { object: 0x606c, subIndex: 0, bits: 32, type: 'DINT', title: 'Velocity actual value', signed: true, position: true, speed: true },
  { object: 0x60f4, subIndex: 0, bits: 32, type: 'DINT', title: 'Following error actual value', signed: true, position: true },
  { object: 0x6077, subIndex: 0, bits: 16, type: 'INT', title: 'Torque actual value', signed: true },
  { object: 0x60fd, subIndex: 0, bits: 32, type: 'UDINT', title: 'Digital inputs' },
  { object: 0x2033, subIndex: 0, bits: 32, type: 'UDINT', title: 'Functions of the inputs' },
  { object: 0x60b9, subIndex: 0, bits: 16, type: 'UINT', title: 'Touch probe status' },
  { object: 0x60ba, subIndex: 0, bits: 32, type: 'DINT', title: 'Touch probe 1 position', signed: true, position: true },
  { object: 0x60bc, subIndex: 0, bits: 32, type: 'DINT', title: 'Touch probe 2 position', signed: true, position: true },
  { object: 0x2035, subIndex: 0, bits: 32, type: 'DINT', title: 'Encoder on the load', signed: true },
  { object: 0x603f, subIndex: 0, bits: 16, type: 'UINT', title: 'Error code' },
  { object: 0x6061, subIndex: 0, bits: 8, type: 'SINT', title: 'Mode of operation display', signed: true },
] as { object: number; subIndex: number; bits: number; type: string; title: string; writable?: boolean; signed?: boolean; position?: boolean; speed?: boolean }[]

export function objectName(entry: Entry): string {
  if (entry.object === 0) return 'filler'
  return objects.find((o) => o.object === entry.object && o.subIndex === entry.subIndex)?.title ?? `${entry.object.toString(16).toUpperCase()}h:${entry.subIndex}`
}
