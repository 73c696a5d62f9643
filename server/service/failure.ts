import type { Problem } from '../../core/problem'

/**
 * A failure that the caller can do something about: an HTTP status, a code and a sentence. The route turns it into an
 * answer.
 */
export class Failure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly says: string,
    readonly details: { readonly problems?: readonly Problem[]; readonly data?: unknown } = {},
  ) {
    super(says)
    this.name = 'Failure'
  }
}

/** Another's piece is indistinguishable from none. */
export const notFound = (): Failure => new Failure(404, 'not-found', 'There is nothing here, or it is not yours.')

export const unsound = (problems: readonly Problem[]): Failure =>
  new Failure(422, problems[0]?.code ?? 'unsound', problems[0]?.says ?? 'This cannot be saved.', { problems })
