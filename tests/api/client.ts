/** A person’s browser as the API sees it: keeps its cookie, says where it comes from. */
interface Answer<T = Record<string, unknown>> {
  readonly status: number
  readonly body: T & { error?: { code: string; says: string; data?: unknown } }
  readonly headers: Headers
}

export function client(address: string) {
  let cookie = ''
  async function call<T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await fetch(`${address}/api/${path}`, {
      method,
      redirect: 'manual',
      headers: {
        origin: address,
        ...(cookie ? { cookie } : {}),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    })
    for (const set of response.headers.getSetCookie()) cookie = set.split(';')[0]!
    const text = await response.text()
    return {
      status: response.status,
      headers: response.headers,
      body: (text.startsWith('{') ? JSON.parse(text) : { text }) as Answer<T>['body'],
    }
  }
  return {
    call,
    get cookie() {
      return cookie
    },
    set cookie(value: string) {
      cookie = value
    },
  }
}

let people = 0
export const newName = (): string => `Person ${process.pid}-${++people}`
export const PASSWORD = 'a long enough word'

export async function person(address: string) {
  const someone = client(address)
  const name = newName()
  const { status, body } = await someone.call('POST', 'account', { signIn: name, password: PASSWORD })
  if (status !== 200) throw new Error(`${name} could not join: ${status} ${JSON.stringify(body)}`)
  return Object.assign(someone, { name })
}
