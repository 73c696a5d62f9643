/** Small shapes bent from one piece of wire: studs and hoops. Lengths in mm; wire `a` thick, jaws of radius `r`. */

/** Wire that a bend of so many radians takes, round a jaw of radius `r`: its middle line. */
export const bendMm = (radians: number, r: number, wireMm: number): number => radians * (r + wireMm / 2)

/** Post that goes through the ear and into its butterfly, mm (common practice). */
export const POST_MM = 10
/** End that holds the last bead, bent under, mm. */
const END_MM = 3
/** Loose beads must move by so much, or the bends beside them cannot be set, mm. */
export const PLAY_MM = 0.5

/** Wire of a stud: post, a right-angled bend, the shape, another bend, and the end bent under. */
export const studWireMm = (
  shapeMm: number,
  { wireMm, jawMm, postMm }: { readonly wireMm: number; readonly jawMm: number; readonly postMm: number },
): number => postMm + 2 * bendMm(Math.PI / 2, jawMm, wireMm) + shapeMm + END_MM

/** Beads that a run between two bends holds loose, each taking `takenMm` of it; and the play that is left. */
export function looseBeads(runMm: number, takenMm: number): { readonly count: number; readonly playMm: number } {
  const count = Math.max(0, Math.floor((runMm - PLAY_MM) / takenMm + 1e-9))
  return { count, playMm: runMm - count * takenMm }
}

/** Bare wire of a hoop that goes through the ear and into its catch, at least, mm (from memory). */
export const BARE_HOOP_MM = 14
/** Hook that goes into the loop of a hoop, mm. */
const HOOK_MM = 5

/** Wire of a hoop of inside diameter `inside`: its round, a loop on pliers and the hook. */
export const hoopWireMm = (insideMm: number, wireMm: number, loopMm: number): number =>
  Math.PI * (insideMm + wireMm) + loopMm + HOOK_MM
