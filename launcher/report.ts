import { readFileSync } from 'node:fs'
import { isAbsolute, resolve } from 'node:path'
import { readPieceFile } from '../core/format/piece-file'
import { reportPiece } from '../core/format/report'
import { Trouble } from './say'

/** Prints, as JSON, all that the core computes for a piece file. No server, no database. */
export function report(args: readonly string[]): void {
  const [name] = args
  if (!name || args.length > 1) throw new Trouble('Use: ./weben report FILE')
  const path = isAbsolute(name) ? name : resolve(process.env.WEBEN_CALLER ?? '.', name)
  let text: string
  try {
    text = readFileSync(path, 'utf8')
  } catch {
    throw new Trouble(`The file ${path} cannot be read. Check its name.`)
  }
  const piece = readPieceFile(text)
  if (!piece.ok) throw new Trouble(`${name} cannot be used:\n${piece.problems.map((p) => `  ${p.says}`).join('\n')}`)
  process.stdout.write(`${JSON.stringify(reportPiece(piece.value), null, 2)}\n`)
}
