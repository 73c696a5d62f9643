import { rgbOf, type Rgb } from '#core/colour/colour'

/** The colour of the mat under the beads, as in theme/tokens.css. */
const MAT = { day: '#cfc6b8', evening: '#35302c' } as const

export const matGround = (theme: keyof typeof MAT): Rgb => rgbOf(MAT[theme])

/** Colours of what is drawn over a mat that is lighter or darker than the theme, as in theme/tokens.css. */
export const MARKS = {
  day: { ink: '#2c2622', soft: '#4f463d', madder: '#9c3540', paper: '#f8f4ec', mark: '#8a5a00' },
  evening: { ink: '#efe7dc', soft: '#cdc1b4', madder: '#e2868a', paper: '#2a2522', mark: '#e0b25a' },
} as const
