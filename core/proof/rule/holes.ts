import { requireSpec } from '../../bead/spec'
import { setStep } from '../../piece/edit'
import type { Piece } from '../../piece/piece'
import { holesOf } from '../../supply/holes'
import type { Help, SpecHoleCheck } from '../../supply/thread'
import { requireNeedle, requireThread } from '../../thread/catalogue'
import { plainNumber } from '../../units/length'
import type { Found, Mend, Rule } from '../found'
import { spotAt } from '../spots'
import { listed } from '../words'

const WHERE = {
  work: 'in the work',
  ends: 'where the closure is sewn on',
  strands: 'where strands hang from it',
} as const

const hundredths = (mm: number): string => plainNumber(Math.round(mm * 100) / 100)
const between = (least: number, most: number): string => [...new Set([least, most].map(hundredths))].join(' to ')

/** What a help changes of the supplies; null of one that is another bead or wire. */
function mendOf(piece: Piece, help: Help): Mend | null {
  switch (help.kind) {
    case 'needle':
      return {
        label: `Take needle ${requireNeedle(help.id).name}`,
        steps: [setStep(piece, ['supply', 'needle'], help.id)],
      }
    case 'thread':
      return {
        label: `Take ${requireThread(help.id).name}`,
        steps: [setStep(piece, ['supply', 'thread'], help.id)],
      }
    case 'single':
      return { label: 'Work with single thread', steps: [setStep(piece, ['supply', 'doubled'], false)] }
    case 'fewer passes':
      return { label: 'Plan no extra passes', steps: [setStep(piece, ['supply', 'reinforce'], 0)] }
    default:
      return null
  }
}

const needOf = ({ passes, where, wireMm }: SpecHoleCheck): string =>
  `${passes} ${wireMm === undefined ? (passes === 1 ? 'pass' : 'passes') : passes === 1 ? 'wire' : 'wires'} ` +
  WHERE[where]

/** Holes that are passed too often for their thread, that a needle or a wire does not pass. */
export const holes: Rule = {
  id: 'hole-full',
  group: 'making',
  looksFor: 'Holes that thread, needle or wire will not pass as often as the work asks.',
  ofPiece: (piece) =>
    holesOf(piece).flatMap(({ part, others, check }): Found[] => {
      if (check.verdict === 'easy') return []
      const { verdict, holeMm, leastMm, surelyMm, passes, helps, at, spec } = check
      const wire = helps.find((h) => h.kind === 'wire')
      const says =
        `${requireSpec(spec).name}: a hole of ${hundredths(holeMm)} mm for ${needOf(check)}` +
        `${at ? ` (${at.says})` : ''}, which need${passes === 1 ? 's' : ''} ` +
        (verdict === 'no'
          ? `${hundredths(leastMm)} mm: it will not go through. `
          : `${between(leastMm, surelyMm)} mm: tight. `)
      const found: Found = {
        weight: verdict === 'no' ? 'stops' : 'note',
        says:
          says +
          (wire?.kind === 'wire'
            ? `Wire of ${wire.gauge} gauge goes through.`
            : helps.some((h) => h.kind === 'larger hole')
              ? 'Take a bead with a larger hole, or another path.'
              : 'Take one of these.') +
          (others.length > 0 ? ` So it is in ${listed(others)} too.` : ''),
        part: part.id,
        why:
          verdict === 'no'
            ? 'Forced through, a bead breaks in the middle of finished work.'
            : 'Beads of one bag differ: some will not pass, and break if they are forced.',
        ...(at ? { spots: [spotAt(part, at)] } : {}),
        mends: helps.flatMap((help) => mendOf(piece, help) ?? []),
      }
      return [found]
    }),
}
