import { median } from '../median'
import { gaugeKeyOf, sameGauge } from '../fit/gauge'
import { fittedPart, type Piece } from '../piece/piece'
import { costSchema, supplySchema, type Gauge } from '../piece/schema'
import type { Facts } from './event'

/**
 * What a hand's own makings teach: its speed by technique, its gauge by stitch, bead and thread, the share of a bead
 * that it puts aside, and how much thread it takes. Each says from how many makings; what is far from the others is
 * questioned and left out.
 */

/** One finished making, as far as it says something of the hand. */
export interface Told {
  /** Id of the making. */
  readonly making: string
  readonly facts: Facts
  /** Left out, because its maker said so. */
  readonly strange: boolean
}

export interface Lesson {
  /** Mean of the makings that count. */
  readonly value: number
  readonly least: number
  readonly most: number
  /** Makings that it comes from. */
  readonly makings: number
  /** Ids of makings that are far from the others: not reckoned with. */
  readonly questioned: readonly string[]
}

export interface Learned {
  /** Beads an hour, by technique. */
  readonly speed: ReadonlyMap<string, Lesson>
  /** Share put aside, by size of bead. */
  readonly culls: ReadonlyMap<string, Lesson>
  /** Thread used over the length of its path. */
  readonly slack: Lesson | null
  /** Measured over nominal length, by `gaugeKey`. */
  readonly along: ReadonlyMap<string, Lesson>
}

/** Which of it is used. */
export interface Switches {
  readonly learnSpeed: 'on' | 'off'
  readonly learnCull: 'on' | 'off'
  readonly learnThread: 'on' | 'off'
}

export const NOTHING_LEARNED: Learned = { speed: new Map(), culls: new Map(), slack: null, along: new Map() }

export const gaugeKey = ({ technique, spec, thread }: Pick<Gauge, 'technique' | 'spec' | 'thread'>): string =>
  JSON.stringify([technique, spec, thread])

/** One making alone may be off by so much, as a share (common practice). */
const ALONE = 0.15
/** Even a steady hand goes up and down by so much. */
const STEADY = 0.1
/** Of three and more, one that is off the median by more than this share, and by three times the usual, is strange. */
const STRANGE = { share: 0.3, times: 3, least: 3 } as const

interface Saying {
  readonly making: string
  readonly value: number
  /** How much it counts. */
  readonly weight: number
}

function lessonOf(said: readonly Saying[], { questions }: { readonly questions: boolean }): Lesson | null {
  if (said.length === 0) return null
  const middle = median(said.map((s) => s.value))
  const usual = median(said.map((s) => Math.abs(s.value - middle)))
  const isStrange = ({ value }: Saying) =>
    questions &&
    said.length >= STRANGE.least &&
    Math.abs(value - middle) > STRANGE.share * middle &&
    Math.abs(value - middle) > STRANGE.times * usual
  const counted = said.filter((s) => !isStrange(s))
  const weight = counted.reduce((sum, s) => sum + s.weight, 0)
  const value = counted.reduce((sum, s) => sum + s.value * s.weight, 0) / weight
  const spread = counted.length === 1 ? ALONE : STEADY
  return {
    value,
    least: Math.min(value * (1 - spread), ...counted.map((s) => s.value)),
    most: Math.max(value * (1 + spread), ...counted.map((s) => s.value)),
    makings: counted.length,
    questioned: said.filter(isStrange).map((s) => s.making),
  }
}

function lessonsBy(
  said: readonly (Saying & { readonly by: string })[],
  { questions = true }: { readonly questions?: boolean } = {},
): Map<string, Lesson> {
  const groups = new Map<string, Saying[]>()
  for (const one of said) groups.set(one.by, [...(groups.get(one.by) ?? []), one])
  return new Map([...groups].map(([by, group]) => [by, lessonOf(group, { questions })!]))
}

/** What makings teach, in whichever order they are told. */
export function learnedFrom(told: readonly Told[]): Learned {
  const counted = told.filter((t) => !t.strange)
  return {
    // An hour at the beads counts as an hour, whichever piece it went into.
    speed: lessonsBy(
      counted.flatMap(({ making, facts: { technique, perHour, hours } }) =>
        perHour === null || hours === 0 ? [] : [{ making, by: technique, value: perHour, weight: hours }],
      ),
    ),
    culls: lessonsBy(
      counted.flatMap(({ making, facts }) =>
        facts.culls.flatMap(({ spec, used, culled }) =>
          used + culled === 0 ? [] : [{ making, by: spec, value: culled / (used + culled), weight: used + culled }],
        ),
      ),
      // A bad bag is no slip.
      { questions: false },
    ),
    slack: lessonOf(
      counted.flatMap(({ making, facts: { slack } }) => (slack === null ? [] : [{ making, value: slack, weight: 1 }])),
      { questions: true },
    ),
    along: lessonsBy(
      counted.flatMap(({ making, facts }) =>
        facts.along === null ? [] : [{ making, by: gaugeKey(facts), value: facts.along, weight: 1 }],
      ),
    ),
  }
}

const USUAL_COST = costSchema.parse({})
const USUAL_SUPPLY = supplySchema.parse({})

/** Whether the speed of a piece is the usual one, which nobody chose. */
const usualSpeed = ({ cost }: Pick<Piece, 'cost'>): boolean =>
  cost.beadsPerHourLeast === USUAL_COST.beadsPerHourLeast && cost.beadsPerHourMost === USUAL_COST.beadsPerHourMost

/** The speed that a piece is reckoned with, if makings taught it; null where the piece’s own holds. */
export function speedFor(
  piece: Pick<Piece, 'cost' | 'fit' | 'parts'>,
  learned: Learned,
  { learnSpeed }: Pick<Switches, 'learnSpeed'>,
): Lesson | null {
  return learnSpeed === 'on' && usualSpeed(piece) ? (learned.speed.get(fittedPart(piece).technique) ?? null) : null
}

/** More than this nobody puts aside. */
const MOST_CULLED = 0.5
const SLACK_BOUNDS = { least: 1, most: 2 } as const

/**
 * The piece as it is reckoned with by what was learned: its speed, culls and thread where it has the usual ones, which
 * nobody chose. For reckoning only: what is kept stays as it is.
 */
export function withLearned(piece: Piece, learned: Learned, switches: Switches): Piece {
  const speed = speedFor(piece, learned, switches)
  const culls =
    switches.learnCull === 'on' && piece.supply.cull === USUAL_SUPPLY.cull && learned.culls.size > 0
      ? new Map([...learned.culls].map(([spec, { value }]) => [spec, Math.min(MOST_CULLED, value)]))
      : null
  const slack = switches.learnThread === 'on' ? learned.slack : null
  if (!speed && !culls && !slack) return piece
  return {
    ...piece,
    cost: speed
      ? {
          ...piece.cost,
          beadsPerHourLeast: Math.max(1, Math.round(speed.least)),
          beadsPerHourMost: Math.max(1, Math.round(speed.most)),
        }
      : piece.cost,
    supply: {
      ...piece.supply,
      ...(culls ? { culls } : {}),
      ...(slack ? { slack: Math.min(SLACK_BOUNDS.most, Math.max(SLACK_BOUNDS.least, slack.value)) } : {}),
    },
  }
}

/** The gauges of a piece with those that its maker keeps for the stitch, bead and thread of its parts. */
export function withKeptGauges(piece: Pick<Piece, 'gauges' | 'parts' | 'supply'>, kept: readonly Gauge[]): Gauge[] {
  const wanted = kept.filter((g) => piece.parts.some((p) => sameGauge(g, gaugeKeyOf(p, piece.supply.thread))))
  return [...piece.gauges.filter((g) => !wanted.some((w) => sameGauge(g, w))), ...wanted]
}
