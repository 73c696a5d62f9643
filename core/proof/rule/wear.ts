import { requireSpec } from '../../bead/spec'
import { choiceSteps, type Choice } from '../../fit/choices'
import { choicesFor } from '../../fit/hang-choices'
import { fitsWell, feelWords } from '../../fit/feel'
import { fitOf } from '../../fit/reckon'
import { wholeExtent } from '../../fit/whole'
import { setStep } from '../../piece/edit'
import { madeParts } from '../../piece/nature'
import { removePartSteps } from '../../piece/recast'
import { fittedPart, type Piece } from '../../piece/piece'
import { weightOf } from '../../supply/cost'
import { tallyPart, totalOf } from '../../tally/tally'
import { plainNumber } from '../../units/length'
import { closureName, usualClosure, type ClosureKind } from '../../wear/closure'
import { EARRING_GRAMS, fitKindOf } from '../../wear/kind'
import type { Found, Mend, Rule } from '../found'

/** Size and wear: whether it closes and passes, what it weighs, and whether its closure is up to it. */

const tenths = (mm: number): string => plainNumber(Math.round(mm * 10) / 10)

/** Choices that are offered as mends, the nearest first. */
const MOST_MENDS = 3

/** What a choice does, in a few words. */
function choiceSays({ says, way, times, startRows, endRows, cycleRows, plainMm, closure, spec }: Choice): string {
  if (says) return `${way === 'bead' ? 'Work' : 'Take'} ${says}`
  const repeats = `${times} ${times === 1 ? 'repeat' : 'repeats'}`
  if (way === 'chain') return `Work ${repeats}, with a chain of ${tenths(closure.extenderMm)} mm`
  if (way === 'closure') return `Work ${repeats}, closed by ${closureName(closure).toLowerCase()}`
  if (way === 'bead') return `Work ${repeats} in ${requireSpec(spec).name}`
  if (way === 'ends' && plainMm > 0) return `Work ${repeats}, ${tenths(plainMm)} mm plain at each end`
  const rows = startRows + endRows + cycleRows
  const more = `${Math.abs(rows)} ${Math.abs(rows) === 1 ? 'row' : 'rows'} ${rows > 0 ? 'more' : 'fewer'}`
  return `Work ${repeats}${rows === 0 ? '' : ` and ${more}`}`
}

function nearer(piece: Piece): Mend[] {
  const now = Math.abs(fitOf(piece).differenceMm)
  return (
    choicesFor(piece)
      .filter(({ current, fit }) => !current && fitsWell(fit.feel) && Math.abs(fit.differenceMm) < now)
      .toSorted((a, b) => Math.abs(a.fit.differenceMm) - Math.abs(b.fit.differenceMm))
      // Of those that are said alike, the nearest.
      .filter((choice, k, all) => all.findIndex((o) => choiceSays(o) === choiceSays(choice)) === k)
      .slice(0, MOST_MENDS)
      .map((choice) => ({
        label: `${choiceSays(choice)}: ${tenths(choice.fit.atMm)} mm`,
        steps: choiceSteps(piece, choice),
      }))
      .filter(({ steps }) => steps.length > 0)
  )
}

export const closes: Rule = {
  id: 'fit',
  group: 'size',
  looksFor: 'A piece that will not close or pass, or is not as long as wanted.',
  ofPiece(piece): Found[] {
    if (totalOf(tallyPart(fittedPart(piece))) === 0) return []
    const fit = fitOf(piece)
    if (fitsWell(fit.feel)) return []
    const stops = fit.feel === 'will not close' || fit.feel === 'will not pass'
    const noun = fitKindOf(piece.fit.kind).noun
    const mends = nearer(piece)
    return [
      {
        weight: stops ? 'stops' : 'looks',
        says:
          `${feelWords(fit.feel, piece.fit.kind)}: the ${noun} comes to ${tenths(fit.atMm)} mm, ` +
          `${tenths(fit.wantedMm)} is wanted. ` +
          (mends.length > 0
            ? 'Take one of these, or change the measure on Fit.'
            : 'Nothing that is near comes to it: change how much is worked, or the measure on Fit.'),
        why: 'Length is found at the end, when nothing but unpicking mends it.',
        mends,
      },
    ]
  },
}

export const laidAtAll: Rule = {
  id: 'part-empty',
  group: 'counting',
  looksFor: 'Parts in which nothing is laid.',
  ofPart: (part, piece): Found[] =>
    madeParts([part]).length === 1 && totalOf(tallyPart(part)) === 0
      ? [
          {
            weight: 'stops',
            says: `${part.name} has no beads yet: lay some on the mat, or take the part out.`,
            why: 'Nothing can be counted, bought or worked of it.',
            mends:
              piece.parts.length > 1 ? [{ label: 'Take the part out', steps: removePartSteps(piece, part.id) }] : [],
          },
        ]
      : [],
}

export const heavy: Rule = {
  id: 'earring-heavy',
  group: 'size',
  looksFor: 'Earrings that pull.',
  applies: ({ fit }) => fit.kind === 'earrings',
  ofPiece(piece): Found[] {
    const grams = weightOf(piece)
    if (grams <= EARRING_GRAMS.comfortable) return []
    const careful = grams > EARRING_GRAMS.careful
    return [
      {
        weight: careful ? 'looks' : 'note',
        says:
          `One earring weighs ${tenths(grams)} g: ${EARRING_GRAMS.comfortable} are comfortable, over ` +
          `${EARRING_GRAMS.careful} pull at the ear. Make it shorter or narrower, or take smaller beads.`,
        why: 'A heavy earring stretches its hole, and is worn once.',
      },
    ]
  },
}

/** What small closures hold in wear, g (from memory; nobody measured). */
const HOLDS_GRAMS: Partial<Record<ClosureKind, number>> = { magnet: 25, breakaway: 40, slide: 90 }

export const claspLight: Rule = {
  id: 'clasp-light',
  group: 'size',
  looksFor: 'A clasp too light for what it closes.',
  ofPiece(piece): Found[] {
    const { closure } = piece.fit
    const holds = HOLDS_GRAMS[closure.kind]
    const grams = weightOf(piece)
    if (holds === undefined || grams <= holds) return []
    return [
      {
        weight: closure.kind === 'magnet' ? 'looks' : 'note',
        says:
          `${closureName(closure)} for ${tenths(grams)} g: such a closure holds about ${holds} g. Take a toggle or ` +
          'a hook, or make the piece lighter.',
        why: 'It opens by itself, and the piece is lost.',
        mends: fitKindOf(piece.fit.kind).closures.includes('toggle')
          ? [{ label: 'Take a toggle', steps: [setStep(piece, ['fit', 'closure'], { ...usualClosure('toggle') })] }]
          : [],
      },
    ]
  },
}

/** A band wider than this, mm, gapes beside a clasp that is sewn on at one point (common practice). */
const ONE_POINT_MM = 25
const AT_ONE_POINT = new Set<ClosureKind>(['hook', 'toggle', 'magnet', 'breakaway'])

export const claspNarrow: Rule = {
  id: 'clasp-narrow',
  group: 'size',
  looksFor: 'A closure thinner than the work asks for.',
  ofPiece(piece): Found[] {
    const { closure, kind } = piece.fit
    const widthMm = wholeExtent(piece, fittedPart(piece)).widthMm.nominal
    if (fitKindOf(kind).hangs || !AT_ONE_POINT.has(closure.kind) || widthMm <= ONE_POINT_MM) return []
    return [
      {
        weight: 'note',
        says:
          `${closureName(closure)} on a band ${tenths(widthMm)} mm wide: its corners gape. Take a slide-lock tube ` +
          'as long as the band is wide, two small clasps, or narrow the ends to a point.',
        why: 'A wide band that is held in its middle turns over at its edges.',
        mends: fitKindOf(kind).closures.includes('slide')
          ? [
              {
                label: 'Take a slide-lock tube',
                steps: [setStep(piece, ['fit', 'closure'], { ...usualClosure('slide') })],
              },
            ]
          : [],
      },
    ]
  },
}
