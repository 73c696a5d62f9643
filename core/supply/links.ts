import { linksOf, turnsOfLink } from '../piece/joint'
import type { Piece } from '../piece/piece'
import { plainNumber } from '../units/length'

/** Links between the parts of a piece, all that are alike together; for one piece, or one of a pair. */
interface Links {
  readonly kind: 'ring' | 'chain'
  readonly name: string
  readonly count: number
  /** What one of them keeps apart, mm. */
  readonly mm: number
}

const NAMES = { ring: 'Jump rings for a gap of', chain: 'Chain between parts,' } as const

/** What to have ready to join the parts: rings by the gap that they keep, chain by its length. */
export function linksNeeded(piece: Pick<Piece, 'parts'>): Links[] {
  const out = new Map<string, Links>()
  for (const link of linksOf(piece)) {
    const { kind, mm } = link
    const links = kind === 'chain' ? turnsOfLink(link) : null
    const counted = links === null ? '' : ` (${links} link${links === 1 ? '' : 's'})`
    const name = `${NAMES[kind]} ${plainNumber(mm)} mm${counted}`
    out.set(name, { kind, name, mm, count: (out.get(name)?.count ?? 0) + 1 })
  }
  return [...out.values()]
}
