import type { TrayBead } from '../bead/bead'
import { hexOf, rgbOf, type Rgb } from '../colour/colour'

/** Share of the ground in the colour of what is not in hand. */
const PALE = 0.62

/** The tray as it shows on parts that are not in hand: its colours faded into the ground, and dull. */
export const fadedTray = (tray: readonly TrayBead[], ground: Rgb): TrayBead[] =>
  tray.map((bead) => {
    const { r, g, b } = rgbOf(bead.colour)
    const mix = (own: number, under: number) => own + (under - own) * PALE
    return {
      ...bead,
      finish: 'matte',
      colour: hexOf({ r: mix(r, ground.r), g: mix(g, ground.g), b: mix(b, ground.b) }),
    }
  })
