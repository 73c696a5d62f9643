import { requireSpec } from '../../bead/spec'
import type { Row } from '../../recipe/rows'
import { plainNumber } from '../../units/length'
import { placesOnFrame } from '../../wire/frame'
import { boxOf } from '../../wire/shape'
import type { Settings, Work } from '../technique'
import type { Cross, CrossSide, CrossView, Sizing } from '../wire-side'
import { resizedAbout } from './about'
import { FILLINGS } from './fillings'
import { longOfRow } from './filling'
import {
  beadsFor,
  crossesOf,
  frameCurve,
  outline,
  framePlanSchema,
  frameSettings,
  frameSize,
  freeMmOf,
  gauged,
  readFrame,
  topLoop,
  type OwnFrame,
} from './frame-own'
import { differs } from './wire-work'
import { measure, type Bent, layCross, MOST_ACROSS, proposed } from './frame-laid'

/** Lines of a frame when they are full, its other sizes, and what it is begun with. */

const lineBead = (work: Work, line: readonly number[], r: number, lines: readonly (readonly number[])[]) => {
  const known = new Map<number, Work['bead']>()
  lines.forEach((one, at) => one.forEach((number, c) => known.set(number, work.beadAt?.(c, at) ?? work.bead)))
  return line.map((number) => known.get(number) ?? work.beadAt?.(0, r) ?? work.bead)
}

/** A line with as many beads as its frame takes, grown about its middle so that it stays its own mirror. */
function fullFrame(
  own: OwnFrame,
  line: readonly number[],
  freeMm: number,
  rowOf: (line: readonly number[]) => Row,
): number[] {
  const curve = frameCurve(own, rowOf(line), freeMm)
  const fits = (count: number): boolean => {
    const row = rowOf(resizedAbout(line, count))
    return row.length === count && beadsFor({ ...own, even: false }, curve, row, freeMm) >= count
  }
  const step = own.even ? 2 : 1
  const first = beadsFor(own, curve, rowOf(line), freeMm)
  let count = Math.max(step, first - (first % step))
  while (count > step && !fits(count)) count -= step
  while (count < MOST_ON_FRAME && fits(count + step)) count += step
  return resizedAbout(line, count)
}
const MOST_ON_FRAME = 400

/** Settings that decide how many beads a frame and what crosses it have room for. */
const ROOM = [
  ...(['shape', 'by', 'wide', 'long', 'upper', 'corners', 'rounded', 'open', 'source'] as const),
  ...(['even', 'room', 'cross', 'turns'] as const),
]

export function full(lines: readonly (readonly number[])[], work: Work, from?: Settings): number[][] {
  if (!differs(from, work.settings, ROOM)) return lines.map((line) => [...line])
  const rows = lines.map((line, r) => lineBead(work, line, r, lines))
  const asked = readFrame(work.settings)
  const [first = [], ...rest] = lines
  const cycle = rows[0] ?? []
  const plan = crossesOf(asked, work.plan, rest.length, first.length)
  const own = gauged(
    asked,
    rows,
    plan.map(({ filling }) => filling),
  )
  const freeMm = freeMmOf(own, cycle, plan)
  const frame =
    own.by === 'size' && first.length > 0
      ? fullFrame(own, first, freeMm, (line) => lineBead(work, line, 0, lines))
      : [...first]
  const beads = lineBead(work, frame, 0, lines)
  const bent = bentOf(own, beads, freeMm)
  const crosses = crossesOf(own, work.plan, rest.length, frame.length)
  return [
    frame,
    ...rest.map((line, k) => {
      const cross = crosses[k]!
      // Wires that nobody has placed move with the frame.
      return line.length === 0 ? [] : refilled(line, rows[k + 1]!, cross, bent)
    }),
  ]
}

function bentOf(own: OwnFrame, beads: Row, freeMm: number): Bent {
  const curve = frameCurve(own, beads, freeMm)
  return { curve, beads, places: placesOnFrame(curve, beads).places }
}

/** A line of a filling with as many beads as its room takes; as it is where it holds as many already. */
function refilled(line: readonly number[], row: Row, cross: Cross, bent: Bent): number[] {
  if (cross.filling === 'straight') return straightFull(line, row, (beads) => layCross(bent, cross, beads).freeMm)
  const small = row.reduce((best, bead) => (bead.d < best.d ? bead : best))
  const large = row.reduce((best, bead) => (bead.d > best.d ? bead : best))
  const parts = proposed(bent, cross, small, large)
  if (parts.length === line.length) return [...line]
  const number = (part: number) => line[row.findIndex((bead) => bead.id === (part === 0 ? small : large).id)]!
  return parts.map(number)
}

/** A straight run made longer or shorter about its middle, two beads at a time, by the room of what it becomes. */
function straightFull(line: readonly number[], row: Row, roomMm: (row: Row) => number): number[] {
  const fits = (beads: Row) => longOfRow(beads) <= roomMm(beads) + 1e-9
  const shorter = <T>(list: readonly T[]): T[] => (list.length > 2 ? list.slice(1, -1) : list.slice(1))
  const longer = <T>(list: readonly T[]): T[] => [list[0]!, ...list, list.at(-1)!]
  let [numbers, beads] = [[...line], [...row]]
  while (!fits(beads) && beads.length > 1) [numbers, beads] = [shorter(numbers), shorter(beads)]
  while (beads.length > 0 && beads.length < MOST_ACROSS && fits(longer(beads)))
    [numbers, beads] = [longer(numbers), longer(beads)]
  return numbers
}

/** The same frame so much larger or smaller, and so much more open, that it hangs to a length. */
export function sizedTo(lengthMm: number, work: Work): Sizing[] {
  const { own, curve, beads, freeMm } = measure(work)
  const now = frameSize(own, curve, beads)
  const bare = topLoop(own).upMm + now.thick / 2
  const tall = now.box.bottom - now.box.top
  const share = (lengthMm - bare) / tall
  if (!(share > 0)) return []
  const round = (value: number) => Math.round(value * 10) / 10
  const whole = boxOf(outline(own, beads, freeMm))
  const measures = [whole.right - whole.left, whole.bottom - whole.top, own.open]
  const [wide, long, open] = measures.map((one) => round(one * share)) as [number, number, number]
  const settings = frameSettings.safeParse({ ...work.settings, by: 'size', wide, long, open })
  return settings.success
    ? [{ settings: settings.data, says: `a frame ${plainNumber(wide)} × ${plainNumber(long)} mm` }]
    : []
}

export const crossSide: CrossSide = {
  fillings: FILLINGS.map(({ id, name, says }) => ({ id, name, says })),
  of: (work): CrossView[] =>
    measure(work).crosses.map(({ gap, left, filling, freeMm, filled }) => ({
      ...{ gap, left, filling, freeMm, longMm: filled.longMm },
    })),
  lastGap: (work) => Math.max(1, (work.lineLength?.(0) ?? 2) - 1),
  plan: (crosses) => framePlanSchema.parse({ crosses }),
  line: (cross, work, { small, large, specOf }) =>
    proposed(measure(work), cross, specOf(small), specOf(large)).map((part) => (part === 0 ? small : large)),
}

/** Sizes of the beads that a frame is begun with beside its own: seeds across, and a large one. */
export const SIZES = ['round-11', 'ball-4-mm'] as const
const specOf = (id: string) => requireSpec(id)

/** Lines that a frame begins with: its beads, and its wires across. */
function firstParts(work: Pick<Work, 'bead' | 'settings' | 'plan'>, specs: readonly Work['bead'][]): number[][] {
  const asked = readFrame(work.settings)
  const [bead, small, large] = specs as [Work['bead'], Work['bead'], Work['bead']]
  const own = gauged({ ...asked, by: 'size' }, [[bead], [small, large]], [asked.filling])
  const freeMm = freeMmOf(own, [bead], crossesOf(own, work.plan, own.crosses, 2))
  const curve = frameCurve(own, [], freeMm)
  const count = beadsFor(own, curve, [bead], freeMm)
  const beads = Array.from({ length: count }, () => bead)
  const bent = { curve, beads, places: placesOnFrame(curve, beads).places }
  return [
    Array<number>(count).fill(0),
    ...crossesOf(own, work.plan, own.crosses, count).map((cross) =>
      proposed(bent, cross, small, large).map((part) => part + 1),
    ),
  ]
}

/** What a frame begins with, kept by its settings. */
const kept = new WeakMap<Settings, { readonly bead: string; readonly parts: number[][] }>()
export function partsOf(work: Pick<Work, 'bead' | 'settings' | 'plan'>): number[][] {
  let known = kept.get(work.settings)
  if (known?.bead !== work.bead.id) {
    known = { bead: work.bead.id, parts: firstParts(work, [work.bead, ...SIZES.map(specOf)]) }
    kept.set(work.settings, known)
  }
  return known.parts
}
