import { lineAt } from '../../grid/lines'
import { rowsOf, partRow, SECTIONS, techniqueOf, type Part, type Piece } from '../../piece/piece'
import { setStep } from '../../piece/edit'
import type { CellsStep } from '../../piece/steps/schema'
import { lineSteps } from '../../piece/alike'
import type { Found, Mend, Rule } from '../found'
import { lineSpot } from '../spots'
import { counted, lineWord, listed, rowSays } from '../words'

/** Halves that should be alike and are not: strands from both sides, parts that hang left and right. */

/** Share of the pairs that must be alike, for those that differ to be mistakes. */
const ALIKE = 0.7
/** Pairs of strands under which nothing can be said. */
const LEAST_PAIRS = 4

const textOf = (line: ArrayLike<number>): string => Array.prototype.join.call(line, ',')

/** Makes one line of a part like another. */
const mendLike = (part: Part, r: number, like: number): Mend => ({
  label: `Make ${lineWord(part)} ${r + 1} like ${like + 1}`,
  steps: lineSteps(part, r, partRow(part, like)),
})

/** Pairs of strands from both sides that differ, where nearly all others are alike. */
export const strandHalves: Rule = {
  id: 'halves-differ',
  group: 'counting',
  looksFor: 'Strands that should be alike from both sides and are not.',
  alone: true,
  needs: (part) => techniqueOf(part).strands !== undefined && part.plan?.['alike'] === 'free',
  ofPart(part): Found[] {
    const rows = rowsOf(part)
    const pairs = Array.from({ length: Math.floor(rows / 2) }, (_, r) => [r, rows - 1 - r] as const)
    if (pairs.length < LEAST_PAIRS) return []
    const differ = pairs.filter(([a, b]) => textOf(partRow(part, a)) !== textOf(partRow(part, b)))
    if (differ.length === 0 || differ.length > (1 - ALIKE) * pairs.length) return []
    return differ.map(([a, b]): Found => {
      const [left, right] = [partRow(part, a).length, partRow(part, b).length]
      return {
        weight: 'looks',
        says:
          `${rowSays(part, lineSpot(part, a))} and ${b + 1} should be alike, as all others are from both sides: ` +
          (left === right
            ? 'their beads differ.'
            : `they hold ${left} and ${right} beads, ${counted(Math.abs(left - right), 'bead')} apart.`) +
          ' Make one like the other.',
        why: 'Hanging, the eye compares both sides; one bead shows.',
        spots: [lineSpot(part, a), lineSpot(part, b)],
        mends: [mendLike(part, b, a), mendLike(part, a, b)],
      }
    })
  },
}

/** A part as text, and as it reads from the other side. */
const linesText = (part: Part): string[] =>
  SECTIONS.flatMap((section) => Array.from({ length: part[section].rows }, (_, r) => textOf(lineAt(part[section], r))))

/** Where its partner hangs: the place as far from the middle of what both hang on, on the other side. */
function partnersOf(piece: Piece): [Part, Part][] {
  const out: [Part, Part][] = []
  const hung = piece.parts.filter((p) => p.on?.holes.length === 1)
  for (const one of hung)
    for (const other of hung) {
      if (one.on!.part !== other.on!.part || one.on!.at !== other.on!.at || one.technique !== other.technique) continue
      const [a, b] = [one.on!.holes[0]!, other.on!.holes[0]!]
      const beside = hung.filter((p) => p.on!.part === one.on!.part && p.on!.at === one.on!.at)
      const places = beside.map((p) => p.on!.holes[0]!)
      const sum = Math.min(...places) + Math.max(...places)
      if (a < b && a + b === sum) out.push([one, other])
    }
  return out
}

/** Beads of one part laid into the other, where both are as large. */
function likeSteps(from: Part, to: Part): CellsStep[] | null {
  const steps: CellsStep[] = []
  for (const section of SECTIONS) {
    if (from[section].rows !== to[section].rows) return null
    const patches: CellsStep['patches'] = []
    let base = 0
    for (let r = 0; r < from[section].rows; r++) {
      const [want, is] = [lineAt(from[section], r), lineAt(to[section], r)]
      if (want.length !== is.length) return null
      for (let c = 0; c < is.length; c++) if (is[c] !== want[c]) patches.push([base + c, 1, is[c]!, want[c]!])
      base += is.length
    }
    if (patches.length > 0) steps.push({ type: 'cells', part: to.id, section, patches })
  }
  return steps
}

/** Parts that hang left and right of the middle and are no pair. */
export const pairParts: Rule = {
  id: 'pair-differs',
  group: 'counting',
  looksFor: 'A left and a right that are no pair.',
  applies: ({ parts }) => parts.length > 1,
  ofPiece: (piece) =>
    partnersOf(piece).flatMap(([one, other]): Found[] => {
      const settings = (p: Part) => JSON.stringify(p.settings)
      const [a, b] = [linesText(one), linesText(other)]
      if (settings(one) === settings(other) && a.join('\n') === b.join('\n')) return []
      const off = Array.from({ length: Math.max(a.length, b.length) }, (_, k) => k).filter((k) => a[k] !== b[k])
      // Quite another thing on the other side is meant so; of a line or two, any that differs is.
      if (off.length > Math.max(a.length > 2 ? 1 : 0, (1 - ALIKE) * a.length)) return []
      const steps = settings(one) === settings(other) ? likeSteps(one, other) : null
      const back = settings(one) === settings(other) ? likeSteps(other, one) : null
      return [
        {
          weight: 'looks',
          says:
            off.length === 0
              ? `${one.name} and ${other.name} hang opposite each other, and are set differently: make them alike.`
              : `${one.name} and ${other.name} hang opposite each other and differ in ` +
                `${off.length === 1 ? lineWord(one) : `${lineWord(one)}s`} ${listed(off.map((k) => k + 1))}: ` +
                'make one like the other.',
          why: 'What hangs left and right is read as a pair.',
          mends: [
            ...(steps && steps.length > 0 ? [{ label: `Make ${other.name} like ${one.name}`, steps }] : []),
            ...(back && back.length > 0 ? [{ label: `Make ${one.name} like ${other.name}`, steps: back }] : []),
            ...(off.length === 0
              ? [
                  {
                    label: `Set ${other.name} like ${one.name}`,
                    steps: [setStep(piece, ['parts', other.id, 'settings'], { ...one.settings })],
                  },
                ]
              : []),
          ],
        },
      ]
    }),
}
