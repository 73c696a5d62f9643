import { bad, good, problem, type Result } from '../problem'

/** Half of a character outside the basic plane by itself, or the character NUL: no database and no font knows them. */
const UNSOUND = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/

/** Whether a text can be kept and shown as it is. */
export const isSound = (text: string): boolean => !UNSOUND.test(text)

/** A text cut to at most so many UTF-16 units; a character that would be halved goes whole. */
export function shortened(text: string, most: number): string {
  const cut = text.slice(0, most)
  return isSound(text) && !isSound(cut) ? cut.slice(0, -1) : cut
}

/** Nothing that Weben reads is nested deeper than this. */
const DEEPEST = 24

/** How deep arrays and objects of a JSON text are nested, without parsing it. */
function depthOf(json: string): number {
  let [depth, deepest] = [0, 0]
  for (let i = 0; i < json.length; i++) {
    const unit = json.charCodeAt(i)
    if (unit === QUOTE) {
      for (i++; i < json.length && json.charCodeAt(i) !== QUOTE; i++) if (json.charCodeAt(i) === BACKSLASH) i++
    } else if (unit === OPEN_LIST || unit === OPEN_OBJECT) deepest = Math.max(deepest, ++depth)
    else if (unit === CLOSE_LIST || unit === CLOSE_OBJECT) depth--
  }
  return deepest
}
const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d]

/** Only escapes can bring an unsound character into a text that was decoded from bytes. */
const SUSPECT = /\0|\\u(?:0000|[dD][89a-fA-F])|[\uD800-\uDFFF]/

function holdsUnsound(value: unknown): boolean {
  const left = [value]
  while (left.length > 0) {
    const next = left.pop()
    if (typeof next === 'string') {
      if (!isSound(next)) return true
    } else if (Array.isArray(next)) for (const each of next) left.push(each)
    else if (typeof next === 'object' && next !== null)
      for (const [key, each] of Object.entries(next)) left.push(key, each)
  }
  return false
}

/**
 * Reads JSON from outside: no deeper than Weben's own, and with no text that cannot be kept. What its fields may be is
 * for a schema to say.
 */
export function parseJson(json: string): Result<unknown> {
  if (depthOf(json) > DEEPEST)
    return bad(problem('too-deep', 'json', 'This is nested deeper than anything that Weben writes. Check the file.'))
  let value: unknown
  try {
    value = JSON.parse(json)
  } catch {
    return bad(problem('not-json', 'json', 'This is not JSON, or only a part of it. Take the whole file.'))
  }
  return SUSPECT.test(json) && holdsUnsound(value)
    ? bad(problem('text-unsound', 'json', 'A text holds a character that cannot be kept. Type that text anew.'))
    : good(value)
}
