import { getRequestHeader, getRouterParam, readRawBody, type H3Event } from 'h3'
import type { z } from 'zod'
import { problemsOf } from '../../core/piece/codec'
import { parseJson } from '../../core/units/text'
import { MOST_REVISION } from '../../core/contract/answer'
import { Failure, notFound, unsound } from '../service/failure'

const MB = 1_000_000

/** Reads and checks a JSON body of at most `mostMb` megabytes, at the boundary and nowhere else. */
export async function readJson<S extends z.ZodType>(event: H3Event, schema: S, mostMb = 1): Promise<z.infer<S>> {
  const read = parseJson(new TextDecoder().decode(await readBytes(event, mostMb)))
  if (!read.ok) throw unsound(read.problems)
  const parsed = schema.safeParse(read.value)
  if (!parsed.success) throw unsound(problemsOf(parsed.error))
  return parsed.data
}

/** The bytes of a body of at most `mostMb` megabytes, for whoever reads them elsewhere. */
export async function readBytes(event: H3Event, mostMb: number): Promise<Uint8Array> {
  const length = Number(getRequestHeader(event, 'content-length') ?? Number.NaN)
  if (!Number.isFinite(length)) throw new Failure(411, 'length-missing', 'The request must say how long it is.')
  if (length > mostMb * MB)
    throw new Failure(413, 'too-large', `This is larger than ${mostMb} MB and cannot be taken.`)
  return (await readRawBody(event, false)) ?? new Uint8Array()
}

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** The id that the address names. One of another shape names nothing. */
export function idIn(event: H3Event, name = 'id'): string {
  const id = getRouterParam(event, name) ?? ''
  if (!UUID.test(id)) throw notFound()
  return id
}

/** The number of a revision that the address names; what can be no number of one names nothing. */
export function revisionIn(event: H3Event, name: string): number {
  const text = getRouterParam(event, name) ?? ''
  const number = /^\d{1,10}$/.test(text) ? Number(text) : Infinity
  if (number > MOST_REVISION) throw notFound()
  return number
}

/** A whole number from a query, from 0 to the largest that revisions are counted to; 0 for anything else. */
export const wholeIn = (value: unknown): number =>
  Math.min(MOST_REVISION, Math.max(0, Math.trunc(Number(value ?? 0)) || 0))
