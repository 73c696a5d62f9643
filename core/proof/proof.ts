import type { Part, Piece } from '../piece/piece'
import { WEIGHTS } from '../technique/technique'
import { GROUPS, type Finding, type Found, type Rule, type Surroundings } from './found'
import { meantFor } from './meant'
import { RULES } from './rules'
import { contentOf, signOf } from './spots'

/** What the proofreader says of a piece. */
export interface Proof {
  /** What wants a look, gravest first, grouped by part in their order; of the piece as a whole first. */
  readonly open: readonly Finding[]
  /** What was said to be meant so, in the same order. */
  readonly quiet: readonly Finding[]
}

const finding = (rule: Rule, part: Part | null, { code, part: _part, ...found }: Found): Finding => {
  const spots = found.spots ?? []
  const id = code ?? rule.id
  const content = part && spots.length > 0 ? contentOf(part, spots) : found.says
  return {
    ...{ rule: id, group: rule.group, part: part?.id ?? null, meant: null },
    ...found,
    ...{ spots, mends: found.mends ?? [], sign: signOf(`${id}|${content}`) },
  }
}

/** Asks a rule of a part, or of the piece as a whole. */
export type Ask = (rule: Rule, part: Part | null) => readonly Found[]

const asksPiece = (rule: Rule, piece: Piece): boolean => rule.ofPiece !== undefined && (rule.applies?.(piece) ?? true)
const partsFor = (rule: Rule, piece: Piece): readonly Part[] =>
  rule.ofPart && (rule.applies?.(piece) ?? true) ? piece.parts.filter((part) => rule.needs?.(part, piece) ?? true) : []

/** The rules that apply to a piece: those that are asked of it, or of one of its parts. */
export const rulesFor = (piece: Piece, rules: readonly Rule[] = RULES): readonly Rule[] =>
  rules.filter((rule) => asksPiece(rule, piece) || partsFor(rule, piece).length > 0)

/** How often something is asked of a piece. */
export const asksOf = (piece: Piece, rules: readonly Rule[] = RULES): number =>
  rules.reduce((sum, rule) => sum + (asksPiece(rule, piece) ? 1 : 0) + partsFor(rule, piece).length, 0)

/** Everything that rules find, before it is asked what is meant so. */
export function findingsOf(
  piece: Piece,
  around: Surroundings = {},
  rules: readonly Rule[] = RULES,
  ask: Ask = (rule, part) => (part ? rule.ofPart!(part, piece) : rule.ofPiece!(piece, around)),
): Finding[] {
  return rules.flatMap((rule) => [
    ...(asksPiece(rule, piece) ? ask(rule, null) : []).map((found) =>
      finding(rule, piece.parts.find(({ id }) => id === found.part) ?? null, found),
    ),
    ...partsFor(rule, piece).flatMap((part) => ask(rule, part).map((found) => finding(rule, part, found))),
  ])
}

const rank = ({ weight, group }: Finding): number => WEIGHTS.indexOf(weight) * GROUPS.length + GROUPS.indexOf(group)

/** Proofreads a piece. */
export function proofOf(piece: Piece, around: Surroundings = {}, rules: readonly Rule[] = RULES, ask?: Ask): Proof {
  const at = new Map(piece.parts.map((part, k) => [part.id, k]))
  const place = ({ part }: Finding): number => (part === null ? -1 : at.get(part)!)
  const all = findingsOf(piece, around, rules, ask).toSorted((a, b) => rank(a) - rank(b) || place(a) - place(b))
  const marked = all.map((one) => ({ ...one, meant: meantFor(piece, one) }))
  return { open: marked.filter((f) => f.meant === null), quiet: marked.filter((f) => f.meant !== null) }
}

/** Findings that want a look: what stops the work or looks wrong. */
export const wanting = ({ open }: Pick<Proof, 'open'>): readonly Finding[] =>
  open.filter(({ weight }) => weight !== 'note')
