import { reactive, watch } from 'vue'
import type { z } from 'zod'
import { ACCOUNT_HEADER, anyAnswer, DOCUMENT_HEADER, DOCUMENT_VERSION, errorAnswer } from '#core/contract/answer'
import type { Problem } from '#core/problem'

/**
 * What the server answered when it could not do what was asked; status 0 when it could not be reached, or what
 * answered was not Weben.
 */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly says: string,
    readonly problems: readonly Problem[] = [],
    readonly data: unknown = undefined,
  ) {
    super(says)
  }

  /** Nothing was decided: the same may be asked again later. */
  get isPassing(): boolean {
    return this.status === 0 || this.status >= 500 || this.status === 429
  }
}

const AWAY = 'Weben’s server cannot be reached. Nothing was changed there; try again when it is back.'
const RENEWED =
  'Weben was renewed since this page was opened. Reload the page; what you did here is kept in this browser.'

/** How this page stands with the server, for whoever shows it. */
export const reach = reactive({
  /** No answer of ours came to the last request. */
  away: false,
  /** The server writes another version of the document than this page: it wants to be loaded anew. */
  renewed: false,
  /** The session has ended, or another's has begun: a sentence, or empty. */
  signedOut: '',
  /** For whom requests are made. */
  account: null as string | null,
})

export interface Ask {
  readonly method?: string
  readonly body?: unknown
  /** A file that is sent as it is, instead of `body`. */
  readonly file?: Blob
  /** Longest wait for an answer, ms. */
  readonly within?: number
  /** It is sent to its end though the page is left meanwhile; for what is small. */
  readonly outlives?: boolean
}

async function ask(
  path: string,
  { method = 'GET', body, file, within = 20_000, outlives = false }: Ask,
): Promise<{ response: Response; value: unknown }> {
  try {
    const response = await fetch(`/api/${path}`, {
      method,
      keepalive: outlives,
      credentials: 'same-origin',
      signal: AbortSignal.timeout(within),
      headers: {
        [DOCUMENT_HEADER]: DOCUMENT_VERSION,
        ...(reach.account ? { [ACCOUNT_HEADER]: reach.account } : {}),
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(file ? { 'Content-Type': 'application/octet-stream' } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(file ? { body: file } : {}),
    })
    return { response, value: await response.json() }
  } catch {
    throw new ApiError(0, 'unreachable', AWAY)
  }
}

/** The answer of Weben itself, of this very version; anything else is no answer. */
async function call<S extends z.ZodType>(answer: S, path: string, how: Ask): Promise<z.infer<S>> {
  const { response, value } = await ask(path, how)
  const version = response.headers.get(DOCUMENT_HEADER)
  if (version === null) throw new ApiError(0, 'not-ours', AWAY)
  if (version !== DOCUMENT_VERSION) throw new ApiError(409, 'renewed', RENEWED)
  if (response.ok) {
    const read = answer.safeParse(value)
    if (!read.success) throw new ApiError(0, 'not-ours', AWAY)
    return read.data
  }
  const failure = errorAnswer.safeParse(value)
  if (!failure.success) throw new ApiError(0, 'not-ours', AWAY)
  const { code, says, problems, data } = failure.data.error
  throw new ApiError(response.status, code, says, problems, data)
}

/** Calls the API and checks what comes back. Throws ApiError with a sentence fit to be shown. */
export async function api<S extends z.ZodType>(answer: S, path: string, how: Ask = {}): Promise<z.infer<S>> {
  try {
    const value = await call(answer, path, how)
    reach.away = false
    return value
  } catch (error) {
    if (error instanceof ApiError) {
      reach.away = error.status === 0
      if (error.code === 'renewed') reach.renewed = true
      if (error.code === 'signed-out' || error.code === 'other-account') reach.signedOut = error.says
    }
    throw error
  }
}

/**
 * A wait that doubles from half a second to half a minute, each time somewhere in its upper half, so that many
 * browsers do not come back at once.
 */
export const backOff = (failures: number): number => Math.min(30_000, 500 * 2 ** failures) * (0.5 + Math.random() / 2)

let knocking = false

/** While the server is away, knocks now and then until it answers; at once when the browser is online again. */
export function watchReach(): void {
  watch(
    () => reach.away,
    async (away) => {
      if (!away || knocking) return
      knocking = true
      for (let failures = 0; reach.away; failures++) {
        await new Promise<void>((done) => {
          const timer = setTimeout(done, backOff(failures + 1))
          window.addEventListener(
            'online',
            () => {
              clearTimeout(timer)
              done()
            },
            { once: true },
          )
        })
        await api(anyAnswer, 'health', { within: 8000 }).catch(() => {})
      }
      knocking = false
    },
    { immediate: true },
  )
}
