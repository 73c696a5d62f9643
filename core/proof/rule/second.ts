import { requireSpec, type BeadShape, type BeadSpec } from '../../bead/spec'
import { layingSteps } from '../../piece/edit'
import { isCounted } from '../../piece/nature'
import { isGrid, partRow, techniqueOf, workOf, type Part, type Piece } from '../../piece/piece'
import { pathOf } from '../../supply/thread'
import { tallyPart } from '../../tally/tally'
import type { Found, Mend, Rule, Spot } from '../found'
import { keptLines, keysOfSpots } from '../spots'
import { beadSays, counted, listed, spotSays } from '../words'

/** Beads with two holes: whether both are used, and which way up they come to lie. */

const withTwo = ({ tray }: Piece): ReadonlyMap<number, BeadSpec> =>
  new Map(tray.map((b) => [b.number, requireSpec(b.spec)] as const).filter(([, spec]) => spec.spacing !== undefined))

/** Beads with two holes of which one is passed by nothing, by their number on the tray. */
function unusedHoles(part: Part, piece: Piece): ReadonlyMap<number, Spot[]> {
  const two = withTwo(piece)
  const out = new Map<number, Spot[]>()
  const passesAt = pathOf(part).passesAt
  for (const { section, r, whole } of keptLines(part)) {
    partRow(part, whole).forEach((number, c) => {
      if (!two.has(number)) return
      // Where a path knows no holes, its thread goes through one of each bead.
      const passed = (hole: 'a' | 'b'): boolean => (passesAt ? passesAt(c, whole, hole) > 0 : hole === 'a')
      if (passed('a') && passed('b')) return
      const known = out.get(number)
      if (known) known.push({ section, r, c })
      else out.set(number, [{ section, r, c }])
    })
  }
  return out
}

/** What lies there most takes their places, where it has one hole and does not hang. */
function withOneHole(part: Part, { tray }: Piece, spots: readonly Spot[]): Mend[] {
  const counts = tallyPart(part)
  const [most] = tray
    .filter((b) => requireSpec(b.spec).spacing === undefined && requireSpec(b.spec).hangs === undefined)
    .toSorted((a, b) => (counts.get(b.number) ?? 0) - (counts.get(a.number) ?? 0))
  if (!most) return []
  const steps = layingSteps(part, new Map(keysOfSpots(part, spots).map((key) => [key, most.number])))
  return [{ label: `Lay ${most.letter} ${most.name} there`, steps }]
}

export const secondHole: Rule = {
  id: 'second-hole',
  group: 'making',
  looksFor: 'Beads with two holes of which one is never used.',
  alone: true,
  // Work that is told step by step knows each hole, and says it of its own.
  needs: (part, piece) => isGrid(part) && isCounted(part) && withTwo(piece).size > 0,
  ofPart: (part, piece) =>
    [...unusedHoles(part, piece)].map(([number, spots]): Found => ({
      weight: 'looks',
      says:
        `${spotSays(part, spots[0]!)} is ${beadSays(piece, number)}, which has two holes, and only one of them is ` +
        `used${spots.length > 1 ? `; so it is in ${counted(spots.length - 1, 'more place')}` : ''}. Work it where ` +
        'the second hole is passed too, or lay a bead with one hole.',
      why: 'By one hole it turns and hangs askew, and its other hole stays open to be seen.',
      spots,
      mends: withOneHole(part, piece, spots),
    })),
}

/** Shapes with a right way up (common practice). */
const TWO_SIDED = new Set<BeadShape>(['domed-duo'])

const isTwoSided = ({ spec }: { readonly spec: string }): boolean => TWO_SIDED.has(requireSpec(spec).shape)

/**
 * Two-sided beads of one motif by the way they are picked up with their right side outward: by their first hole with
 * the second on one hand of it, or on the other. A bead that lies mirrored in the picture is strung the other way up.
 */
function pickedUp(part: Part): ReadonlyMap<string, { readonly one: number[]; readonly other: number[] }> {
  const out = new Map<string, { one: number[]; other: number[] }>()
  const board = techniqueOf(part).recipe?.board(workOf(part))
  if (!board?.laid) return out
  const { run, laid, motifs } = board
  const middle = Math.min(1, motifs - 1)
  for (const { act, motif, goes } of run.done) {
    if (act !== 'pick' || motif !== middle) continue
    for (const { node, hole } of goes) {
      const { spec, slot, place, passes } = run.nodes[node]!
      const pose = laid.poses[node]
      // One of which a hole is never used lies either way.
      if (!spec || !pose || !TWO_SIDED.has(spec.shape) || passes.includes(0)) continue
      let known = out.get(slot)
      if (!known) out.set(slot, (known = { one: [], other: [] }))
      if (pose.flip > 0 === (hole === 0)) known.one.push(place)
      else known.other.push(place)
    }
  }
  return out
}

/** Places of a motif in the first line that is one: the second, where the first belongs to the start. */
function spotsIn(part: Part, places: readonly number[]): Spot[] {
  const lines = keptLines(part)
  const line = lines[Math.min(1, lines.length - 1)]
  if (!line) return []
  const { length } = partRow(part, line.whole)
  return places.filter((c) => c < length).map((c) => ({ section: line.section, r: line.r, c }))
}

export const faceDown: Rule = {
  id: 'face-down',
  group: 'making',
  looksFor: 'Two-sided beads that would lie face down.',
  alone: true,
  needs: (part, { tray }) => techniqueOf(part).recipe !== undefined && tray.some(isTwoSided),
  ofPart: (part) =>
    [...pickedUp(part)].flatMap(([slot, { one, other }]): Found[] => {
      const [few, many] = one.length <= other.length ? [one, other] : [other, one]
      if (few.length === 0) return []
      const { name, many: names } = techniqueOf(part).recipe!.of(part).recipe.slots[slot]!
      const places = few.map((place) => place + 1)
      return [
        {
          weight: 'note',
          says:
            `${few.length === 1 ? 'One' : few.length} of the ${few.length + many.length} ${names} of a motif would ` +
            `lie face down if all are picked up alike: ${counted(places.length, 'bead').replace(/^\d+ /, '')} ` +
            `${listed(places)} of its line. Pick ${few.length === 1 ? `that ${name}` : 'those'} up by the hole on ` +
            'the other side, right side up, and check every one before you pull tight.',
          why: 'A domed bead that lies on its dome shows its flat side, and is seen when it is too late.',
          spots: spotsIn(part, few),
        },
      ]
    }),
}
