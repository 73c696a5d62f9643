import { rgbOf, type Rgb } from '#core/colour/colour'

/** The colour of the mat under the beads, as in theme/tokens.css. */
export const MAT = { day: '#cfc6b8', evening: '#35302c' } as const

export const matGround = (theme: keyof typeof MAT): Rgb => rgbOf(MAT[theme])
