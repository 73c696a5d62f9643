import { readImageHead } from '#core/image/head'
import { pictureBeads, type PictureBeads, type PictureWish } from '#core/image/picture-plan'
import { turned, type Pixels } from '#core/image/sample'
import type { Lattice } from '#core/technique/lattice'

/** Decodes a picture and makes beads of it, away from the page. Given up by ending the worker. */
export type Ask =
  | { readonly do: 'open'; readonly file: Blob }
  | {
      readonly do: 'beads'
      readonly id: number
      readonly quarters: number
      readonly lattice: Lattice
      readonly wish: PictureWish
    }

export type Answer =
  | { readonly did: 'open'; readonly width: number; readonly height: number; readonly preview: ImageBitmap }
  | { readonly did: 'trouble'; readonly says: string }
  | { readonly did: 'progress'; readonly id: number; readonly share: number }
  | { readonly did: 'beads'; readonly id: number; readonly beads: PictureBeads }

/** No bead needs more of a picture than this many pixels on its longer side. */
const MOST_KEPT = 2400

let pixels: Pixels | null = null

const say = (answer: Answer, transfer: Transferable[] = []) =>
  (self as unknown as Worker).postMessage(answer, transfer)

async function open(file: Blob): Promise<void> {
  pixels = null
  const head = readImageHead(new Uint8Array(await file.arrayBuffer()))
  if (!head.ok) {
    say({ did: 'trouble', says: head.problems[0]!.says })
    return
  }
  let bitmap: ImageBitmap
  try {
    bitmap = await createImageBitmap(file)
  } catch {
    say({ did: 'trouble', says: 'This picture is damaged and cannot be shown. Save or download it again.' })
    return
  }
  const scale = Math.min(1, MOST_KEPT / Math.max(bitmap.width, bitmap.height))
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  )
  const ctx = canvas.getContext('2d', { willReadFrequently: true })!
  ctx.imageSmoothingQuality = 'high'
  ctx.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  pixels = ctx.getImageData(0, 0, canvas.width, canvas.height)
  const preview = await createImageBitmap(canvas)
  say({ did: 'open', width: canvas.width, height: canvas.height, preview }, [preview])
}

self.onmessage = async ({ data }: MessageEvent<Ask>) => {
  if (data.do === 'open') {
    await open(data.file)
    return
  }
  if (!pixels) return
  let told = 0
  const beads = pictureBeads(turned(pixels, data.quarters), data.lattice, data.wish, (share) => {
    const now = performance.now()
    if (now - told < 60) return
    told = now
    say({ did: 'progress', id: data.id, share })
  })
  say({ did: 'beads', id: data.id, beads }, [beads.numbers.buffer as ArrayBuffer])
}
