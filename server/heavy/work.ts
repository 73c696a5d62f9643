import { gunzipSync, gzipSync } from 'node:zlib'
import type { Listing } from '../../core/contract/piece'
import { fitOf } from '../../core/fit/reckon'
import { readPieceFile } from '../../core/format/piece-file'
import { pieceFromBody, pieceToBody, pieceToFile, problemsOf } from '../../core/piece/codec'
import { checkEffort, effortsOf } from '../../core/piece/effort'
import { partsWith } from '../../core/piece/joint'
import { laidCounted } from '../../core/piece/laid'
import { columnsOf, fittedPart, type Piece } from '../../core/piece/piece'
import { applySteps, type Step, type Transaction } from '../../core/piece/step'
import { upgradeBody, upgradeStep } from '../../core/piece/upgrade'
import { pictureOf } from '../../core/picture/picture'
import { usualLying } from '../../core/picture/view'
import { boxOfWhole, wholeOf } from '../../core/picture/whole'
import { bad, good, valueOf, type Result } from '../../core/problem'
import { proofOf } from '../../core/proof/proof'
import { tallyPiece, totalOf } from '../../core/tally/tally'
import { parseJson } from '../../core/units/text'
import { sentSchema, type Sent } from './sent'

/**
 * What the server does with whole pieces, as plain functions of what they are given: done at once where it is little,
 * by a worker where it would hold up everybody else (pool.ts). Nothing here knows a database or a person.
 */

/** What the workshop shows of a piece without opening it. */
function summarised(piece: Piece): Listing['summary'] {
  const part = fittedPart(piece)
  const fit = fitOf(piece)
  return {
    technique: part.technique,
    spec: part.spec,
    columns: columnsOf(part),
    rows: laidCounted(part),
    beads: totalOf(tallyPiece(piece)),
    lengthMm: fit.beadworkMm.nominal,
    kind: piece.fit.kind,
    finishedMm: fit.atMm,
    bodyMm: piece.fit.bodyMm,
    feel: fit.feel,
  }
}

/** A snapshot of a piece as it is stored. */
const packed = (piece: Piece): Uint8Array => gzipSync(JSON.stringify(pieceToBody(piece)), { level: 4 })

/** A piece from its snapshot and the steps of the revisions after it, each as JSON. */
function replayed({ snapshot, steps }: { snapshot: Uint8Array; steps: readonly string[] }): Piece {
  let piece = valueOf(pieceFromBody(upgradeBody(JSON.parse(gunzipSync(snapshot).toString('utf8')))))
  for (const text of steps) piece = valueOf(applySteps(piece, (JSON.parse(text) as Step[]).map(upgradeStep)))
  return piece
}

/** The body of a piece as JSON. */
const written = (piece: Piece): string => JSON.stringify(pieceToBody(piece))

/** A piece as its file, on one line. */
const filed = (piece: Piece): string => JSON.stringify(pieceToFile(piece))

export interface Begun {
  readonly piece: Piece
  readonly summary: Listing['summary']
  readonly snapshot: Uint8Array
}

/** A new piece with what is stored of it. */
export const beginning = (piece: Piece): Begun => ({ piece, summary: summarised(piece), snapshot: packed(piece) })

/** The same from the bytes of its body. */
function begun(bytes: Uint8Array): Result<Begun> {
  const read = parseJson(textOf(bytes))
  if (!read.ok) return read
  const piece = pieceFromBody(read.value)
  return piece.ok ? good(beginning(piece.value)) : piece
}

/** The same from the bytes of its file. */
function begunFromFile(bytes: Uint8Array): Result<Begun> {
  const piece = readPieceFile(textOf(bytes))
  return piece.ok ? good(beginning(piece.value)) : piece
}

const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

/** What a browser has sent, from its bytes. */
export function readSent(bytes: Uint8Array): Result<Sent> {
  const read = parseJson(textOf(bytes))
  if (!read.ok) return read
  const sent = sentSchema.safeParse(read.value)
  return sent.success ? good(sent.data) : bad(...problemsOf(sent.error))
}

/** Where a browser stands, from the bytes of what it has sent, so that its piece can be fetched. */
function readStand(bytes: Uint8Array): Result<Pick<Sent, 'base' | 'on'>> {
  const sent = readSent(bytes)
  return sent.ok ? good({ base: sent.value.base, on: sent.value.on }) : sent
}

export interface Moved {
  readonly piece: Piece
  /** How many revisions it has moved on, and the id of the transaction that made the last. */
  readonly count: number
  readonly last: string
  /** The transactions as JSON, and how many bytes the steps of each are. */
  readonly text: string
  readonly bytes: readonly number[]
}

/** A piece after transactions; all of them or none. */
function moved({ piece, transactions }: { piece: Piece; transactions: readonly Transaction[] }): Result<Moved> {
  let now = piece
  for (const { steps } of transactions) {
    const next = applySteps(now, steps)
    if (!next.ok) return next
    now = next.value
  }
  const last = transactions.at(-1)!.id
  const written = transactions.map(({ steps }) => JSON.stringify(steps))
  const text = transactions.map(
    ({ id, label }, k) => `{"id":${JSON.stringify(id)},"label":${JSON.stringify(label)},"steps":${written[k]}}`,
  )
  return good({
    piece: now,
    count: transactions.length,
    last,
    text: `[${text.join(',')}]`,
    bytes: written.map((steps) => Buffer.byteLength(steps)),
  })
}

/** The same from the bytes of what was sent, with what it costs. */
function movedBy({ piece, bytes }: { piece: Piece; bytes: Uint8Array }): Result<Moved & { effort: number }> {
  const sent = readSent(bytes)
  if (!sent.ok) return sent
  const { transactions } = sent.value
  const effort = checkEffort(effortOfAll(piece, transactions))
  if (!effort.ok) return effort
  const next = moved({ piece, transactions })
  return next.ok ? good({ ...next.value, effort: effort.value }) : next
}

export const effortOfAll = (piece: Piece, transactions: readonly Transaction[]): number =>
  effortsOf(
    piece,
    transactions.map((t) => t.steps),
  ).reduce((sum, effort) => sum + effort, 0)

const GROUNDS = { day: '#cfc6b8', evening: '#35302c' } as const
export type Ground = keyof typeof GROUNDS

/** The beginning of a piece as it lies on the mat: a PNG. */
function pictured({ piece, ground }: { piece: Piece; ground: Ground }): Uint8Array {
  const part = fittedPart(piece)
  const lying = usualLying(piece.parts)
  const whole = wholeOf(partsWith(piece.parts, part))
  const tall = boxOfWhole(whole, part, { ...lying, scale: 1, x: 0, y: 0 }).height
  const scale = Math.min(14, Math.max(2, 236 / Math.max(1, tall)))
  return pictureOf(part, piece.tray, {
    ...lying,
    scale,
    ground: GROUNDS[ground],
    glyphs: false,
    parts: piece.parts,
    margin: 32,
    least: { width: 784, height: 300 },
    most: { width: 1120, height: 300 },
  })
}

/** What the proofreader says of a piece, as JSON. */
const proofread = (piece: Piece): string => JSON.stringify(proofOf(piece))

export const WORK = {
  begun,
  begunFromFile,
  filed,
  moved,
  movedBy,
  packed,
  pictured,
  proofread,
  readStand,
  replayed,
  summarised,
  written,
}
