import type { TrayBead } from '../bead/bead'
import type { Piece } from '../piece/piece'
import { applySteps, type Step } from '../piece/step'
import type { Result } from '../problem'
import { tallyPiece } from '../tally/tally'
import type { Finding, Surroundings } from './found'
import { withMeant } from './meant'
import { proofOf } from './proof'
import { Reader } from './reader'
import { RULES } from './rules'

/** What mends do, shown before they are taken. */

/** The piece as it is once a mend is taken. */
export const mended = (piece: Piece, steps: readonly Step[]): Result<Piece> =>
  applySteps(piece, [...withMeant(piece, steps)])

export interface CountChange {
  readonly bead: TrayBead
  readonly before: number
  readonly after: number
}

/** Beads of which more or fewer are needed afterwards. */
export function countsChanged(before: Piece, after: Piece): CountChange[] {
  const [was, is] = [tallyPiece(before), tallyPiece(after)]
  const tray = [...before.tray, ...after.tray.filter((b) => !before.tray.some((o) => o.number === b.number))]
  return tray.flatMap((bead) => {
    const [a, b] = [was.get(bead.number) ?? 0, is.get(bead.number) ?? 0]
    return a === b ? [] : [{ bead, before: a, after: b }]
  })
}

/** Mends of one kind that are taken at once at most. */
const MOST_AT_ONCE = 200

/** Steps that take the first mend of every finding of a kind, one on what the other left; how many they are. */
export function mendAllSteps(
  piece: Piece,
  rule: string,
  around: Surroundings = {},
): { readonly steps: readonly Step[]; readonly count: number } {
  const steps: Step[] = []
  let now = piece
  let count = 0
  const seen = new Set<string>()
  const nameOf = ({ part, says }: Finding): string => `${part} ${says}`
  // Only what says it is asked again, and of what has changed.
  const asked = RULES.filter((one) => proofOf(piece, around, [one]).open.some((found) => found.rule === rule))
  const reader = new Reader(asked)
  const next = (): Finding | undefined =>
    reader.read(now, around).open.find((one) => one.rule === rule && one.mends.length > 0 && !seen.has(nameOf(one)))
  for (let one = next(); one && count < MOST_AT_ONCE; one = next()) {
    seen.add(nameOf(one))
    const own = withMeant(now, one.mends[0]!.steps)
    const made = applySteps(now, [...own])
    if (!made.ok) continue
    steps.push(...own)
    now = made.value
    count++
  }
  return { steps, count }
}
