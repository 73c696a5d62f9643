import { describe, expect, it } from 'vitest'
import { beginPiece, firstTray, sampleOf } from '#core/begin/begin'
import { choiceSteps, fitChoices } from '#core/fit/choices'
import { extentOf } from '#core/fit/extent'
import { fitOf } from '#core/fit/reckon'
import { bookletLayout } from '#core/format/booklet'
import { chartSvg, chartStrips, wholeSvg } from '#core/format/chart-svg'
import { writePieceFile } from '#core/format/piece-file'
import { reportPiece } from '#core/format/report'
import { patternSteps, whyNoPattern } from '#core/pattern/plan'
import { copyClip, mirrorBox, pasteClip } from '#core/pattern/clip'
import { insertSlotsStep, layingSteps, removeSlotsStep, setStep } from '#core/piece/edit'
import { checkPiece, partToFile, pieceFromBody, pieceToBody } from '#core/piece/codec'
import { columnsOf, rowsOf, type Part, type Piece } from '#core/piece/piece'
import { applySteps } from '#core/piece/step'
import { rebaseSteps } from '#core/piece/rebase'
import { unrollSteps } from '#core/piece/recast'
import { paint } from '#core/picture/raster'
import { makeSprites } from '#core/picture/sprite'
import { sizeOnScreen } from '#core/picture/view'
import { makingOf } from '#core/technique/making'
import { valueOf } from '#core/problem'
import { beadsToBuy } from '#core/supply/beads'
import { holeChecks, threadCuts } from '#core/supply/thread'
import { tallyPart, tallyPiece, totalOf } from '#core/tally/tally'
import { allRowWords, sheetLines, wordsLine } from '#core/tally/words'
import { outputsOf } from '../golden/outputs'
import { fanPart, fanPiece, lines } from '../guest/piece'
import { bead } from '../fixture/piece'

/** A technique on lines of their own lengths, through all that Weben makes of a piece. */

const written = (piece: Piece): string => JSON.stringify(pieceToBody(piece))
const fan = fanPart()

describe('a part of lines', () => {
  it('is as wide as its longest line and holds what its lines hold', () => {
    expect([columnsOf(fan), rowsOf(fan)]).toEqual([5, 10])
    expect([...tallyPart(fan)].sort()).toEqual([
      [1, 2 + 2 + 2 * (1 + 2 + 1) + 2 + 2],
      [2, 1 + 2 * (2 + 2 + 2) + 1],
      [3, 2 * 3],
    ])
  })
  it('is written as lines without a count across, and read again', () => {
    const file = partToFile(fan)
    expect(file).toMatchObject({ kind: 'lines', repeat: [expect.anything(), [2, 1, 2, 2, 1, 3], expect.anything()] })
    expect(file).not.toHaveProperty('columns')
    expect(written(valueOf(pieceFromBody(JSON.parse(written(fanPiece())))))).toBe(written(fanPiece()))
  })
  it('is refused where kind, count across, plan or technique do not agree, with a sentence', () => {
    const body = JSON.parse(written(fanPiece())) as { parts: Record<string, unknown>[] }
    const refused = (change: Record<string, unknown>) => {
      const read = pieceFromBody({ ...body, parts: [{ ...body.parts[0], ...change }] })
      return read.ok ? '' : read.problems[0]!.says
    }
    expect(refused({ columns: 5 })).toMatch(/leave “columns” out/)
    expect(refused({ kind: 'grid' })).toMatch(/how many beads lie across/)
    expect(refused({ technique: 'loom', settings: {}, plan: undefined })).toMatch(/worked on a grid/)
    expect(refused({ plan: { lean: 99 } })).toMatch(/lean/)
    expect(refused({ start: [[1, 1, 1]] })).toMatch(/pairs/)
    expect(refused({ start: [[501, 1]] })).toMatch(/a line can hold 500/)
    expect(refused({ start: [Array.from({ length: 200 }, (_, k) => (k % 2 === 0 ? 65_535 : 1))] })).toMatch(
      /a line can hold 500/,
    )
    const grid = {
      ...body.parts[0]!,
      technique: 'loom',
      settings: {},
      columns: 1,
      kind: undefined,
      plan: { lean: 3 },
      start: [],
      repeat: [[1, 1]],
      end: [],
    }
    const planned = pieceFromBody({ ...body, parts: [grid] })
    expect(planned.ok ? '' : planned.problems[0]!.says).toMatch(/has no plan/)
  })
  it('is refused where one long line among many makes room for more than a piece can hold', () => {
    const rest = Array<string>(5000).fill('')
    const sparse = (id: string) => fanPart({ id, times: 1, repeat: lines('A'.repeat(500), ...rest) })
    const check = (...parts: Part[]) => checkPiece({ ...fanPiece(), parts }).map((p) => p.code)
    expect(check(sparse('one'))).toEqual([])
    expect(check(sparse('one'), sparse('two'))).toEqual(['cells-many'])
  })
  it('begins with as many strands as its measure takes, and shows itself as a sample', () => {
    const wish = {
      name: 'Fringe',
      kind: 'bracelet',
      wearer: '',
      bodyMm: 170,
      easeMm: 13,
      widthMm: 10,
      technique: 'fan',
      spec: 'round-11',
      motif: 'plain',
      start: 'left',
      closure: fanPiece().fit.closure,
    } as const
    const begun = beginPiece(wish as never)
    expect(Math.abs(fitOf(begun).differenceMm)).toBeLessThan(3)
    expect(valueOf(pieceFromBody(pieceToBody(begun))).parts[0]!.technique).toBe('fan')
    const sample = sampleOf('fan', 'round-11')
    expect(rowsOf(sample)).toBe(24)
    expect([...tallyPart(sample).keys()].sort()).toEqual([1, 2])
    expect(firstTray('round-11').length).toBeGreaterThan(1)
    expect(makingOf('fan').title).toBe('What hangs')
  })
})

describe('what is told of lines', () => {
  it('is their beads in order, and what else the hands do', () => {
    const words = [...allRowWords(fan)].map((w) => wordsLine(w, fanPiece().tray))
    expect(words[0]).toBe('Strand 1 → 2A (2) · back through 1 bead · fix to the bar')
    expect(words[2]).toBe('Strand 3 → 1A 1B 1C 1B (4) · back through 3 beads · fix to the bar')
    expect(words).toHaveLength(10)
  })
  it('names copies of the repeat once on the sheet', () => {
    expect(sheetLines(fanPiece(), fan).map((l) => l.kind)).toEqual(
      [...'rrrrrarr'].map((k) => (k === 'a' ? 'again' : 'row')),
    )
  })
  it('names the bead whose hole is passed most', () => {
    const checks = holeChecks(fanPiece(), fan)
    expect(checks[0]).toMatchObject({ passes: 2, at: { c: 0, r: 0, says: 'strand 1, bead 1' } })
    const once = fanPart({ start: lines('C'), repeat: lines('CB'), end: lines() })
    const tray = [bead(1), bead(2, { spec: 'round-8' }), bead(3)]
    const passes = Object.fromEntries(
      holeChecks({ ...fanPiece(), tray, parts: [once] }, once)
        .filter((c) => c.where === 'work')
        .map((c) => [c.spec, c.passes]),
    )
    expect(passes['round-8']).toBe(1)
  })
  it('has a size, thread and beads to buy of its own', () => {
    const p = fanPiece()
    const { d, l } = { d: 2.1, l: 1.5 }
    expect(extentOf(p, fan).lengthMm.nominal).toBeGreaterThan(10 * d)
    const beads = totalOf(tallyPiece(p))
    expect(threadCuts(p, fan)[0]!.pathMm).toBeGreaterThan(2 * beads * l)
    expect(beadsToBuy(p).map((b) => b.bead.number)).toEqual([1, 2, 3])
  })
  it('fits by strands more or fewer, which come in as long as those beside them', () => {
    const p = fanPiece()
    const choice = fitChoices(p).find((c) => c.startRows > 0)!
    const next = valueOf(applySteps(p, choiceSteps(p, choice)))
    expect(rowsOf(next.parts[0]!)).toBe(
      choice.startRows + 2 + 3 * choice.times + choice.cycleRows + 2 + choice.endRows,
    )
    expect(extentOf(next, next.parts[0]!).lengthMm.nominal).toBeCloseTo(choice.fit.beadworkMm.nominal, 6)
    expect(partToFile(next.parts[0]!).start[0]).toEqual([2, 1])
  })
})

describe('edits of lines', () => {
  it('lay beads in every copy of the repeat, and nothing behind the end of a line', () => {
    const p = fanPiece()
    const steps = layingSteps(
      fan,
      new Map([
        [5 * 5 + 1, 3],
        [0 * 5 + 4, 3],
      ]),
    )
    const next = valueOf(applySteps(p, steps)).parts[0]!
    expect(partToFile(next).repeat[0]).toEqual([1, 1, 2, 3, 1, 2])
    expect(partToFile(next).start).toEqual(partToFile(fan).start)
  })
  it('make a line longer and shorter; two people at two lines do not disturb each other', () => {
    const p = fanPiece()
    const mine = [insertSlotsStep(fan, 'repeat', 1, 2, 2, 3)]
    const theirs = [removeSlotsStep(fan, 'repeat', 0, 1, 1)]
    const [one, other] = [rebaseSteps(mine, theirs, p), rebaseSteps(theirs, mine, p)].map(valueOf)
    const both = valueOf(applySteps(valueOf(applySteps(p, theirs)), one!))
    expect(written(both)).toBe(written(valueOf(applySteps(valueOf(applySteps(p, mine)), other!))))
    expect(partToFile(both.parts[0]!).repeat.slice(0, 2)).toEqual([
      [1, 1, 1, 3, 1, 2],
      [2, 1, 2, 3, 2, 2, 1, 3],
    ])
  })
  it('change the plan in a step, which is refused where the plan would not hold', () => {
    const p = fanPiece()
    expect(applySteps(p, [setStep(p, ['parts', 'fan', 'plan'], { lean: 5, turning: false })]).ok).toBe(true)
    const wrong = applySteps(p, [setStep(p, ['parts', 'fan', 'plan'], { lean: 500, turning: false })])
    expect(wrong.ok).toBe(false)
  })
  it('copy, paste and mirror by place and line, and write repeats out', () => {
    const clip = copyClip(fan, { c: 0, r: 3, columns: 5, rows: 1 })
    expect(clip.numbers).toEqual([1, 1, 2, 2, 3])
    const p = fanPiece()
    const pasted = valueOf(applySteps(p, layingSteps(fan, pasteClip(fan, clip, { c: 0, r: 0 })))).parts[0]!
    expect(partToFile(pasted).start[0]).toEqual([2, 1])
    const turned = valueOf(
      applySteps(p, layingSteps(fan, mirrorBox(fan, { c: 0, r: 3, columns: 5, rows: 1 }, 'across'))),
    )
    expect(partToFile(turned.parts[0]!).repeat[1]).toEqual([1, 3, 2, 2, 2, 1])
    const flat = valueOf(applySteps(p, unrollSteps(p, fan))).parts[0]!
    expect([flat.times, flat.repeat.rows]).toEqual([1, 6])
    expect([...tallyPart(flat)].sort()).toEqual([...tallyPart(fan)].sort())
  })
  it('blend over their beads; a pattern that needs a grid says why it has no meaning', () => {
    const p = fanPiece()
    const blend = { kind: 'gradient', wish: { sequence: [1, 2], way: 'across', blend: 'steps', seed: 1 } } as const
    const blended = valueOf(applySteps(p, [...patternSteps(p, fan, null, blend).steps])).parts[0]!
    expect(partToFile(blended).repeat[1]).toEqual([2, 1, 3, 2])
    expect(patternSteps(p, fan, null, { kind: 'border', wish: { sequence: [1], rings: 1, corner: null } })).toEqual({
      steps: [],
      notes: [expect.stringMatching(/needs a grid.*strands lie each for itself/)],
    })
    expect(whyNoPattern(fan, { kind: 'gradient' })).toBe('')
  })
})

describe('pictures of lines', () => {
  const p = fanPiece()
  it('leave Weben in every form', async () => {
    const out = await outputsOf(p)
    expect(Object.keys(out).sort()).toEqual(
      [
        'fan.booklet.txt',
        'fan.grid.csv',
        'fan.level.pixels',
        'fan.level.svg',
        'fan.rows.strips.svg',
        'fan.upright.pixels',
      ]
        .concat([
          'course.json',
          'fan.upright.svg',
          'fan.words.txt',
          'piece.json',
          'report.json',
          'rows.csv',
          'tally.csv',
        ])
        .filter((name) => name in out)
        .sort(),
    )
    expect(JSON.stringify(reportPiece(p))).toContain('"beads":36')
    expect(writePieceFile(p)).toContain('"kind"')
  })
  it('show each bead once, and what carries it', () => {
    const beads = totalOf(tallyPart(fan))
    for (const lie of ['level', 'upright'] as const) {
      const svg = chartSvg(fan, p.tray, { lie, scale: 2, ink: 'both', title: 'Fan' })
      expect(svg.match(/<use /g)).toHaveLength(beads)
      expect(svg.match(/<polyline [^>]*stroke="rgb/g)).toHaveLength(1 + 10)
    }
    expect(wholeSvg(p.parts, fan, p.tray, { scale: 2, ink: 'colour', title: 'Fan' }).match(/<use /g)).toHaveLength(
      beads,
    )
    expect(chartStrips(fan, 0, 10, 2, 1000)).toEqual([[0, 10]])
  })
  it('paint each bead in its colour, from near and from afar', () => {
    const tray = [bead(1, { colour: '#ff0000' }), bead(2, { colour: '#00ff00' }), bead(3, { colour: '#0000ff' })]
    for (const scale of [12, 2]) {
      const { width, height } = sizeOnScreen(fan, { lie: 'level', scale })
      const surface = {
        width: Math.ceil(width),
        height: Math.ceil(height),
        pixels: new Int32Array(Math.ceil(width) * Math.ceil(height)),
      }
      const sprites = makeSprites(tray, scale, { ground: { r: 255, g: 255, b: 255 }, glyphs: false, nap: 0 })
      const all = { x: 0, y: 0, width: surface.width, height: surface.height }
      const drawn = paint(surface, all, fan, { lie: 'level', scale, x: 0, y: 0 }, sprites)
      expect(drawn).toBe(totalOf(tallyPart(fan)))
      const most = (r: number, g: number, b: number) => r > 1.5 * g && r > 1.5 * b
      const found = { red: 0, green: 0, blue: 0 }
      for (const pixel of surface.pixels) {
        const [r, g, b] = [pixel & 255, (pixel >> 8) & 255, (pixel >> 16) & 255]
        if (most(r, g, b)) found.red++
        if (most(g, r, b)) found.green++
        if (most(b, r, g)) found.blue++
      }
      // As there are more of them: red, green, blue.
      expect(found.red).toBeGreaterThan(found.blue)
      expect(found.green).toBeGreaterThan(found.blue)
      expect(found.blue).toBeGreaterThan(0)
    }
  })
  it('painted piece by piece is the picture painted at once', () => {
    const scale = 9
    const view = { lie: 'upright', scale, x: 4, y: 3 } as const
    const [width, height] = [160, 240]
    const sprites = makeSprites(p.tray, scale, { ground: { r: 240, g: 230, b: 220 }, glyphs: false, nap: 2 })
    const whole = { width, height, pixels: new Int32Array(width * height) }
    paint(whole, { x: 0, y: 0, width, height }, fan, view, sprites)
    const tiled = { width, height, pixels: new Int32Array(width * height) }
    for (let x = 0; x < width; x += 37)
      for (let y = 0; y < height; y += 29) paint(tiled, { x, y, width: 37, height: 29 }, fan, view, sprites)
    expect(tiled.pixels).toEqual(whole.pixels)
  })
  it('are bound in a booklet whose pages hold every line, each on one page or shared', () => {
    const long = fanPart({ times: 60 })
    const { tiles, pagesAcross } = bookletLayout(long, { widthMm: 170, heightMm: 240 })
    expect(pagesAcross).toBe(1)
    expect(tiles.length).toBeGreaterThan(1)
    const shown = new Set(tiles.flatMap((t) => Array.from({ length: t.rows }, (_, k) => t.r + k)))
    expect(shown.size).toBe(rowsOf(long))
    for (const tile of tiles) expect(tile.rows).toBeGreaterThan(0)
  })
})
