import { describe, expect, it } from 'vitest'
import { parse } from 'csv-parse/sync'
import { bead, part, piece } from '../../tests/fixture/piece'
import { reportPiece } from '../format/report'
import { rowsCsv } from '../format/tally-csv'
import { wordChart } from '../format/word-chart'
import { cellsFrom, emptyCells } from '../grid/cells'
import { columnsOf, workOf, type Part } from '../piece/piece'
import { rowWords } from '../tally/words'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { walked } from '../technique/disc'
import { discMove, discMoves, nextBeads, pauseWords } from './disc'

const rowOrder = (one: Part, round: number): string =>
  requireTechnique(one.technique)
    .order.row(round, workOf(one))
    .keys.map((k) => k % columnsOf(one))
    .join()

const braid = (n: number, school: 'A' | 'B', rounds: number) =>
  part({
    technique: `braid-${n}`,
    settings: requireTechnique(`braid-${n}`).settings.parse({ school }),
    spec: 'round-8',
    times: 1,
    start: emptyCells(n, 0),
    repeat: cellsFrom(
      n,
      rounds,
      Array.from({ length: n * rounds }, (_, k) => 1 + (k % 3)),
    ),
    end: emptyCells(n, 0),
  })

describe('words and disc', () => {
  it('name the beads of every round in the order in which the hands move the strands', () => {
    for (const technique of TECHNIQUES.filter((t) => t.disc)) {
      for (const own of [{ school: 'A' }, { school: 'B' }, { braid: '7' }, { braid: '16', school: 'B' }, {}]) {
        const settings = technique.settings.safeParse(own)
        if (!settings.success) continue
        const n = technique.growth.nearestColumns(8, settings.data)
        const one = part({
          technique: technique.id,
          settings: settings.data,
          spec: !technique.material.counted ? 'cord-2' : 'round-8',
          times: 1,
          start: emptyCells(n, 0),
          repeat: cellsFrom(
            n,
            12,
            Array.from({ length: 12 * n }, (_, k) => k + 1),
          ),
          end: emptyCells(n, 0),
        })
        // The literal machine, played from the start.
        const laid = walked(technique.disc!.plan(settings.data), 12 * n)
        for (let round = 0; round < 12; round++) {
          const hands = laid.slice(round * n, (round + 1) * n).map((l) => round * n + l.strand + 1)
          expect(
            rowWords(one, round).runs.flatMap((r) => Array<number>(r.count).fill(r.number)),
            `${technique.id} ${JSON.stringify(own)} round ${round + 1}`,
          ).toEqual(hands)
          expect(hands).toEqual(Array.from({ length: n }, (_, k) => discMove(one, round * n + k)!.number))
        }
      }
    }
  })
  it('say rounds alike in report, word chart and CSV', () => {
    const one = { ...braid(8, 'A', 4), spec: 'round-8' }
    const p = piece({ parts: [one], tray: [bead(1), bead(2), bead(3)] })
    const hands = Array.from({ length: 4 }, (_, round) =>
      Array.from({ length: 8 }, (_, k) => 'ABC'[discMove(one, round * 8 + k)!.number - 1]).join(''),
    )
    const spelt = (words: string) =>
      words
        .split(' ')
        .map((w) => w.slice(-1).repeat(Number.parseInt(w)))
        .join('')
    expect(reportPiece(p).parts[0]!.tally.byRow.map((r) => spelt(/→ (.*) \(/.exec(r.words)![1]!))).toEqual(hands)
    expect([...wordChart(p, one).matchAll(/^Round \d+ → (.*) \(/gm)].map((m) => spelt(m[1]!))).toEqual(hands)
    expect((parse(rowsCsv(p)) as string[][]).slice(1).map((l) => spelt(l[5]!))).toEqual(hands)
    // Two beads of each step change places from one round to the next.
    expect(new Set(hands.map((_, round) => rowOrder(one, round))).size).toBe(2)
  })
})

describe('moves on the disc', () => {
  it.each([
    [8, 'A'],
    [8, 'B'],
    [12, 'A'],
    [12, 'B'],
    [16, 'A'],
    [16, 'B'],
  ] as const)(
    '%d strands, school %s: each is the one that a walk from the start makes, far into the braid',
    (n, school) => {
      const one = braid(n, school, 60)
      expect(discMoves(one)).toBe(60 * n)
      const laid = walked(requireTechnique(one.technique).disc!.plan(one.settings), 60 * n)
      for (let i = 0; i < 60 * n; i++) {
        const move = discMove(one, i)!
        expect([move.strand, move.from, move.to]).toEqual([laid[i]!.strand, laid[i]!.slot, laid[i]!.to])
        expect(move.number).toBe(1 + (((move.round - 1) * n + move.strand) % 3))
      }
      expect(discMove(one, 60 * n)).toBeNull()
      expect(discMove(one, -1)).toBeNull()
      expect(discMove(part(), 0)).toBeNull()
    },
  )
  it(
    'of eight strands turn the disc a quarter each step and the drift of two slots back, A one way and B the ' +
      'other',
    () => {
      expect([0, 1, 2, 4, 8].map((i) => discMove(braid(8, 'A', 4), i)!.turn)).toEqual([0, 0, 90, 180, 382.5])
      expect(Math.abs(discMove(braid(8, 'B', 4), 2)!.turn)).toBe(90)
      expect(discMove(braid(8, 'B', 4), 2)!.turn).toBe(-90)
    },
  )
  it('say where one stopped: A shows three strands at the top, B at the bottom', () => {
    expect(pauseWords(braid(8, 'A', 4), 5)).toContain('Three strands at the top')
    expect(pauseWords(braid(8, 'B', 4), 5)).toContain('Three strands at the bottom')
    expect(pauseWords(braid(8, 'A', 4), 6)).toContain('Two strands lie at every dot')
    expect(pauseWords(braid(8, 'A', 4), 32)).toContain('done')
    // and the disc bears it out: after the first move of a step three strands lie round slot 1
    const { disc } = discMove(braid(8, 'A', 4), 1)!
    expect(disc.strands.filter((s, i) => s >= 0 && [31, 32, 1, 2].includes(i + 1))).toHaveLength(3)
  })
  it('are told by what moves them: plain cords by school, seven of them by their table', () => {
    const cords = (braid: string, n: number) =>
      part({
        technique: 'braid-cord',
        settings: requireTechnique('braid-cord').settings.parse({ braid, school: 'B' }),
        spec: 'cord-2',
        times: 3,
        start: emptyCells(n, 0),
        repeat: cellsFrom(n, 1, Array<number>(n).fill(1)),
        end: emptyCells(n, 0),
      })
    expect([0, 1, 2].map((i) => discMove(cords('8', 8), i)!.words)).toEqual([
      'from the top left down to the bottom, left of the pair',
      'from the bottom right up to the top, right of the pair',
      'from the top left down to the bottom, left of the pair',
    ])
    const move = discMove(cords('7', 7), 5)!
    expect([move.words, move.turn]).toEqual(['over to the empty slot', (-3 * 5 * 360) / 8])
    expect(pauseWords(cords('7', 7), 5)).toBe(
      `Strand ${move.strand + 1} moves next, from slot ${move.from} to slot ${move.to}.`,
    )
    expect(pauseWords(cords('7', 7), -1)).toContain('Nothing braided yet')
    const disc = (one: Part) => requireTechnique(one.technique).disc!
    expect([cords('8', 8), cords('7', 7)].map((one) => disc(one).way(one.settings))).toEqual(['school B', ''])
  })
  it('know the bead that comes next on every strand', () => {
    const one = braid(8, 'A', 2)
    const first = discMove(one, 0)!
    const before = nextBeads(one, 0)
    const after = nextBeads(one, 1)
    expect(before[first.strand]).toBe(first.number)
    for (let s = 0; s < 8; s++) expect(after[s]).toBe(s === first.strand ? 1 + ((8 + s) % 3) : before[s])
    expect(nextBeads(one, 16)).toEqual(Array<number>(8).fill(0))
  })
})
