/**
 * A small upright alphabet for few rows: capitals, figures and some signs, five rows high and mostly three wide, drawn
 * for Weben. Each sign is its rows from top to bottom; # is ink.
 */
const SIGNS: Record<string, string> = {
  'A': '.#. #.# ### #.# #.#',
  'B': '##. #.# ##. #.# ##.',
  'C': '.## #.. #.. #.. .##',
  'D': '##. #.# #.# #.# ##.',
  'E': '### #.. ##. #.. ###',
  'F': '### #.. ##. #.. #..',
  'G': '.## #.. #.# #.# .##',
  'H': '#.# #.# ### #.# #.#',
  'I': '# # # # #',
  'J': '..# ..# ..# #.# .#.',
  'K': '#.# #.# ##. #.# #.#',
  'L': '#.. #.. #.. #.. ###',
  'M': '#...# ##.## #.#.# #...# #...#',
  'N': '#..# ##.# #.## #..# #..#',
  'O': '.#. #.# #.# #.# .#.',
  'P': '##. #.# ##. #.. #..',
  'Q': '.#. #.# #.# ### .##',
  'R': '##. #.# ##. #.# #.#',
  'S': '.## #.. .#. ..# ##.',
  'T': '### .#. .#. .#. .#.',
  'U': '#.# #.# #.# #.# ###',
  'V': '#.# #.# #.# #.# .#.',
  'W': '#...# #...# #.#.# ##.## #...#',
  'X': '#.# #.# .#. #.# #.#',
  'Y': '#.# #.# .#. .#. .#.',
  'Z': '### ..# .#. #.. ###',
  '0': '### #.# #.# #.# ###',
  '1': '.# ## .# .# .#',
  '2': '##. ..# .#. #.. ###',
  '3': '##. ..# .#. ..# ##.',
  '4': '#.# #.# ### ..# ..#',
  '5': '### #.. ##. ..# ##.',
  '6': '.## #.. ### #.# ###',
  '7': '### ..# .#. .#. .#.',
  '8': '### #.# ### #.# ###',
  '9': '### #.# ### ..# ##.',
  ' ': '.. .. .. .. ..',
  '.': '. . . . #',
  ',': '.. .. .. .# #.',
  '!': '# # # . #',
  '?': '##. ..# .#. ... .#.',
  '-': '.. .. ## .. ..',
  '+': '... .#. ### .#. ...',
  '&': '.#.. #.#. .#.# #.#. .#.#',
  "'": '# # . . .',
  '"': '#.# #.# ... ... ...',
  ':': '. # . # .',
  '/': '..# ..# .#. #.. #..',
  '♥': '.#.#. ##### ##### .###. ..#..',
  '★': '..#.. ##### .###. .###. #...#',
  'Ä': '#.# ... .#. ### #.#',
  'Ö': '#.# .#. #.# #.# .#.',
  'Ü': '#.# ... #.# #.# ###',
  'É': '.#. ### ##. #.. ###',
  'È': '#.. ### ##. #.. ###',
  'Ñ': '.##. #..# ##.# #.## #..#',
  'Å': '.#. ... .#. ### #.#',
  'Ø': '.## #.# ### #.# ##.',
  'Ç': '.## #.. #.. .## .#.',
}

const LETTER_ROWS = 5

/** Rows of a sign, or null if the alphabet lacks it. Small letters are set as capitals. */
export function signRows(sign: string): readonly string[] | null {
  const found = SIGNS[sign.toLocaleUpperCase('en')] ?? SIGNS[sign.normalize('NFD')[0]?.toLocaleUpperCase('en') ?? '']
  return found === undefined ? null : found.split(' ')
}

interface Lettering {
  readonly width: number
  readonly height: number
  /** Places of ink: x along the line, y down. */
  readonly ink: readonly { readonly x: number; readonly y: number }[]
  /** Signs that the alphabet lacks; they are left out. */
  readonly missing: readonly string[]
}

/** A line of text as ink, each row and column `size` beads large. */
export function letter(text: string, size = 1): Lettering {
  const ink: { x: number; y: number }[] = []
  const missing: string[] = []
  let x = 0
  for (const sign of text) {
    const rows = signRows(sign)
    if (!rows) {
      if (!missing.includes(sign)) missing.push(sign)
      continue
    }
    if (x > 0) x += 1
    rows.forEach((row, y) =>
      [...row].forEach((dot, k) => {
        if (dot !== '#') return
        for (let i = 0; i < size; i++)
          for (let j = 0; j < size; j++) ink.push({ x: (x + k) * size + i, y: y * size + j })
      }),
    )
    x += rows[0]!.length
  }
  return { width: x * size, height: LETTER_ROWS * size, ink, missing }
}
