import { collide, fanDegrees, HANGS_WELL_DEGREES, levelsFor, staggerMm, type Hung } from '../../hang/crowd'
import type { BeadSpec } from '../../bead/spec'
import { middleFirst, nearCounts, nearPlaces } from '../../hang/chain'
import { keptOf } from '../../recipe/hung'
import { stepBreaks } from '../../recipe/rows'
import { swagOf } from '../../hang/swag'
import { longOf, tenths, thickOf } from '../carrier/line'
import type { Finding, Work } from '../technique'
import { bodyOf, curtainOf, type Curtain, type Hanger } from './curtain'
import { alikeWith, strandPlanOf } from './strand-plan'
import type { Hanging } from './strand'

/** What of a fringe wants a look: places, crowding, lists that differ, lines that are not level, swags. */

/** Ends that differ by no more are level: beads of one bag vary as much, mm. */
const LEVEL_MM = 0.5

/** “2, 4 and 6”; of very many the first. */
function listed(numbers: readonly number[]): string {
  const shown = numbers.slice(0, 8).map((n) => String(n + 1))
  if (numbers.length > 8) return `${shown.join(', ')} and ${numbers.length - 8} more`
  return shown.length < 2 ? shown.join('') : `${shown.slice(0, -1).join(', ')} and ${shown.at(-1)}`
}
const strandsSay = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? 'Strand' : 'Strands'} ${listed(numbers)}`

/** The bead that most of a strand is made of, its end left out. */
function fillerOf(strand: Hanging): BeadSpec | null {
  const counts = new Map<BeadSpec, number>()
  for (const bead of strand.row.slice(0, keptOf(strand))) counts.set(bead, (counts.get(bead) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}

/** What hangs at the end of a strand, as an ellipse; null where that is no single bead. */
function endOf(strand: Hanging): Hung | null {
  const { row, beads, to, turning, endMm } = strand
  const last = row.at(-1)
  if (!last || to !== null || turning !== 1) return null
  const [wideMm, highMm] = last.hangs === undefined ? [last.l, last.d] : [last.d, last.hangs]
  return { x: beads.at(-1)!.x, y: endMm - highMm / 2, wideMm, highMm }
}

function crowding({ strands, pitchMm: placeMm, sharing: each }: Curtain): Finding[] {
  const pitchMm = placeMm / each
  const out: Finding[] = []
  const ends = strands.map(endOf)
  const touching = new Set<number>()
  let [apart, wide, high] = [Infinity, 0, 0]
  ends.forEach((a, i) => {
    for (let k = i + 1; a && k < Math.min(ends.length, i + 6); k++) {
      const b = ends[k]
      if (!b || !collide(a, b)) continue
      touching.add(k)
      apart = Math.min(apart, Math.abs(a.x - b.x))
      wide = Math.max(wide, (a.wideMm + b.wideMm) / 2)
      high = Math.max(high, (a.highMm + b.highMm) / 2)
    }
  })
  if (touching.size > 0) {
    const numbers = [...touching].sort((a, b) => a - b)
    const down = staggerMm(apart, wide, high)
    const filler = fillerOf(strands[numbers[0]!]!)
    const beads = filler ? Math.ceil(down / filler.l - 1e-9) : 0
    const levels = levelsFor(apart, wide)
    out.push({
      code: 'drops-touch',
      weight: 'note',
      lines: numbers,
      says:
        `The ends of ${strandsSay(numbers).toLowerCase()} touch their neighbours: they are ${tenths(wide)} mm wide ` +
        `and hang ${tenths(apart)} mm apart. ` +
        (levels > 2 ? `Let them hang at ${levels} levels in turn, each ` : 'Let every second strand be ') +
        (beads > 0 ? `${beads} ${beads === 1 ? 'bead' : 'beads'} longer` : `${tenths(down)} mm longer`) +
        ', or take every second place.',
    })
  }
  const body = Math.max(0, ...strands.map(bodyOf))
  const longest = Math.max(0, ...strands.map((s) => s.endMm - s.y))
  const lean = fanDegrees(strands.length, pitchMm, body, longest)
  if (body > pitchMm + 0.05 && strands.length > 1)
    out.push({
      code: 'fringe-fans',
      weight: 'note',
      says:
        `Strands ${tenths(body)} mm thick hang ${tenths(pitchMm)} mm apart: the fringe fans out, its outermost ` +
        `strands by ${Math.round(lean)}°${lean <= HANGS_WELL_DEGREES ? ', which hangs well' : ''}. ` +
        'Take larger beads on top, smaller ones below, or every second place.',
    })
  return out
}

/** Strands that have no place to hang from. */
function homeless({ strands }: Curtain, held: Work['held']): Finding[] {
  if (!held) return []
  const beyond = strands.flatMap(({ at, to }, i) => (Math.max(at, to ?? 0) >= held.places.length ? [i] : []))
  return beyond.length === 0
    ? []
    : [
        {
          code: 'strand-place',
          weight: 'stops',
          lines: beyond,
          says:
            `${strandsSay(beyond)} ${beyond.length === 1 ? 'has' : 'have'} no place to hang from: the edge has ` +
            `${held.places.length}. Take strands off, let two share a place, or make the edge longer.`,
        },
      ]
}

/** Strands that should hang in the middle of places that have none for them. */
function offMiddle({ strands }: Curtain, { held }: Work, { first, every, each }: Hanger): Finding[] {
  const places = held?.places ?? []
  const count = Math.ceil(strands.length / each)
  if (first > 0 || places.length === 0 || count === 0 || middleFirst(places.length, count, every) !== null) return []
  const thing = places.every(({ bead }) => bead) ? 'beads' : 'holes or links'
  const more = nearPlaces(places.length, count, every)
  const others = nearCounts(places.length, count, every)
  return [
    {
      code: 'strands-aside',
      weight: 'note',
      says:
        `${places.length} ${thing} have no middle for ${count} places${every > 1 ? `, one in every ${every}` : ''}: ` +
        `take ${more.join(' or ')} ${thing}${others.length > 0 ? `, or ${others.join(' or ')} places` : ''}.`,
    },
  ]
}

/** Dangles on links that stand across each other: they face in turns. */
export function turnedLinks({ strands, places }: Curtain, { every }: Hanger): Finding[] {
  const onEdge = strands.flatMap(({ at, row }, i) => (row.length > 0 && places[at]?.onEdge ? [i] : []))
  return onEdge.length === 0 || onEdge.length === strands.length
    ? []
    : [
        {
          code: 'dangles-turn',
          weight: 'note',
          lines: onEdge,
          says:
            `${strandsSay(onEdge)} hang${onEdge.length === 1 ? 's' : ''} from links on their edge, the others from ` +
            `links that lie flat: they face in turns. Hang them ${every % 2 === 0 ? every : every + 1} links apart, ` +
            'or put a ring between.',
        },
      ]
}

const totals = (strands: readonly Hanging[]): number[] => strands.map(({ row }) => row.length)

/** Lists that should be alike and are not, and a count that breaks the step of its neighbours. */
function counting({ strands }: Curtain, work: Work): Finding[] {
  const plan = strandPlanOf(work.plan)
  const out: Finding[] = []
  const text = (r: number) => strands[r]!.row.map(({ id }) => id).join()
  const odd = strands.flatMap((_, r) => {
    const other = alikeWith(plan, r, strands.length)[0]
    return other !== undefined && other > r && text(r) !== text(other) ? [[r, other] as const] : []
  })
  if (odd.length > 0) {
    const [a, b] = odd[0]!
    out.push({
      code: 'strands-differ',
      weight: 'looks',
      lines: odd.flatMap((pair) => [...pair]),
      says:
        `Strands ${a + 1} and ${b + 1} should be alike, and hold ${strands[a]!.row.length} and ` +
        `${strands[b]!.row.length} beads${odd.length > 1 ? `, and ${odd.length - 1} more pairs differ` : ''}. ` +
        'Change one of them, or let every strand be its own.',
    })
  }
  const half = plan.alike === 'mirror' ? totals(strands).slice(0, Math.ceil(strands.length / 2)) : totals(strands)
  const breaks = stepBreaks(half)
  // One count that is wrong breaks two steps that follow each other, and no other.
  if (half.length >= 5 && breaks.length === 2 && breaks[1] === breaks[0]! + 1) {
    const at = breaks[0]!
    const [before, own, behind] = [half[at - 1]!, half[at]!, half[at + 1]!]
    if ((before + behind) % 2 === 0 && own !== (before + behind) / 2)
      out.push({
        code: 'step-breaks',
        weight: 'looks',
        lines: [at],
        says:
          `Strand ${at + 1} holds ${own} beads; its neighbours hold ${before} and ${behind}. ` +
          `${(before + behind) / 2} would keep the step of ${Math.abs(behind - before) / 2}.`,
      })
  }
  return out
}

/** Ends so near to one line that they are meant to reach it, mm: two beads of the usual size. */
const MEANT_LEVEL_MM = 2.9

/** Strands that are meant to end level and do not, with the count that mends it. */
function levelness({ strands }: Curtain, work: Work): Finding[] {
  const ends = strands.filter(({ to, row }) => to === null && row.length > 0)
  const { rule } = strandPlanOf(work.plan)
  if (ends.length < 3) return []
  const sorted = ends.map((s) => s.endMm).sort((a, b) => a - b)
  const line = sorted[Math.floor(sorted.length / 2)]!
  const meant =
    rule?.edge === 'straight' || (!rule && sorted.at(-1)! - sorted[0]! <= MEANT_LEVEL_MM && sorted.length > 3)
  const off = strands.flatMap((s, i) =>
    ends.includes(s) && Math.abs(s.endMm - line) > LEVEL_MM ? [{ i, mm: s.endMm - line, strand: s }] : [],
  )
  if (!meant || off.length === 0) return []
  const { i, mm, strand } = off[0]!
  const filler = fillerOf(strand)
  const beads = filler ? Math.round(-mm / filler.l) : 0
  const left = filler ? Math.abs(mm + beads * filler.l) : Math.abs(mm)
  const fewer = Math.abs(beads) === 1
  const mend =
    beads !== 0 && left < Math.abs(mm) - 0.05
      ? ` ${Math.abs(beads)} ${filler!.name} ${beads > 0 ? 'more' : 'less'} ${fewer ? 'brings' : 'bring'} it to ` +
        `${tenths(left)} mm.`
      : ' A smaller bead above its end would even it.'
  return [
    {
      code: 'not-level',
      weight: 'looks',
      lines: off.map((o) => o.i),
      says:
        `Strand ${i + 1} ends ${tenths(Math.abs(mm))} mm ${mm > 0 ? 'below' : 'above'} the line of the others` +
        `${off.length > 1 ? `, and ${off.length - 1} more do not end on it` : ''}.${mend}`,
    },
  ]
}

/** Swags that do not reach, bend too tightly, or lie on each other. */
function swags({ strands, places }: Curtain): Finding[] {
  const out: Finding[] = []
  const sags = strands.flatMap(({ row, at, to }, i) => {
    if (to === null || row.length === 0) return []
    const span = Math.abs(places[to]!.x - places[at]!.x)
    const [long, thick] = [longOf(row), thickOf(row)]
    const swag = swagOf(span, long)
    const mean = long / row.length
    if (!swag) {
      out.push({
        code: 'swag-short',
        weight: 'stops',
        lines: [i],
        says:
          `Strand ${i + 1}: ${tenths(long)} mm of beads do not reach over ${tenths(span)} mm; at least ` +
          `${Math.floor(span / mean) + 1} beads do.`,
      })
      return []
    }
    if (swag.radiusMm < thick)
      out.push({
        code: 'swag-tight',
        weight: 'note',
        lines: [i],
        says:
          `Strand ${i + 1}: this loop is tighter than its bead and closes to a hairpin. Take fewer beads, or hang ` +
          'its ends further apart.',
      })
    return [{ i, sag: swag.sagMm, thick, low: Math.min(at, to), high: Math.max(at, to) }]
  })
  for (const inner of sags) {
    const outer = sags.find(
      (o) =>
        o !== inner && o.low <= inner.low && o.high >= inner.high && o.sag - inner.sag < (o.thick + inner.thick) / 2,
    )
    if (!outer || (outer.low === inner.low && outer.high === inner.high && outer.i > inner.i)) continue
    out.push({
      code: 'swags-lie',
      weight: 'looks',
      lines: [inner.i],
      says:
        `The swag of strand ${inner.i + 1} lies on that of strand ${outer.i + 1}: it sags ${tenths(inner.sag)} mm, ` +
        `the other ${tenths(outer.sag)} mm. Let them differ by a bead’s width.`,
    })
    break
  }
  return out
}

/** Findings of strands that hang. */
export function strandFindings(work: Work, hanger: Hanger): Finding[] {
  const curtain = curtainOf(work, hanger)
  return [
    ...homeless(curtain, work.held),
    ...offMiddle(curtain, work, hanger),
    ...crowding(curtain),
    ...counting(curtain, work),
    ...levelness(curtain, work),
    ...swags(curtain),
  ]
}
