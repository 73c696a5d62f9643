import { hung } from '#core/piece/held'
import type { Part, Piece } from '#core/piece/piece'
import { sized } from '#core/piece/sizes'
import type { Surroundings } from '#core/proof/found'
import { proofOf, type Proof } from '#core/proof/proof'

/** Proofreads away from the page. Parts that have not changed are not sent again. */
export interface Ask {
  readonly id: number
  readonly piece: Omit<Piece, 'parts'>
  /** Parts as they are, or the id of one that is as it was sent last. */
  readonly parts: readonly (Part | string)[]
  readonly around: Surroundings
}
export interface Answer {
  readonly id: number
  readonly proof: Proof
}

let kept = new Map<string, Part>()

self.onmessage = ({ data: { id, piece, parts, around } }: MessageEvent<Ask>) => {
  const all = parts.map((part) => (typeof part === 'string' ? kept.get(part)! : part))
  kept = new Map(all.map((part) => [part.id, part]))
  const proof = proofOf(hung(sized({ ...piece, parts: all })), around)
  ;(self as unknown as Worker).postMessage({ id, proof } satisfies Answer)
}
