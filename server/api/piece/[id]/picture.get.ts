import { getQuery, getRouterParam, setResponseHeader } from 'h3'
import { pictureOf } from '../../../../core/picture/picture'
import { sizeOnScreen } from '../../../../core/picture/view'
import { database } from '../../../database/connection'
import { answer } from '../../../http/answer'
import { requireAccount } from '../../../http/session'
import { readPiece } from '../../../service/piece'
import { RATES, spend } from '../../../service/rate'

const GROUNDS = { day: '#cfc6b8', evening: '#35302c' } as const

/** The beginning of the piece as it lies on the mat, for the workshop. A revision never changes, so the browser may keep it. */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await spend(database(), `picture ${account.id}`, RATES.picture)
  const query = getQuery(event)
  const { piece } = await readPiece(database(), account.id, getRouterParam(event, 'id')!)
  const part = piece.parts[0]!
  const tall = sizeOnScreen(part, { lie: 'level', scale: 1 }).height
  const scale = Math.min(14, Math.max(2, 236 / Math.max(1, tall)))
  const png = pictureOf(part, piece.tray, { lie: 'level', scale, ground: query.ground === 'evening' ? GROUNDS.evening : GROUNDS.day, glyphs: false, margin: 32, most: { width: 1120, height: 300 } })
  setResponseHeader(event, 'Content-Type', 'image/png')
  if (query.revision !== undefined) setResponseHeader(event, 'Cache-Control', 'private, max-age=86400')
  return Buffer.from(png)
})
