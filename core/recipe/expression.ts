import type { Expr } from './language'

/** Values of parameters, loop counters, `m` (motif, from 0; −1 in the start, n in the end) and `n` (motifs in all). */
export type Env = ReadonlyMap<string, number>

/** No count, place or condition of a recipe needs more. */
export const MOST_VALUE = 1_000_000

/** What cannot be read or reckoned; the sentence says which and what to do. */
export class ExpressionFault extends Error {}

export type Term =
  | { readonly is: 'number'; readonly value: number }
  | { readonly is: 'name'; readonly name: string }
  | { readonly is: 'minus'; readonly of: Term }
  | { readonly is: Operator; readonly left: Term; readonly right: Term }

type Operator = '+' | '-' | '*' | '/' | '%' | '<' | '>' | '='

const TOKEN = /\d+|[a-z][a-zA-Z0-9]*|[-+*/%()<>=]/g

/** By precedence, loosest first. */
const LEVELS: readonly (readonly string[])[] = [
  ['<', '>', '='],
  ['+', '-'],
  ['*', '/', '%'],
]

/** Reads an expression into its terms; throws an ExpressionFault. */
export function parseExpression(text: string): Term {
  const tokens = text.match(TOKEN) ?? []
  if (tokens.join('') !== text.replaceAll(' ', ''))
    throw new ExpressionFault(
      `“${text}” cannot be read: write whole numbers, names of fields and + - * / % ( ) < > = only.`,
    )
  let at = 0
  const atom = (): Term => {
    const token = tokens[at++]
    if (token === undefined) throw new ExpressionFault(`“${text}” ends too early: something is missing in it.`)
    if (token === '-') return { is: 'minus', of: atom() }
    if (token === '(') {
      const inside = level(0)
      if (tokens[at++] !== ')') throw new ExpressionFault(`“${text}” opens a bracket that it does not close.`)
      return inside
    }
    if (/^\d/.test(token)) return { is: 'number', value: bounded(Number(token), text) }
    if (/^[a-z]/.test(token)) return { is: 'name', name: token }
    throw new ExpressionFault(`“${text}” has “${token}” where a number or a name is needed.`)
  }
  const level = (which: number): Term => {
    const operators = LEVELS[which]
    if (!operators) return atom()
    let left = level(which + 1)
    while (operators.includes(tokens[at] ?? '')) {
      const is = tokens[at++] as Operator
      left = { is, left, right: level(which + 1) }
    }
    return left
  }
  const term = level(0)
  if (at < tokens.length) throw new ExpressionFault(`“${text}” has something left over behind “${tokens[at - 1]}”.`)
  return term
}

function bounded(value: number, text: string): number {
  if (Math.abs(value) > MOST_VALUE)
    throw new ExpressionFault(`“${text}” comes to more than ${MOST_VALUE}: use smaller numbers.`)
  return value
}

const read = new Map<string, Term>()

/** The terms of an expression, kept once read; throws an ExpressionFault. */
export function termOf(expr: Expr): Term {
  if (typeof expr === 'number') return { is: 'number', value: expr }
  let term = read.get(expr)
  if (!term) {
    term = parseExpression(expr)
    // Expressions come from documents; what has been read is kept only as long as that stays little.
    if (read.size > 5000) read.clear()
    read.set(expr, term)
  }
  return term
}

/**
 * The value of an expression: `/` rounds down, `%` is the remainder from 0 on, comparisons answer 1 or 0. Throws an
 * ExpressionFault where a name is unknown, something is divided by 0, or a value leaves its bounds.
 */
export const evaluate = (expr: Expr, env: Env): number =>
  typeof expr === 'number' ? expr : valueOfTerm(termOf(expr), env, expr)

/** The value of a term; `text` is the expression that it stands in, for the sentence of a fault. */
export function valueOfTerm(term: Term, env: Env, text: string): number {
  switch (term.is) {
    case 'number':
      return term.value
    case 'name': {
      const found = env.get(term.name)
      if (found === undefined)
        throw new ExpressionFault(`“${text}” names “${term.name}”, which nothing here is called.`)
      return found
    }
    case 'minus':
      return -valueOfTerm(term.of, env, text)
  }
  const left = valueOfTerm(term.left, env, text)
  const right = valueOfTerm(term.right, env, text)
  switch (term.is) {
    case '+':
      return bounded(left + right, text)
    case '-':
      return bounded(left - right, text)
    case '*':
      return bounded(left * right, text)
    case '<':
      return left < right ? 1 : 0
    case '>':
      return left > right ? 1 : 0
    case '=':
      return left === right ? 1 : 0
  }
  if (right === 0) throw new ExpressionFault(`“${text}” divides by 0 here.`)
  const down = Math.floor(left / right)
  return term.is === '/' ? down : left - down * right
}

/** Names that a term uses. */
export function namesIn(term: Term, names = new Set<string>()): Set<string> {
  if (term.is === 'name') names.add(term.name)
  else if (term.is === 'minus') namesIn(term.of, names)
  else if (term.is !== 'number') {
    namesIn(term.left, names)
    namesIn(term.right, names)
  }
  return names
}
