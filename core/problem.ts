/**
 * Expected failures are values. A problem has a code for programs, the place it concerns (a path in the
 * document or the name of a field) and a sentence that says what to do.
 */
export interface Problem {
  readonly code: string
  readonly at: string
  readonly says: string
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] }

export const good = <T>(value: T): Result<T> => ({ ok: true, value })

export const bad = (...problems: Problem[]): Result<never> => ({ ok: false, problems })

export const problem = (code: string, at: string, says: string): Problem => ({ code, at, says })

/** The value of a result that the caller knows to be good; a bug of the caller otherwise, so it throws. */
export function valueOf<T>(result: Result<T>): T {
  if (result.ok) return result.value
  throw new Error(result.problems.map((p) => `${p.at}: ${p.says}`).join('; '))
}
