import type { TrayBead } from '../bead/bead'
import { requireSpec, type BeadSpec } from '../bead/spec'
import { isRagged, type Lines } from '../grid/lines'

/**
 * Sizes of the beads by their tray numbers. Lines of their own lengths reckon with the beads that really lie in them,
 * so their parts carry what the tray says of each number. It is made from the tray whenever a piece is read or
 * changed, and is never kept with it.
 */
export type Sizes = ReadonlyMap<number, string>

const byTray = new WeakMap<readonly TrayBead[], Sizes>()
/** The same sizes are one value, so that another colour leaves what was worked out from them. */
const byText = new Map<string, Sizes>()

function sizesOf(tray: readonly TrayBead[]): Sizes {
  let sizes = byTray.get(tray)
  if (!sizes) {
    const text = tray.map((b) => `${b.number} ${b.spec}`).join('\n')
    sizes = byText.get(text)
    if (!sizes) {
      if (byText.size > 200) byText.clear()
      sizes = new Map(tray.map((b) => [b.number, b.spec]))
      byText.set(text, sizes)
    }
    byTray.set(tray, sizes)
  }
  return sizes
}

/** What of a part is looked at here. */
interface Laid {
  readonly repeat: Lines
  readonly sizes?: Sizes
}

/** A piece whose lines know the sizes of their beads; itself where they do, and where it has none. */
export function sized<P extends { readonly tray: readonly TrayBead[]; readonly parts: readonly Laid[] }>(piece: P): P {
  const sizes = sizesOf(piece.tray)
  if (piece.parts.every((part) => !isRagged(part.repeat) || part.sizes === sizes)) return piece
  return { ...piece, parts: piece.parts.map((part) => (isRagged(part.repeat) ? { ...part, sizes } : part)) }
}

/** Texts of sections, which never change: asked for every row of words. */
const textOfLines = new WeakMap<Lines, { readonly of: Sizes; readonly text: string }>()

/** Which sizes lie in a block of lines, place by place: by the block, which never changes. */
const textOfBlock = new WeakMap<Uint16Array, { readonly of: Sizes; readonly text: string }>()

/**
 * A text that is the same as long as beads of the same sizes lie in the same places of a section: drawings and ways of
 * threads follow from it, whatever the colours. Empty where all beads are of the usual size.
 */
export function sizesText(sizes: Sizes | undefined, lines: Lines, usual: string): string {
  // Where nothing lies, room is kept for the usual bead: it is a size like the others.
  if (!sizes || [...sizes.values()].every((spec) => spec === usual)) return ''
  let known = textOfLines.get(lines)
  if (known?.of !== sizes) {
    known = { of: sizes, text: writtenSizes(sizes, lines) }
    textOfLines.set(lines, known)
  }
  return known.text
}

function writtenSizes(sizes: Sizes, { blocks }: Lines): string {
  const short = new Map([...new Set(sizes.values())].map((spec, k) => [spec, String.fromCharCode(97 + k)]))
  const known = new Map([...sizes].map(([number, spec]) => [number, short.get(spec)!]))
  return blocks
    .map((block) => {
      let one = textOfBlock.get(block)
      if (one?.of !== sizes) {
        one = { of: sizes, text: Array.from(block, (number) => known.get(number) ?? '.').join('') }
        textOfBlock.set(block, one)
      }
      return one.text
    })
    .join('|')
}

/** The bead that lies with a tray number: of its own size where that is known, as the part is drawn otherwise. */
export const beadOfNumber = (
  { sizes, spec }: { readonly sizes?: Sizes; readonly spec: string },
  number: number,
): BeadSpec => requireSpec(sizes?.get(number) ?? spec)
