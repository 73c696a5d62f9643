import { nextOnTray, type TrayBead } from '../bead/bead'
import { linesOf } from '../grid/lines'
import { requireTechnique } from '../technique/registry'
import type { PickedBead, PickedLines } from '../technique/picked'
import { rowsOf, type Part, type Piece, type SectionName } from './piece'

/** Lines of a part as numbers of the tray, and beads that the tray needs besides. */
interface PickedAnew {
  readonly added: readonly TrayBead[]
  readonly times: number
  readonly start: readonly (readonly number[])[]
  readonly repeat: readonly (readonly number[])[]
  readonly end: readonly (readonly number[])[]
}

/** What plan and settings make of the lines; in another technique of recipes, where it is named. */
type Ways = Pick<Part, 'settings' | 'plan'> & { readonly technique?: string }

/** Lines of a repeat at most that are written out so that a longer period has room in them. */
export const MOST_LINES = 96

export const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))

/** Beads that are added to a tray are of this colour until another one is chosen. */
const FRESH = { colour: '#6d8f5a', finish: 'opaque' } as const

/**
 * The lines of a part when its plan or its settings are others: each line becomes what is picked up there then. A bead
 * keeps its colour where one of its name and place was; else it takes the last colour of the part that it plays, or
 * the first of its size on the tray, which is added where it is not there. Parts keep the size in which they are laid,
 * unless the new plan asks for another. `wished` names beads of the tray for parts that nothing played before. A
 * repeat is written out as often as a longer period needs.
 */
export function pickedAnew(
  piece: Pick<Piece, 'tray'>,
  part: Part,
  to: Ways,
  wished: ReadonlyMap<string, number> = new Map(),
): PickedAnew | null {
  const technique = requireTechnique(part.technique)
  const then = requireTechnique(to.technique ?? part.technique)
  if (!technique.picks || !then.picks) return null
  const was = technique.picks(part, 2)
  const edges = (was.start.length > 0 ? 1 : 0) + (was.end.length > 0 ? 1 : 0)
  const motifs = Math.max(0, rowsOf(part) - edges)
  const [old, next] = [technique.picks(part, motifs), then.picks(to, motifs)]
  const asked = then.picks(to, 2)
  const whole = unrolled(part, then.first?.period?.(to) ?? 1)
  const { repeat, times, ...ends } = alike(whole, whole.start.length - (was.start.length > 0 ? 1 : 0), next)

  const tray = [...piece.tray]
  const specOf = new Map(tray.map((bead) => [bead.number, bead.spec]))
  const laid = laidSpecs(part, old, was, specOf)
  const before = specsOf(was, old)
  const wanted = ({ slot, spec }: PickedBead): string => (before.get(slot) === spec ? (laid.get(slot) ?? spec) : spec)
  const fresh = new Map<string, number>()
  const numberFor = (bead: PickedBead): number => {
    const spec = wanted(bead)
    const fitting = tray.filter((one) => one.spec === spec)
    const first = fitting.find(({ number }) => number === wished.get(bead.slot)) ?? fitting[0]
    const known = fresh.get(bead.slot) ?? first?.number
    if (known !== undefined) return known
    const added = { ...nextOnTray(tray), name: bead.called, spec, ...FRESH }
    tray.push(added)
    specOf.set(added.number, spec)
    return added.number
  }
  /** Numbers of a line as it is now. */
  const line = (beads: readonly PickedBead[], from: readonly PickedBead[], numbers: readonly number[]): number[] => {
    const byKey = new Map(from.map(({ key }, k) => [key, numbers[k] ?? 0]))
    const bySlot = new Map(from.map(({ slot }, k) => [slot, numbers[k] ?? 0]))
    return beads.map((bead) => {
      const fits = (number: number | undefined): number | undefined =>
        number !== undefined && specOf.get(number) === wanted(bead) ? number : undefined
      const number = fits(byKey.get(bead.key)) ?? fits(bySlot.get(bead.slot)) ?? numberFor(bead)
      fresh.set(bead.slot, number)
      return number
    })
  }
  const [start, end] = [[...ends.start], [...ends.end]]
  const first = was.start.length > 0 ? (start.shift() ?? []) : []
  const last = was.end.length > 0 ? (end.pop() ?? []) : []
  let m = 0
  const motif = (numbers: readonly number[]): number[] => {
    const done = line(next.motif(m), old.motif(m), numbers)
    m++
    return done
  }
  const begun = [...(asked.start.length > 0 ? [line(next.start, old.start, first)] : []), ...start.map(motif)]
  const repeated = repeat.map(motif)
  m = motifs - end.length
  const ended = [...end.map(motif), ...(asked.end.length > 0 ? [line(next.end, old.end, last)] : [])]
  return { added: tray.slice(piece.tray.length), times, start: begun, repeat: repeated, end: ended }
}

/** The sections with a repeat of so many lines, or a multiple of it; what does not fill one goes to the end. */
export function unrolled(part: Part, period: number) {
  const lines = (section: SectionName): number[][] => linesOf(part[section]).map((one) => [...one])
  const [start, repeat, end] = [lines('start'), lines('repeat'), lines('end')]
  const { times } = part
  const many = repeat.length === 0 ? 1 : period / gcd(period, repeat.length)
  if (many === 1 || times === 0 || repeat.length * many > MOST_LINES) return { start, repeat, end, times }
  const copies = (count: number): number[][] => Array.from({ length: count }, () => repeat).flat()
  const whole = Math.floor(times / many)
  const left = times - whole * many
  return whole === 0
    ? { start: [...start, ...copies(times)], repeat, end, times: 0 }
    : { start, repeat: copies(many), end: [...copies(left), ...end], times: whole }
}

type Sections = ReturnType<typeof unrolled>

/**
 * The sections with a repeat whose copies all pick up the same: a first or a last one that picks up otherwise, as
 * where the ends of a ring meet, is written out before or behind it. `first` motifs stand before the repeat.
 */
function alike({ start, repeat, end, times }: Sections, first: number, { motif }: PickedLines): Sections {
  const many = repeat.length
  const textOf = (copy: number): string =>
    repeat
      .map((_, k) =>
        motif(first + copy * many + k)
          .map(({ key }) => key)
          .join(),
      )
      .join(' ')
  const usual = textOf(Math.floor(times / 2))
  let [from, until] = [0, times]
  while (from < until - 1 && textOf(from) !== usual) from++
  while (until > from + 1 && textOf(until - 1) !== usual) until--
  const copies = (count: number): number[][] => Array.from({ length: count }, () => repeat).flat()
  return { start: [...start, ...copies(from)], repeat, end: [...copies(times - until), ...end], times: until - from }
}

/** Specs that the parts of some lines are asked in. */
function specsOf(...all: readonly PickedLines[]): Map<string, string> {
  const out = new Map<string, string>()
  for (const { start, motif, end } of all)
    for (const { slot, spec } of [...start, ...motif(0), ...motif(1), ...end]) out.set(slot, spec)
  return out
}

/** Specs in which the parts are laid: that of the first bead of each. */
function laidSpecs(
  part: Part,
  lines: PickedLines,
  { start: first }: PickedLines,
  specOf: ReadonlyMap<number, string>,
): Map<string, string> {
  const out = new Map<string, string>()
  const take = (beads: readonly PickedBead[], numbers: readonly number[]): void =>
    beads.forEach(({ slot }, k) => {
      const spec = specOf.get(numbers[k] ?? 0)
      if (spec && !out.has(slot)) out.set(slot, spec)
    })
  const numbers = (['start', 'repeat', 'end'] as const).flatMap((section) =>
    linesOf(part[section]).map((one) => [...one]),
  )
  const offset = first.length > 0 ? 1 : 0
  numbers.forEach((own, r) => take(r < offset ? lines.start : lines.motif(r - offset), own))
  const last = linesOf(part.end).at(-1)
  if (lines.end.length > 0 && last) take(lines.end, [...last])
  return out
}
