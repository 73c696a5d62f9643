import { getQuery, setResponseHeader } from 'h3'
import { database } from '../../../../database/connection'
import { answer } from '../../../../http/answer'
import { idIn, revisionIn } from '../../../../http/read'
import { requireAccount } from '../../../../http/session'
import { workshopPicture } from '../../../../service/picture'

/**
 * The beginning of the piece as it lies on the mat, for the workshop. What an address shows never changes, so the
 * browser keeps it.
 */
export default answer(async (event) => {
  const account = await requireAccount(event)
  const revision = revisionIn(event, 'revision')
  const png = await workshopPicture(
    database(),
    account.id,
    idIn(event),
    revision,
    getQuery(event).ground === 'evening' ? 'evening' : 'day',
  )
  setResponseHeader(event, 'Content-Type', 'image/png')
  setResponseHeader(event, 'Cache-Control', 'private, max-age=31536000, immutable')
  return png
})
