import { bad, problem, type Result } from '../problem'
import { parseJson } from '../units/text'
import { pieceFromBody, pieceToFile } from '../piece/codec'
import type { Piece } from '../piece/piece'
import { upgradeBody } from '../piece/upgrade'
import { PIECE_VERSION } from '../piece/version'
import { z } from 'zod'

/** Largest piece file that is read, in characters. */
const LONGEST_FILE = 64_000_000

/** The piece as a file: JSON with one row of a section to a line, so that people can read it and compare versions. */
export function writePieceFile(piece: Piece): string {
  return (
    JSON.stringify(pieceToFile(piece), null, 1).replace(
      /\[\s+((?:\d+,\s+)*\d+)\s+\]/g,
      (_, inner: string) => `[${inner.replace(/\s+/g, ' ')}]`,
    ) + '\n'
  )
}

const envelope = z.looseObject({ format: z.literal('weben-piece'), version: z.number() })

/** Reads a piece file; what is wrong is said in words, and nothing is read in part. */
export function readPieceFile(text: string): Result<Piece> {
  if (text.length > LONGEST_FILE)
    return bad(problem('file-large', 'file', 'This file is larger than any piece. Choose the piece file itself.'))
  const read = parseJson(text)
  if (!read.ok)
    return read.problems[0]!.code === 'not-json'
      ? bad(
          problem(
            'file-not-json',
            'file',
            'This is not a Weben piece file: it is not JSON, or it was cut off. Export the piece again.',
          ),
        )
      : read
  const { value } = read
  const outer = envelope.safeParse(value)
  if (!outer.success)
    return bad(
      problem(
        'file-format',
        'format',
        'This JSON file is not a Weben piece: it needs "format": "weben-piece" and a "version".',
      ),
    )
  if (outer.data.version > PIECE_VERSION)
    return bad(
      problem(
        'file-newer',
        'version',
        `This piece was written by a newer Weben (version ${outer.data.version}; this one reads ` +
          `${PIECE_VERSION}). Update Weben to open it.`,
      ),
    )
  if (outer.data.version < 1 || !Number.isInteger(outer.data.version))
    return bad(problem('file-version', 'version', `Version ${outer.data.version} is not a version of the piece file.`))
  const { format: _, version: __, ...rest } = outer.data
  const extra = Object.keys(rest).filter((k) => k !== 'piece')
  if (extra.length > 0)
    return bad(problem('file-extra', extra[0]!, `“${extra[0]}” does not belong in a piece file. Take it out.`))
  return pieceFromBody(outer.data.version < PIECE_VERSION ? upgradeBody(rest.piece) : rest.piece)
}
