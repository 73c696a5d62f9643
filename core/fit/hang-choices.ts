import { neighbourSpecs, requireSpec } from '../bead/spec'
import { RULE_LIMITS, type StrandRule } from '../hang/rule'
import { removeLinesStep, setStep } from '../piece/edit'
import { partsWith } from '../piece/joint'
import { fittedPart, isGrid, rowsOf, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import { settingSteps, specSteps } from '../piece/recast'
import { applySteps, type Step } from '../piece/step'
import { ruleSteps, strandSideOf } from '../piece/strands'
import { tallyPiece, totalOf } from '../tally/tally'
import { closureOf, usualClosure } from '../wear/closure'
import { fitKindOf } from '../wear/kind'
import { fitChoices, PRICE, type Choice, type Way } from './choices'
import type { Technique } from '../technique/technique'
import { extentOf } from './extent'
import { fitOf } from './reckon'

/**
 * Choices for what hangs: its length comes from zones of its strands, from rows above them, from the size of its beads
 * and from what it hangs by, not from how many strands there are.
 */

/** Rows of one part that are taken off at most. */
const MOST_ROWS = 3

interface Wish {
  readonly way: Way
  readonly says: string
  readonly steps: readonly Step[]
}

const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`

/** A zone so many beads longer or shorter in every strand; null where it cannot. */
function withZone(rule: StrandRule, z: number, by: number): StrandRule | null {
  const zone = rule.zones[z]!
  if (zone.grow === 'level') return null
  const from = zone.from + by
  const to = zone.grow === 'to' ? zone.to + by : zone.to
  if (Math.min(from, to) < 0 || Math.max(from, to) > RULE_LIMITS.zone) return null
  const zones = rule.zones.map((one, k) => (k === z ? { ...one, from, to } : one))
  return { ...rule, zones }
}

/** Zones made longer or shorter by what is missing: the nearest count, and one less far. */
function zoneWishes(piece: Piece, part: Part, missingMm: number): Wish[] {
  const side = strandSideOf(part)
  const rule = side?.plan(part.plan).rule
  if (!side || !rule) return []
  const specs = new Map(piece.tray.map((b) => [b.number, requireSpec(b.spec)]))
  return rule.zones.flatMap((zone, z) => {
    const mean = zone.beads.reduce((sum, n) => sum + (specs.get(n) ?? requireSpec(part.spec)).l, 0) / zone.beads.length
    const exact = missingMm / mean
    const counts = [...new Set([Math.floor(exact), Math.ceil(exact)])].filter((n) => n !== 0)
    return counts.flatMap((by): Wish[] => {
      const next = withZone(rule, z, by)
      if (!next) return []
      const words = `${counted(Math.abs(by), 'bead')} ${by > 0 ? 'more' : 'fewer'}`
      return [{ way: 'zone', says: `zone ${z + 1} of ${part.name}: ${words}`, steps: ruleSteps(piece, part, next) }]
    })
  })
}

/** Rows taken off a woven part above the strands, at its beginning. */
function rowWishes(part: Part): Wish[] {
  if (!isGrid(part) || part.times > 1) return []
  const section = part.start.rows > 0 ? 'start' : 'repeat'
  const { rows } = part[section]
  return Array.from({ length: Math.min(MOST_ROWS, rows - 1, rowsOf(part) - 1) }, (_, k): Wish => ({
    way: 'rows',
    says: `${counted(k + 1, 'row')} of ${part.name} fewer`,
    steps: [removeLinesStep(part, section, 0, k + 1)],
  }))
}

/** The same work in another size, of what is bent to a size. */
function sizeWishes(piece: Piece, part: Part, missingMm: number): Wish[] {
  const { wire } = techniqueOf(part)
  const all = wire?.sizedTo?.(extentOf(piece, part).lengthMm.nominal + missingMm, workOf(part)) ?? []
  return all.map(({ settings, says }): Wish => ({ way: 'size', says, steps: settingSteps(piece, part, settings, 0) }))
}

/** How a piece that hangs comes near the length that is wanted, nearest first. */
function hangChoices(piece: Piece): Choice[] {
  const part = fittedPart(piece)
  const now = fitOf(piece)
  const missing = now.wantedMm - now.atMm
  const beadsNow = totalOf(tallyPiece(piece))
  const kind = fitKindOf(piece.fit.kind)
  const whole = partsWith(piece.parts, part)
  const wishes: Wish[] = [
    ...whole.flatMap((one) => zoneWishes(piece, one, missing)),
    ...sizeWishes(piece, part, missing),
    ...(missing < 0 ? whole.filter((one) => one.id !== part.id).flatMap(rowWishes) : []),
    ...neighbourSpecs(part.spec).map((spec): Wish => ({
      way: 'bead',
      says: `in ${requireSpec(spec).name}`,
      steps: specSteps(piece, part, spec),
    })),
    ...kind.closures
      .filter((closure) => closure !== 'own' && closure !== piece.fit.closure.kind)
      .map((closure): Wish => ({
        way: 'closure',
        says: `${closureOf(closure).name.toLowerCase()}, ${closureOf(closure).lengthMm} mm`,
        steps: [setStep(piece, ['fit', 'closure'], { ...usualClosure(closure) })],
      })),
  ]
  const { beadsPerHourLeast: slow, beadsPerHourMost: quick } = piece.cost
  const make = (next: Piece, { way, says, steps }: Wish, current: boolean): Choice => {
    const beads = totalOf(tallyPiece(next))
    const one = fittedPart(next)
    return {
      id: current ? 'current' : says,
      way,
      says,
      steps,
      times: one.times,
      startRows: 0,
      endRows: 0,
      cycleRows: 0,
      plainMm: 0,
      closure: next.fit.closure,
      spec: one.spec,
      settings: null,
      fit: fitOf(next),
      beads,
      beadsMore: beads - beadsNow,
      whole: true,
      cycleWhole: true,
      hours: { least: (beads * kind.pieces) / quick, most: (beads * kind.pieces) / slow },
      current,
    }
  }
  const found = wishes.flatMap((wish) => {
    if (wish.steps.length === 0) return []
    const next = applySteps(piece, wish.steps)
    return next.ok ? [make(next.value, wish, false)] : []
  })
  const off = (c: Choice): number => Math.abs(c.fit.differenceMm)
  const rank = (c: Choice): number => off(c) + (c.current ? 0 : PRICE[c.way])
  const current = make(piece, { way: 'whole', says: 'as it is', steps: [] }, true)
  // What comes no nearer than it is helps nobody.
  const nearer = found.filter((c) => off(c) < off(current) - 1e-9)
  // Of several zones that come to the same, two are enough to choose by.
  const alike = (c: Choice): string => `${c.way} ${Math.round(off(c) * 1e6)} ${c.beads}`
  const shown = nearer.filter((c, k) => nearer.slice(0, k).filter((o) => alike(o) === alike(c)).length < 2)
  return [current, ...shown].sort((a, b) => rank(a) - rank(b)).slice(0, MOST_CHOICES)
}

const MOST_CHOICES = 10

/** What comes near, by rows and repeats or by what hangs; `made`: rows that stay as they are. */
export const choicesFor = (piece: Piece, made = 0): Choice[] =>
  hasChoicesOfItsOwn(techniqueOf(fittedPart(piece))) ? hangChoices(piece) : fitChoices(piece, made)

/** Whether its length follows from what hangs, or from what it is bent to, and not from how many lines it has. */
const hasChoicesOfItsOwn = ({ hangs, wire }: Technique): boolean => hangs === true || wire?.sizedTo !== undefined
