import { ExpressionFault, termOf, type Term } from './expression'
import type { Expr, Recipe } from './language'

/** What a condition hangs on, as it is said: in which motifs or turns, and where which field has which value. */
interface Said {
  readonly when: readonly string[]
  readonly where: readonly string[]
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth']
const ordinal = (n: number): string => ORDINALS[n - 1] ?? `${n}th`

const SIGNS = { '=': 'is', '<': 'is under', '>': 'is over' } as const
type Sign = keyof typeof SIGNS
const TURNED = { '=': '=', '<': '>', '>': '<' } as const satisfies Record<Sign, Sign>
const isSign = (is: Term['is']): is is Sign => is in SIGNS
const numberOf = (term: Term): number | null => (term.is === 'number' ? term.value : null)
const isName = (term: Term, name: string): boolean => term.is === 'name' && term.name === name
/** c where the term is n − c, the motif before the last by so many being n − 1 − c. */
function fromLast(term: Term): number | null {
  if (isName(term, 'n')) return 0
  return term.is === '-' && isName(term.left, 'n') ? numberOf(term.right) : null
}

/**
 * A condition of a recipe as a weaver would say it: “in the last motif only”, “in every second motif, from the first”,
 * “where “Ends” is 1”. What no such sentence is known for is read out sign by sign.
 */
export function conditionWords(expr: Expr, recipe: Pick<Recipe, 'params'>): string {
  let term: Term
  try {
    term = termOf(expr)
  } catch (error) {
    if (error instanceof ExpressionFault) return `where ${String(expr)}`
    throw error
  }
  const labels = new Map(recipe.params.map(({ id, label }) => [id, `“${label}”`]))
  const said = saidOf(term, labels)
  return sentence(said)
}

function sentence({ when, where }: Said): string {
  const there = where.length > 0 ? `where ${where.join(' and ')}` : ''
  return [...when, ...(there ? [there] : [])].join(', ')
}

type Labels = ReadonlyMap<string, string>

const both = (a: Said, b: Said): Said => ({ when: [...a.when, ...b.when], where: [...a.where, ...b.where] })

function saidOf(term: Term, labels: Labels): Said {
  // Of a product both must hold.
  if (term.is === '*') return both(saidOf(term.left, labels), saidOf(term.right, labels))
  if (isSign(term.is) && 'left' in term) {
    const [left, right, sign] =
      term.left.is === 'number' && term.right.is !== 'number'
        ? [term.right, term.left, TURNED[term.is]]
        : [term.left, term.right, term.is]
    const bound = numberOf(right)
    if (left.is === '*' && sign === '=' && bound === 0)
      return { when: [`everywhere but ${sentence(saidOf(left, labels))}`], where: [] }
    if (left.is === '*' && sign === '=' && bound === 1) return saidOf(left, labels)
    const counted = countedWords(left, sign, right, labels)
    if (counted) return { when: [counted], where: [] }
    return { when: [], where: [`${text(left, labels)} ${SIGNS[sign]} ${text(right, labels)}`] }
  }
  if (term.is === '%') {
    const counted = countedWords(term, '=', { is: 'number', value: 0 }, labels)
    const every = numberOf(term.right)
    if (counted && every === 2) return { when: [counted.replace(/first$/, 'second')], where: [] }
    if (counted) return { when: [`everywhere but ${counted}`], where: [] }
  }
  return { when: [], where: [`${text(term, labels)} is not 0`] }
}

/** What is said of a count of motifs or of turns; null where it is none. */
function countedWords(left: Term, sign: Sign, right: Term, labels: Labels): string | null {
  const counter = left.is === '%' ? left.left : left
  if (counter.is !== 'name' || labels.has(counter.name) || counter.name === 'n') return null
  const what = counter.name === 'm' ? 'motif' : 'turn'
  const at = numberOf(right)
  if (left.is === '%') {
    const every = numberOf(left.right)
    if (every === null || at === null || sign !== '=' || every < 2) return null
    return `in every ${ordinal(every)} ${what}, from the ${ordinal(at + 1)}`
  }
  if (at !== null) {
    if (sign === '=') return `in the ${ordinal(at + 1)} ${what} only`
    if (sign === '>') return `from the ${ordinal(at + 2)} ${what} on`
    return at === 1 ? `in the first ${what} only` : `in the first ${at} ${what}s`
  }
  const last = what === 'motif' ? fromLast(right) : null
  if (last !== 1) return null
  return { '=': 'in the last motif only', '<': 'in all motifs but the last', '>': 'after the last motif' }[sign]
}

/** A term read out, with the names that fields have for people. */
function text(term: Term, labels: Labels): string {
  if (term.is === 'number') return String(term.value)
  if (term.is === 'name')
    return (
      labels.get(term.name) ??
      { m: 'the motif, from 0,', n: 'the number of motifs' }[term.name] ??
      `the turn ${term.name}`
    )
  if (term.is === 'minus') return `−${text(term.of, labels)}`
  const sides = [term.left, term.right].map((side) =>
    'left' in side && term.is !== side.is ? `(${text(side, labels)})` : text(side, labels),
  )
  const sign = { '+': '+', '-': '−', '*': '×', '/': '÷', '%': 'mod', ...SIGNS }[term.is]
  return `${sides[0]} ${sign} ${sides[1]}`
}
