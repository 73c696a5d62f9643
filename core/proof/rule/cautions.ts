import { allCautions } from '../../supply/cautions'
import type { Rule } from '../found'

/** The cautions, each where it applies and once. */
export const cautions: Rule = {
  id: 'caution',
  group: 'safety',
  looksFor: 'What can hurt in the making or the wearing.',
  ofPiece: (piece) =>
    allCautions(piece).map((says) => ({
      weight: 'note',
      says,
      why: 'The usual caution; local rules and trained people go first.',
    })),
}
