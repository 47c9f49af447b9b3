/** What a user typed as a number, or null: point or comma, spaces and a typographic minus allowed. */
export function parsed(text: string): number | null {
  const plain = text.trim().replace(/[\s\u202f\u00a0]/g, '').replace('\u2212', '-').replace(',', '.')
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain)) return null
  const value = Number(plain)
  return Number.isFinite(value) ? value : null
}

/** Fixed decimals with a typographic minus; a rounded zero has no sign. */
export function fixed(value: number | null | undefined, decimals: number): string {
  if (value == null || !Number.isFinite(value)) return '–'
  const text = value.toFixed(decimals)
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '\u2212')
}

/** Machine time as hours, minutes and seconds. */
export function clock(seconds: number): string {
  const millis = Math.round(seconds * 1000)
  const whole = Math.floor(millis / 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(Math.floor(whole / 3600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}.${String(millis % 1000).padStart(3, '0')}`
}

/** A number as it stands in a field: small ones with an exponent, so that they fit. */
export function plain(value: number): string {
  return value !== 0 && Math.abs(value) < 1e-3 ? value.toExponential() : String(value)
}

/** A whole number with its thousands apart. */
export function grouped(value: number): string {
  return String(value).replace(/\B(?=(\d{3})+$)/g, '\u202f')
}

/** So many significant figures, with a typographic minus. */
export function significant(value: number | null | undefined, figures = 4): string {
  if (value == null || !Number.isFinite(value)) return '–'
  if (value === 0) return '0'
  const magnitude = Math.floor(Math.log10(Math.abs(value)))
  if (magnitude >= 9 || magnitude < -5) return value.toExponential(figures - 1).replace('-', '\u2212')
  return fixed(value, Math.max(0, figures - 1 - magnitude))
}
