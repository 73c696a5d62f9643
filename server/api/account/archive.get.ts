import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { setResponseHeader } from 'h3'
import { database } from '../../database/connection'
import { answer } from '../../http/answer'
import { requireAccount } from '../../http/session'
import { archiveOf } from '../../service/archive'
import { RATES, spend } from '../../service/rate'

/**
 * Everything that one owns, as a file that is written while it is read. If something fails on the way the connection
 * breaks off: half an archive must not look whole.
 */
export default answer(async (event) => {
  const account = await requireAccount(event)
  await spend(database(), `archive ${account.id}`, RATES.archive)
  const day = new Date().toISOString().slice(0, 10)
  setResponseHeader(event, 'Content-Type', 'application/gzip')
  setResponseHeader(event, 'Content-Disposition', `attachment; filename="weben-${day}.jsonl.gz"`)
  try {
    await pipeline(Readable.from(archiveOf(database(), account)), createGzip({ level: 6 }), event.node.res)
  } catch (error) {
    // Whoever asked has gone: that is no fault.
    if ((error as { code?: string }).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error
  }
})
