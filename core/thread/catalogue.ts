import type { ThreadGauge } from '../bead/hole'

interface ThreadEntry extends ThreadGauge {
  readonly id: string
  readonly name: string
}
interface NeedleEntry {
  readonly id: string
  readonly name: string
  readonly eyeMm: number
}

const thread = (id: string, name: string, diameterMm: number, flattens: boolean): ThreadEntry => ({
  id,
  name,
  diameterMm,
  flattens,
})

/** Common diameters, mm (common practice). Gel-spun and nylon flatten a little, monofilament does not. */
export const THREADS: readonly ThreadEntry[] = [
  thread('gel-4', 'gel-spun 4 lb', 0.13, true),
  thread('gel-6', 'gel-spun 6 lb', 0.15, true),
  thread('gel-8', 'gel-spun 8 lb', 0.18, true),
  thread('gel-10', 'gel-spun 10 lb', 0.2, true),
  thread('nylon-00', 'nylon 00', 0.08, true),
  thread('nylon-0', 'nylon 0', 0.1, true),
  thread('nylon-a', 'nylon A', 0.12, true),
  thread('nylon-b', 'nylon B', 0.2, true),
  thread('nylon-d', 'nylon D', 0.3, true),
  thread('mono-15', 'monofilament 0.15', 0.15, false),
  thread('mono-20', 'monofilament 0.20', 0.2, false),
  thread('mono-25', 'monofilament 0.25', 0.25, false),
  thread('mono-30', 'monofilament 0.30', 0.3, false),
]

/** Beading needles by size with the width across the eye, mm (common practice). */
export const NEEDLES: readonly NeedleEntry[] = [
  { id: '10', name: 'size 10', eyeMm: 0.55 },
  { id: '11', name: 'size 11', eyeMm: 0.5 },
  { id: '12', name: 'size 12', eyeMm: 0.45 },
  { id: '13', name: 'size 13', eyeMm: 0.4 },
  { id: '15', name: 'size 15', eyeMm: 0.35 },
]

const threads = new Map(THREADS.map((t) => [t.id, t]))
const needles = new Map(NEEDLES.map((n) => [n.id, n]))

export const THREAD_IDS = THREADS.map((t) => t.id)
export const NEEDLE_IDS = NEEDLES.map((n) => n.id)

export function requireThread(id: string): ThreadEntry {
  const found = threads.get(id)
  if (!found) throw new Error(`no thread has the id ${JSON.stringify(id)}`)
  return found
}

export function requireNeedle(id: string): NeedleEntry {
  const found = needles.get(id)
  if (!found) throw new Error(`no needle has the id ${JSON.stringify(id)}`)
  return found
}
