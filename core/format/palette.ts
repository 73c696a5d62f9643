import { FINISHES, type Finish } from '../bead/bead'
import type { Coloured } from '../bead/substitute'
import { findSpec, requireSpec } from '../bead/spec'
import { hexOf, rgbOf } from '../colour/colour'
import { bad, good, problem, type Result } from '../problem'
import { shortened } from '../units/text'

/**
 * Palettes as plain text in the open GPL palette format that drawing programs read: a head, then `r g b name` on each
 * line. What the format has no place for (finish, size) stands in brackets behind the name and is read back from
 * there.
 */
export function writePalette(name: string, beads: readonly Coloured[]): string {
  const plain = (text: string) => text.replaceAll(/[\r\n\t]/g, ' ')
  const lines = beads.map((b) => {
    const { r, g, b: blue } = rgbOf(b.colour)
    return (
      `${[r, g, blue].map((v) => String(v).padStart(3)).join(' ')}\t${plain(b.name)} [${b.finish}; ` +
      `${requireSpec(b.spec).id}]`
    )
  })
  return ['GIMP Palette', `Name: ${plain(name)}`, 'Columns: 8', '#', ...lines, ''].join('\n')
}

const MOST = 200

/** Reads such a palette; lines without brackets become opaque beads of `spec`. */
export function readPalette(
  text: string,
  spec: string,
): Result<{ readonly name: string; readonly beads: readonly Coloured[] }> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)
  if (lines[0]?.trim() !== 'GIMP Palette')
    return bad(
      problem(
        'palette-format',
        'file',
        'This is not a GPL palette: its first line should read “GIMP Palette”. Save it in that format and try again.',
      ),
    )
  let name = 'Palette'
  const beads: Coloured[] = []
  for (const [k, line] of lines.entries()) {
    if (k === 0 || line.trim() === '' || line.startsWith('#') || /^Columns:/i.test(line)) continue
    const named = /^Name:\s*(.*)$/i.exec(line)
    if (named) {
      name = shortened(named[1]!.trim(), 60) || name
      continue
    }
    const found = /^\s*(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s+(.*))?$/.exec(line)
    const channels = found?.slice(1, 4).map(Number)
    if (!found || channels!.some((v) => v > 255))
      return bad(
        problem(
          'palette-line',
          String(k + 1),
          `Line ${k + 1} is not a colour: write red, green and blue from 0 to 255, then a name.`,
        ),
      )
    if (beads.length === MOST)
      return bad(
        problem(
          'palette-long',
          'file',
          `A tray holds ${MOST} beads at most; this palette has more colours. Take some out and try again.`,
        ),
      )
    const [r, g, b] = channels as [number, number, number]
    const rest = found[4]?.trim() ?? ''
    const bracket = /^(.*?)\s*\[([a-z]+)(?:;\s*(\S+))?\]$/.exec(rest)
    const finish = FINISHES.find((f): f is Finish => f === bracket?.[2])
    const own = bracket?.[3] !== undefined && findSpec(bracket[3]) ? bracket[3] : spec
    beads.push({
      name: shortened((finish ? bracket![1]! : rest) || `Colour ${beads.length + 1}`, 60),
      spec: finish ? own : spec,
      colour: hexOf({ r, g, b }),
      finish: finish ?? 'opaque',
    })
  }
  return beads.length === 0
    ? bad(problem('palette-empty', 'file', 'There is no colour in this palette.'))
    : good({ name, beads })
}
