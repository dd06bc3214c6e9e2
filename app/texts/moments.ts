/** A moment as a date and a time of day; the day alone is left out where it is today. */
export function momentText(time: number, now = Date.now()): string {
  const date = new Date(time)
  const clock = date.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
  if (new Date(now).toDateString() === date.toDateString()) return `today, ${clock}`
  const year = new Date(now).getFullYear() === date.getFullYear() ? {} : ({ year: 'numeric' } as const)
  return `${date.toLocaleDateString(undefined, { day: 'numeric', month: 'short', ...year })}, ${clock}`
}

/** A number of bytes, as files are told. */
export function bytesText(bytes: number): string {
  if (bytes < 1024) return `${bytes} bytes`
  const [value, unit] = bytes < 1024 ** 2 ? [bytes / 1024, 'kB'] : [bytes / 1024 ** 2, 'MB']
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} ${unit}`
}

export function countText(count: number, one: string, many = `${one}s`): string {
  return count === 1 ? `1 ${one}` : `${count} ${many}`
}
