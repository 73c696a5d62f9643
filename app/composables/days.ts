const DAY = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' })
const HOUR = new Intl.DateTimeFormat('en-GB', { timeStyle: 'short' })

/** A day in words: “26 Nov 2026”. */
export const dayWords = (ms: number): string => DAY.format(ms)

/** A moment in words: the hour alone if it was today. */
export const momentWords = (ms: number, now = Date.now()): string =>
  dayWords(ms) === dayWords(now) ? `today at ${HOUR.format(ms)}` : `${dayWords(ms)}, ${HOUR.format(ms)}`

/** A span of hours in words: “2.5 – 3.4 h”, “20 – 30 min”. */
export function spanWords({ least, most }: { readonly least: number; readonly most: number }): string {
  const [unit, by] = most < 1 ? ['min', 60] : ['h', 1]
  const show = (n: number) => (unit === 'min' ? String(Math.ceil(n * by)) : (Math.round(n * 10) / 10).toFixed(1))
  return show(least) === show(most) ? `${show(most)} ${unit}` : `${show(least)} – ${show(most)} ${unit}`
}

const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' })

/** A day of the calendar (ISO 8601) in words: “Thursday 26 November”. */
export const weekdayWords = (day: string): string => WEEKDAY.format(Date.parse(`${day}T00:00:00Z`))

/** Today where this browser is, ISO 8601. */
export function todayHere(now = new Date()): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
