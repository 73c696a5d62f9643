import { GLYPH_IDS } from '../../bead/glyph'
import { setStep } from '../../piece/edit'
import type { Found, Rule } from '../found'

/** Letters that are read for each other in a list. */
const ALIKE = [
  ['O', 'Q'],
  ['I', 'J'],
] as const

/** Marks and letters of charts that are taken for each other. */
export const glyphs: Rule = {
  id: 'glyphs-alike',
  group: 'telling',
  looksFor: 'Marks of the chart, or letters, that are taken for each other.',
  ofPiece(piece) {
    const { tray } = piece
    const free = GLYPH_IDS.filter((glyph) => !tray.some((b) => b.glyph === glyph))
    const same = tray.flatMap((bead, at): Found[] => {
      const first = tray.findIndex((other) => other.glyph === bead.glyph)
      if (first === at) return []
      const glyph = free.shift()
      return [
        {
          weight: 'looks',
          says:
            `${tray[first]!.letter} and ${bead.letter} have the same mark in black-and-white charts: ` +
            'give one of them another.',
          why: 'In a chart without colour nobody can tell which is meant.',
          mends: glyph
            ? [
                {
                  label: `Give ${bead.letter} a mark of its own`,
                  steps: [setStep(piece, ['tray', bead.number, 'glyph'], glyph)],
                },
              ]
            : [],
        },
      ]
    })
    const letters = ALIKE.flatMap(([a, b]): Found[] =>
      [a, b].every((letter) => tray.some((bead) => bead.letter === letter))
        ? [
            {
              weight: 'note',
              says: `Letters ${a} and ${b} are both on the tray and look alike in a list: give one another letter.`,
              why: 'Read across a table, one is taken for the other.',
            },
          ]
        : [],
    )
    return [...same, ...letters]
  },
}
