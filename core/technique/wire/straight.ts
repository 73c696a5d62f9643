import { atBothEnds, highOfRow, lineOf, longOfRow, places, profileOf, straightWay, type Filling } from './filling'

/** A run of beads from one side to the other, a large one in its middle where there is room for it. */
export const straight: Filling = {
  id: 'straight',
  name: 'Straight run',
  says: 'Beads one after the other, a large one in the middle where it fits.',
  wires: 1,
  passes: { small: 1, large: 1 },
  propose(freeMm, small, large) {
    const around = Math.floor((freeMm - large.l) / (2 * small.l) + 1e-9)
    if (around < 1) return Array<number>(Math.max(1, Math.floor(freeMm / small.l + 1e-9))).fill(0)
    const side = Array<number>(around).fill(0)
    return [...side, 1, ...side]
  },
  widened: atBothEnds,
  lay: (row, freeMm) => ({
    longMm: longOfRow(row),
    highMm: highOfRow(row),
    profile: profileOf(row),
    poses: lineOf(row, -freeMm / 2, freeMm / 2),
    wires: [{ points: straightWay(freeMm), moreMm: 0 }],
    lacing: ([wire]) => [{ do: 'pick', by: wire!, at: places(0, row.length) }],
    says: [],
  }),
}
