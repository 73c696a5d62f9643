import { createReadStream, createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip } from 'node:zlib'
import type { H3Event } from 'h3'
import { Failure } from '../service/failure'

const MB = 1_000_000
const NEWLINE = 0x0a

/** So many bodies at once wait on the disk of one instance. */
const MOST_AT_ONCE = 2
let atOnce = 0

/**
 * Takes a large body to the disk first, at the pace of whoever sends it, then does work with its lines (gzip, one
 * value to a line, none longer than `longest` bytes). The file is gone when this ends.
 */
export async function withLines<T>(
  event: H3Event,
  { mostMb, longest }: { readonly mostMb: number; readonly longest: number },
  work: (lines: AsyncIterable<Uint8Array>) => Promise<T>,
): Promise<T> {
  if (atOnce >= MOST_AT_ONCE)
    throw new Failure(503, 'busy', 'The server is reading others’ archives just now. Try again in a moment.', {
      data: { wait: 20 },
    })
  atOnce++
  let folder: string | undefined
  try {
    folder = await mkdtemp(join(tmpdir(), 'weben-'))
    const file = join(folder, 'body')
    await pipeline(event.node.req, atMost(mostMb * MB), createWriteStream(file)).catch(brokenOff)
    return await work(linesOf(createReadStream(file).pipe(createGunzip()), longest))
  } finally {
    atOnce--
    if (folder) await rm(folder, { recursive: true, force: true })
  }
}

/** Whoever sent it has gone, which is no fault of ours. */
function brokenOff(error: unknown): never {
  const { code } = error as { code?: string }
  if (code === 'ECONNRESET' || code === 'ERR_STREAM_PREMATURE_CLOSE')
    throw new Failure(400, 'broken-off', 'The file did not come through whole. Send it again.')
  throw error
}

function atMost(bytes: number): Transform {
  let length = 0
  return new Transform({
    transform(chunk: Buffer, _, next) {
      length += chunk.length
      if (length > bytes)
        next(new Failure(413, 'too-large', `This is larger than ${bytes / MB} MB and cannot be taken.`))
      else next(null, chunk)
    },
  })
}

async function* linesOf(stream: AsyncIterable<Buffer>, longest: number): AsyncGenerator<Uint8Array> {
  let kept: Buffer[] = []
  let length = 0
  try {
    for await (const chunk of stream) {
      let from = 0
      for (let to = chunk.indexOf(NEWLINE); to >= 0; to = chunk.indexOf(NEWLINE, from)) {
        yield Buffer.concat([...kept, chunk.subarray(from, to)])
        kept = []
        length = 0
        from = to + 1
      }
      kept.push(chunk.subarray(from))
      length += chunk.length - from
      if (length > longest) throw new Failure(413, 'too-large', 'A line of this file is longer than any piece.')
    }
  } catch (error) {
    if (error instanceof Failure) throw error
    throw new Failure(422, 'not-gzip', 'This is not an archive, or it was cut off. Choose the file that Weben saved.')
  }
}
