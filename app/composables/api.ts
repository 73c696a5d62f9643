import type { Problem } from '#core/problem'

/** What the server answered when it could not do what was asked; status 0 when it could not be reached. */
export class ApiError extends Error {
  constructor(readonly status: number, readonly code: string, readonly says: string, readonly problems: readonly Problem[] = [], readonly data: unknown = undefined) {
    super(says)
  }
}

interface ErrorAnswer { error?: { code: string, says: string, problems?: Problem[], data?: unknown } }

/** Calls the API. Throws ApiError with a sentence fit to be shown. */
export async function api<T>(path: string, { method = 'GET', body }: { method?: string, body?: unknown } = {}): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api/${path}`, { method, credentials: 'same-origin', ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }) })
  }
  catch {
    throw new ApiError(0, 'unreachable', 'Weben’s server cannot be reached. What you do is kept in this browser and sent when it is back.')
  }
  const answer = await response.json().catch(() => ({})) as T & ErrorAnswer
  if (response.ok) return answer
  const { code = 'failed', says = 'That did not work. Try again in a moment.', problems, data } = answer.error ?? {}
  throw new ApiError(response.status, code, says, problems, data)
}
