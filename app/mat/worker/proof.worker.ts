import { hung } from '#core/piece/held'
import type { Part, Piece } from '#core/piece/piece'
import { sized } from '#core/piece/sizes'
import type { Surroundings } from '#core/proof/found'
import type { Proof } from '#core/proof/proof'
import { Reader, type Progress } from '#core/proof/reader'

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
  /** Null while it is still read; how far it is stands beside it then. */
  readonly proof: Proof | null
  readonly progress?: Progress
}

/** How often it is said how far a long reading is, ms. */
const SAY_MS = 120

let kept = new Map<string, Part>()
const reader = new Reader()
const say = (answer: Answer) => (self as unknown as Worker).postMessage(answer)

self.onmessage = ({ data: { id, piece, parts, around } }: MessageEvent<Ask>) => {
  const all = parts.map((part) => (typeof part === 'string' ? kept.get(part)! : part))
  kept = new Map(all.map((part) => [part.id, part]))
  let said = performance.now()
  const proof = reader.read(hung(sized({ ...piece, parts: all })), around, (progress) => {
    if (performance.now() - said < SAY_MS) return
    said = performance.now()
    say({ id, proof: null, progress })
  })
  say({ id, proof })
}
