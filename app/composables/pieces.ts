import type { Piece } from '#core/piece/piece'
import { openedAnswer, piecesAnswer } from '#core/contract/piece'
import { api } from './api'

/** A piece of the workshop with its document, as lists over several pieces need it. */
export interface Opened {
  readonly id: string
  readonly name: string
  readonly piece: Piece
}

export const listOfPieces = async (): Promise<readonly { id: string; name: string }[]> =>
  (await api(piecesAnswer, 'piece')).pieces

export async function openPiece(id: string): Promise<Opened> {
  const { piece } = await api(openedAnswer, `piece/${id}`)
  return { id, name: piece.name, piece }
}

/** Opens pieces a few at a time; `each` is told as they come, so that a long list fills while one reads. */
export async function openPieces(ids: readonly string[], each: (opened: Opened) => void): Promise<void> {
  const rest = [...ids]
  const work = async () => {
    for (let id = rest.shift(); id !== undefined; id = rest.shift()) each(await openPiece(id))
  }
  await Promise.all(Array.from({ length: 4 }, work))
}
