import { randomUUID } from 'node:crypto'
import { defineEventHandler, setResponseHeader, setResponseStatus, type EventHandlerRequest, type H3Event } from 'h3'
import { Failure } from '../service/failure'
import { writeLog } from './log'

/** The shape of every error: a code for programs, a sentence that says what to do, and what it concerns. */
export interface ErrorBody {
  readonly error: {
    readonly code: string
    readonly says: string
    readonly problems?: unknown
    readonly data?: unknown
    readonly id?: string
  }
}

/**
 * A route: runs the work and turns a Failure into its answer. Anything else is a fault of ours: the log gets the rest,
 * the user an id to name.
 */
export function answer<T>(work: (event: H3Event<EventHandlerRequest>) => Promise<T>) {
  return defineEventHandler(async (event): Promise<T | ErrorBody | string> => {
    setResponseHeader(event, 'Cache-Control', 'no-store')
    try {
      return await work(event)
    } catch (error) {
      if (error instanceof Failure) {
        setResponseStatus(event, error.status)
        const { dataText, ...details } = error.details
        const body: ErrorBody = { error: { code: error.code, says: error.says, ...details } }
        return dataText === undefined
          ? body
          : asJson(event, `${JSON.stringify(body).slice(0, -'}}'.length)},"data":${dataText}}}`)
      }
      const id = randomUUID().slice(0, 8)
      writeLog('fault', {
        id,
        route: event.path.replace(/\?.*/, '').replace(/[0-9a-f-]{36}/g, ':id'),
        message: error instanceof Error ? error.message : String(error),
        stack: error instanceof Error ? error.stack : undefined,
      })
      setResponseStatus(event, 500)
      return {
        error: {
          code: 'fault',
          says: `Something went wrong on our side (${id}). What you did before is saved. Try again in a moment.`,
          id,
        },
      }
    }
  })
}

/** An answer that is JSON already. */
export function asJson(event: H3Event, text: string): string {
  setResponseHeader(event, 'Content-Type', 'application/json')
  return text
}
