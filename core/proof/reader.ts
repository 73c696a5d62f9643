import type { Part, Piece } from '../piece/piece'
import type { Found, Rule, Surroundings } from './found'
import { asksOf, proofOf, type Ask, type Proof } from './proof'
import { RULES } from './rules'

/** What has been asked so far, of how much, and what is asked now. */
export interface Progress {
  readonly done: number
  readonly of: number
  readonly looksFor: string
  /** Name of the part that is read; null: the piece as a whole. */
  readonly part: string | null
}

interface Answer {
  readonly part: Part
  /** What of the piece besides its parts was there. */
  readonly beside: string
  readonly found: readonly Found[]
}

/** Whether two parts are the same but for being another value: what they hold never changes. */
function same(a: Part, b: Part): boolean {
  if (a === b) return true
  const [x, y] = [a as unknown as Record<string, unknown>, b as unknown as Record<string, unknown>]
  const keys = Object.keys(x)
  return keys.length === Object.keys(y).length && keys.every((key) => x[key] === y[key])
}

/**
 * Reads a piece again and again while it is worked on. Rules that ask a part alone are asked anew only of parts that
 * have changed; what it says is what reading from scratch says.
 */
export class Reader {
  readonly #rules: readonly Rule[]
  #answers = new Map<Rule, Map<string, Answer>>()

  constructor(rules: readonly Rule[] = RULES) {
    this.#rules = rules
  }

  read(piece: Piece, around: Surroundings = {}, told: (progress: Progress) => void = () => undefined): Proof {
    const beside = JSON.stringify([piece.tray, piece.gauges])
    const of = asksOf(piece, this.#rules)
    const next = new Map<Rule, Map<string, Answer>>()
    let done = 0
    const remember = (rule: Rule, part: Part, answer: Answer): readonly Found[] => {
      const own = next.get(rule)
      if (own) own.set(part.id, answer)
      else next.set(rule, new Map([[part.id, answer]]))
      return answer.found
    }
    const ask: Ask = (rule, part) => {
      told({ done: done++, of, looksFor: rule.looksFor, part: part?.name ?? null })
      if (part === null) return rule.ofPiece!(piece, around)
      if (!rule.alone) return rule.ofPart!(part, piece)
      const known = this.#answers.get(rule)?.get(part.id)
      if (known && known.beside === beside && same(known.part, part)) return remember(rule, part, known)
      return remember(rule, part, { part, beside, found: rule.ofPart!(part, piece) })
    }
    const proof = proofOf(piece, around, this.#rules, ask)
    // What is no longer of the piece is forgotten.
    this.#answers = next
    return proof
  }
}
