import { bad, good, problem, type Result } from '../problem'

/**
 * What a picture file says of itself before it is decoded: read from its first bytes, so that a bomb costs no memory.
 */
interface ImageHead {
  readonly format: 'png' | 'jpeg' | 'webp'
  readonly width: number
  readonly height: number
}

const MOST_SIDE = 16_000
const MOST_PIXELS = 40_000_000
export const MOST_BYTES = 40_000_000

const text = (bytes: Uint8Array, at: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + length))
const u16 = (b: Uint8Array, at: number): number => (b[at]! << 8) | b[at + 1]!
const u32 = (b: Uint8Array, at: number): number =>
  ((b[at]! << 24) | (b[at + 1]! << 16) | (b[at + 2]! << 8) | b[at + 3]!) >>> 0
const le16 = (b: Uint8Array, at: number): number => b[at]! | (b[at + 1]! << 8)
const le24 = (b: Uint8Array, at: number): number => le16(b, at) | (b[at + 2]! << 16)
const le32 = (b: Uint8Array, at: number): number => (le24(b, at) | (b[at + 3]! << 24)) >>> 0

type Read = Pick<ImageHead, 'width' | 'height'> | 'cut' | null

/** PNG (ISO/IEC 15948): the size stands in its first chunk; a whole file ends with IEND. */
function readPng(b: Uint8Array): Read {
  if (b.length < 8 || u32(b, 0) !== 0x89504e47 || u32(b, 4) !== 0x0d0a1a0a) return null
  if (b.length < 33 || text(b, 12, 4) !== 'IHDR') return 'cut'
  let ended = false
  for (let at = Math.max(33, b.length - 64); at + 8 <= b.length; at++) if (text(b, at, 4) === 'IEND') ended = true
  return ended ? { width: u32(b, 16), height: u32(b, 20) } : 'cut'
}

/**
 * JPEG (ISO/IEC 10918-1): the size stands in the first frame header; a whole file holds the end marker near its end.
 */
function readJpeg(b: Uint8Array): Read {
  if (b.length < 3 || b[0] !== 0xff || b[1] !== 0xd8 || b[2] !== 0xff) return null
  let ended = false
  for (let at = Math.max(2, b.length - 4096); at + 1 < b.length; at++)
    if (b[at] === 0xff && b[at + 1] === 0xd9) ended = true
  if (!ended) return 'cut'
  for (let at = 2; at + 9 < b.length;) {
    if (b[at] !== 0xff) return 'cut'
    const marker = b[at + 1]!
    if (marker === 0xff) {
      at++
      continue
    }
    const frame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc
    if (frame) return { height: u16(b, at + 5), width: u16(b, at + 7) }
    if (marker === 0xd9 || marker === 0xda) return 'cut'
    at += 2 + Math.max(2, u16(b, at + 2))
  }
  return 'cut'
}

/** WebP (RFC 9649): the size stands in the first chunk, in one of three ways; the file is as long as its head says. */
function readWebp(b: Uint8Array): Read {
  if (b.length < 12 || text(b, 0, 4) !== 'RIFF' || text(b, 8, 4) !== 'WEBP') return null
  if (b.length < 30 || b.length < le32(b, 4) + 8) return 'cut'
  switch (text(b, 12, 4)) {
    case 'VP8X':
      return { width: le24(b, 24) + 1, height: le24(b, 27) + 1 }
    case 'VP8L': {
      const bits = le32(b, 21)
      return { width: (bits & 0x3fff) + 1, height: ((bits >>> 14) & 0x3fff) + 1 }
    }
    case 'VP8 ':
      return { width: le16(b, 26) & 0x3fff, height: le16(b, 28) & 0x3fff }
    default:
      return 'cut'
  }
}

/** Reads the head of a PNG, JPEG or WebP and refuses what is too large, cut off or something else. */
export function readImageHead(bytes: Uint8Array): Result<ImageHead> {
  if (bytes.length > MOST_BYTES)
    return bad(
      problem(
        'image-heavy',
        'file',
        `This file is larger than ${MOST_BYTES / 1e6} MB. Save the picture smaller and try again.`,
      ),
    )
  for (const [format, read] of [
    ['png', readPng(bytes)],
    ['jpeg', readJpeg(bytes)],
    ['webp', readWebp(bytes)],
  ] as const) {
    if (read === null) continue
    if (read === 'cut' || read.width < 1 || read.height < 1)
      return bad(problem('image-cut', 'file', 'This picture was cut off or is damaged. Save or download it again.'))
    if (read.width > MOST_SIDE || read.height > MOST_SIDE || read.width * read.height > MOST_PIXELS) {
      return bad(
        problem(
          'image-large',
          'file',
          `This picture is ${read.width} × ${read.height} px; at most ${MOST_SIDE} px a side and ` +
            `${MOST_PIXELS / 1e6} million in all can be taken. Make it smaller: a bead needs only a few pixels.`,
        ),
      )
    }
    return good({ format, ...read })
  }
  return bad(
    problem('image-format', 'file', 'This is not a PNG, JPEG or WebP picture. Save it as one of these and try again.'),
  )
}
