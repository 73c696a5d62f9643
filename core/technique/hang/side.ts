import type { OwnStrand, StrandSide } from '../strand-side'
import type { Settings, Work } from '../technique'
import { curtainOf, type Hanger } from './curtain'
import { asPlan, strandPlanOf } from './strand-plan'
import { longOfStrand } from './strand'

const AS_THE_REST: OwnStrand = { at: null, to: null, turning: null }

const highestOf = (ys: readonly number[]): number => ys.reduce((least, y) => Math.min(least, y), Infinity)

/** Lines as strands, their rule and their exceptions; `hangerOf`: how they hang by their settings. */
export const strandSideBy = (hangerOf: (settings: Settings) => Hanger): StrandSide => ({
  plan(plan) {
    const { alike, period, rule } = strandPlanOf(plan)
    return { alike, period, rule }
  },
  withPlan: (plan, change) => asPlan({ ...strandPlanOf(plan), ...change }),
  own(plan, strand) {
    const found = strandPlanOf(plan).own.find((one) => one.strand === strand)
    return found ? { at: found.at ?? null, to: found.to ?? null, turning: found.turning ?? null } : AS_THE_REST
  },
  withOwn(plan, strand, { at, to, turning }) {
    const read = strandPlanOf(plan)
    const others = read.own.filter((one) => one.strand !== strand)
    const mine = {
      strand,
      ...(at === null ? {} : { at }),
      ...(to === null ? {} : { to }),
      ...(turning === null ? {} : { turning }),
    }
    const own = Object.keys(mine).length > 1 ? [...others, mine].sort((a, b) => a.strand - b.strand) : others
    return asPlan({ ...read, own })
  },
  starts(work, count) {
    const empty: Work = { ...work, rows: count, lineLength: () => 0 }
    const { strands } = curtainOf(
      empty,
      hangerOf(work.settings),
      Array.from({ length: count }, () => []),
    )
    const highest = highestOf(strands.map(({ y }) => y))
    return strands.map(({ y }) => y - highest)
  },
  strands(work) {
    const { strands } = curtainOf(work, hangerOf(work.settings))
    const highest = highestOf(strands.map(({ y }) => y))
    return strands.map((s) => ({
      at: s.at,
      to: s.to,
      turning: s.turning,
      longMm: longOfStrand(s),
      endMm: s.endMm - highest,
    }))
  },
  spanOf(work, strand) {
    const { strands, places } = curtainOf(work, hangerOf(work.settings))
    const own = strands[strand]
    return !own || own.to === null ? null : Math.abs(places[own.to]!.x - places[own.at]!.x)
  },
  places: ({ held }) => held?.places.length ?? null,
})
