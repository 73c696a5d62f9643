import type { Carrier } from '../drawing'
import type { Point } from '../lattice'
import { EDGE_MM, findingLong, findingWide, linksOfChain, LOOP_MM, type OwnFinding } from './finding-own'

const circle = ({ x, y }: Point, radius: number, steps = 48): Point[] =>
  Array.from({ length: steps + 1 }, (_, k) => {
    const turn = (2 * Math.PI * k) / steps
    return { x: x + radius * Math.sin(turn), y: y - radius * Math.cos(turn) }
  })

/** What is seen of it, from its upper edge. */
export function findingOutline(own: OwnFinding): Carrier[] {
  const { kind, thick, holes, pitch, across } = own
  const [width, tall] = [findingWide(own), findingLong(own)]
  const middle = width / 2
  const line = (points: readonly Point[], mm = thick, what: Carrier['kind'] = 'bar'): Carrier => ({
    kind: what,
    thickMm: mm,
    points,
  })
  const loop = line(circle({ x: middle, y: LOOP_MM / 2 }, (LOOP_MM - 0.8) / 2, 20), 0.8, 'wire')
  switch (kind) {
    case 'holes': {
      // A fan of metal from the loop to the row of holes.
      const y = tall - thick / 2
      const foot = [
        { x: EDGE_MM, y },
        { x: middle, y: Math.min(LOOP_MM, tall) },
        { x: width - EDGE_MM, y },
      ]
      const at = (hole: number): Point => ({ x: EDGE_MM + hole * pitch, y })
      return [
        loop,
        line(foot, 0.8, 'wire'),
        line([at(0), at(holes - 1)]),
        ...Array.from({ length: holes }, (_, hole) => line(circle({ ...at(hole), y: y + 0.2 }, 0.55, 12), 0.35)),
      ]
    }
    case 'bar':
      return [
        loop,
        line(
          [
            { x: middle, y: Math.min(LOOP_MM, tall) },
            { x: middle, y: tall - thick / 2 },
          ],
          0.8,
          'wire',
        ),
        line([
          { x: thick / 2, y: tall - thick / 2 },
          { x: width - thick / 2, y: tall - thick / 2 },
        ]),
      ]
    case 'hoop':
      return [loop, line(circle({ x: middle, y: tall - across / 2 }, (across - thick) / 2), thick, 'wire')]
    case 'drop': {
      const bulb = Math.min(width / 2, Math.max(0.1, tall - LOOP_MM) / 2)
      const y = tall - bulb
      const sides = Array.from({ length: 25 }, (_, k) => {
        const turn = -Math.PI * 0.72 + (Math.PI * 1.44 * k) / 24
        return { x: middle + bulb * 0.86 * Math.sin(turn), y: y + bulb * 0.86 * Math.cos(turn) }
      })
      const top = { x: middle, y: LOOP_MM }
      return [loop, line([top, ...sides, top], Math.max(thick, bulb * 0.28))]
    }
    case 'tassel': {
      const cap = Math.min(tall, LOOP_MM + width * 0.6)
      return [
        loop,
        line(
          [
            { x: middle, y: LOOP_MM },
            { x: middle, y: cap },
          ],
          width * 0.5,
        ),
        ...Array.from({ length: 9 }, (_, k) => {
          const x = middle + ((k - 4) / 4) * (width / 2 - 0.3)
          return line(
            [
              { x: middle + (x - middle) * 0.5, y: cap },
              { x, y: tall - 0.2 },
            ],
            0.5,
            'thread',
          )
        }),
      ]
    }
    case 'strap':
      return own.strap === 'two' ? twoStraps(own, line) : [line(bend(own), thick, 'cord')]
    case 'chain':
      return chainOutline(own, line)
  }
}

type Line = (points: readonly Point[], mm?: number, what?: Carrier['kind']) => Carrier

/** The lowest bend of a strap that something slides on; how long it is stands in its figures. */
function bend(own: OwnFinding): Point[] {
  const [middle, long, { thick }] = [findingWide(own) / 2, findingLong(own), own]
  return Array.from({ length: 25 }, (_, k) => {
    const share = k / 12 - 1
    return { x: middle + share * (middle - thick), y: long - thick / 2 - (long - thick) * share ** 2 }
  })
}

/** The ends of two straps that lead down to the sides of a front. */
function twoStraps(own: OwnFinding, line: Line): Carrier[] {
  const [wide, long] = [findingWide(own), findingLong(own)]
  return [0, wide].map((x) =>
    line(
      Array.from({ length: 13 }, (_, k) => {
        const share = k / 12
        return { x: x + (x === 0 ? -1 : 1) * 0.35 * long * share ** 2, y: long * (1 - share) }
      }),
      own.thick,
      'cord',
    ),
  )
}

/** Links as they are seen: an oval flat, a bar on its edge. Only the front of a chain is drawn. */
function chainOutline(own: OwnFinding, line: Line): Carrier[] {
  const [middle, long, { pitch, thick }] = [findingWide(own) / 2, findingLong(own), own]
  const [half, high] = [pitch / 2 + thick / 4, (long - thick) / 2]
  return linksOfChain(own)
    .filter(({ x }) => Math.abs(x) + half <= middle + 1e-9)
    .map(({ x, onEdge }) =>
      line(
        onEdge
          ? [-half, half].map((dx) => ({ x: middle + x + dx, y: long / 2 }))
          : Array.from({ length: 21 }, (_, k) => {
              const turn = (2 * Math.PI * k) / 20
              return { x: middle + x + half * Math.sin(turn), y: long / 2 - high * Math.cos(turn) }
            }),
        thick,
        'wire',
      ),
    )
}
