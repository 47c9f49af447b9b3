/** A moment as people write it here: the date, and the time of day. */
export function moment(instant: string): string {
  const time = new Date(instant)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())} ${two(time.getHours())}:${two(time.getMinutes())}`
}
