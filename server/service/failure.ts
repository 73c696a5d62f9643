import type { Problem, Result } from '../../core/problem'

interface Details {
  readonly problems?: readonly Problem[]
  readonly data?: unknown
  /** The same as `data` where it is at hand as JSON and too large to be read and written again. */
  readonly dataText?: string
}

/**
 * A failure that the caller can do something about: an HTTP status, a code and a sentence. The route turns it into an
 * answer.
 */
export class Failure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly says: string,
    readonly details: Details = {},
  ) {
    super(says)
    this.name = 'Failure'
  }
}

/** Another's piece is indistinguishable from none. */
export const notFound = (): Failure => new Failure(404, 'not-found', 'There is nothing here, or it is not yours.')

/** What could not even be read, against what was read and cannot be. */
const UNREADABLE = new Set(['not-json', 'too-deep', 'text-unsound'])

export function unsound(problems: readonly Problem[]): Failure {
  const { code, says } = problems[0] ?? { code: 'unsound', says: 'This cannot be saved.' }
  return new Failure(UNREADABLE.has(code) ? 400 : 422, code, says, { problems })
}

/** The value of a result; a Failure with its sentence otherwise. */
export function sound<T>(result: Result<T>): T {
  if (!result.ok) throw unsound(result.problems)
  return result.value
}
