import { z } from 'zod'
import { PIECE_VERSION } from '../piece/version'

/**
 * What the server answers, as the browser checks it before believing it. Fields that are not named here are passed
 * over, so that a newer server may say more.
 */

/**
 * Every answer says in this header which version of the piece document the server writes; an answer without it is not
 * Weben's.
 */
export const DOCUMENT_HEADER = 'weben-document'
export const DOCUMENT_VERSION = String(PIECE_VERSION)

/**
 * A request says in this header for whom it is made, so that a browser in which someone else signed in does not mix
 * two people's work.
 */
export const ACCOUNT_HEADER = 'weben-account'

export const errorAnswer = z.object({
  error: z.object({
    code: z.string(),
    says: z.string(),
    data: z.unknown().optional(),
    problems: z.array(z.object({ code: z.string(), at: z.string(), says: z.string() })).optional(),
  }),
})

/** Revisions are counted in 32 bits. */
export const MOST_REVISION = 2_147_483_647
export const revision = z.int().min(0).max(MOST_REVISION)
/**
 * Id of the transaction that made the newest revision; empty for a piece as it was begun. It names the line that
 * revisions belong to.
 */
export const head = z.string().max(40)

/** Whatever the server says, where nothing of it is used. */
export const anyAnswer = z.object({})
