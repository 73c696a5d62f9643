import { describe, expect, it } from 'vitest'
import { beginPiece } from '../begin/begin'
import { linesOf } from '../grid/lines'
import { valueOf } from '../problem'
import { partFindings } from '../proof/finding'
import { inserted, removed, withSlot } from '../recipe/edit'
import type { Recipe } from '../recipe/language'
import { tallyPart, totalOf } from '../tally/tally'
import {
  judgedAnew,
  motifInHand,
  picturedBoard,
  portOfPictured,
  portPressed,
  standsBefore,
  upTo,
  type Board,
} from '../technique/recipe-board'
import { shownNodes } from '../technique/step-picture'
import { usualClosure } from '../wear/closure'
import { pieceToBody } from './codec'
import { rowsOf, techniqueOf, workOf, type Part, type Piece } from './piece'
import { recipeSteps } from './recast'
import { applySteps, invertSteps } from './step'

const begun = (technique: string, spec: string): Piece =>
  beginPiece({
    ...{ kind: 'bracelet', name: 'Test', wearer: '', bodyMm: 165, easeMm: 13, widthMm: 9 },
    ...{ closure: usualClosure('toggle'), technique, settings: {}, spec, motif: 'plain', start: 'left' },
  })
const daisies = begun('stemmed-flowers', 'round-8')
const onlyPart = (p: Piece): Part => p.parts[0]!
const toldIn = (p: Piece) => techniqueOf(onlyPart(p)).recipe!.of(onlyPart(p))
const boardOf = (p: Piece): Board => techniqueOf(onlyPart(p)).recipe!.board(workOf(onlyPart(p)))
const lines = (p: Piece) =>
  (['start', 'repeat', 'end'] as const).map((s) => linesOf(onlyPart(p)[s]).map((line) => [...line]))
const done = (p: Piece, recipe: Recipe, params = toldIn(p).params, wished?: Map<string, number>): Piece =>
  valueOf(applySteps(p, valueOf(recipeSteps(p, onlyPart(p), { recipe, params }, wished))))
const own = done(daisies, toldIn(daisies).recipe)

describe('a recipe of a part', () => {
  it('that ships is copied with its lines as they are; the copy is changed in place, and undo takes all back', () => {
    expect(onlyPart(own).technique).toBe('own-recipe')
    expect(lines(own)).toEqual(lines(daisies))
    expect(toldIn(own)).toEqual(toldIn(daisies))
    const copying = valueOf(recipeSteps(daisies, onlyPart(daisies), toldIn(daisies)))
    expect(pieceToBody(valueOf(applySteps(own, invertSteps(copying))))).toEqual(pieceToBody(daisies))

    const { recipe, params } = toldIn(own)
    const longer = recipeSteps(own, onlyPart(own), { recipe, params: { ...params, stems: 5, petals: 99 } })
    const next = valueOf(applySteps(own, valueOf(longer)))
    expect(onlyPart(next).id).toBe(onlyPart(own).id)
    // Two stem beads and four petals more in each; a value beyond its field is brought within it.
    expect(toldIn(next).params).toMatchObject({ stems: 5, petals: 10 })
    const motifs = rowsOf(onlyPart(own)) - 2
    expect(totalOf(tallyPart(onlyPart(next)))).toBe(totalOf(tallyPart(onlyPart(own))) + motifs * 6 + 2)
    expect(pieceToBody(valueOf(applySteps(next, invertSteps(valueOf(longer)))))).toEqual(pieceToBody(own))
  })
  it('that is not sound is refused with a sentence, and so is one that goes on and on', () => {
    const { recipe, params } = toldIn(own)
    const says = (motif: Recipe['motif']): string => {
      const steps = recipeSteps(own, onlyPart(own), { recipe: { ...recipe, motif }, params })
      return steps.ok ? '' : steps.problems[0]!.code
    }
    expect(says([{ do: 'pick', items: [{ slot: 'moss', hole: 'a', count: 1 }] }])).toBe('no-slot')
    expect(says([{ do: 'pick', items: [{ slot: 'stem', hole: 'a', count: 600 }] }])).toBe('too-many')
    expect(says([{ do: 'knot', mm: 3 }])).toBe('')
  })
  it('picks up otherwise in its first or last motif only: these are written out, all others stay one repeat', () => {
    const { recipe, params } = toldIn(own)
    const motifs = rowsOf(onlyPart(own)) - 2
    const bead = { do: 'pick', items: [{ slot: 'stem', hole: 'a', count: 1 }] } as const
    for (const [condition, more, written] of [
      ['m=n-1', 1, 1],
      ['m=0', 1, 1],
      ['m>0', motifs - 1, 1],
      ['m<n-2', motifs - 2, 2],
    ] as const) {
      const changed = inserted(recipe, 'motif/0', { do: 'when', if: condition, steps: [bead] })
      const steps = valueOf(recipeSteps(own, onlyPart(own), { recipe: changed, params }))
      const next = valueOf(applySteps(own, steps))
      expect(partFindings(onlyPart(next), next).filter((f) => f.code === 'line-length')).toEqual([])
      expect(totalOf(tallyPart(onlyPart(next)))).toBe(totalOf(tallyPart(onlyPart(own))) + more)
      expect(onlyPart(next).repeat.rows * (onlyPart(own).times - onlyPart(next).times)).toBeLessThanOrEqual(
        2 * written,
      )
      expect(onlyPart(next).times, condition).toBeGreaterThan(2)
      expect(pieceToBody(valueOf(applySteps(next, invertSteps(steps))))).toEqual(pieceToBody(own))
    }
  })
  it('gives a new part the bead of the tray that was chosen for it', () => {
    const { recipe } = toldIn(own)
    const [more, slot] = withSlot(recipe, { name: 'bud', many: 'buds', spec: 'round-8' })
    const step = { do: 'pick', items: [{ slot, hole: 'a', count: 2 }] } as const
    const wanted = own.tray.filter((b) => b.spec === 'round-8')[1]!.number
    const next = done(own, inserted(more, 'motif/0', step), undefined, new Map([[slot, wanted]]))
    expect(lines(next)[1]![0]!.slice(0, 3)).toEqual([wanted, wanted, lines(own)[1]![0]![0]])
    expect(lines(done(own, inserted(more, 'motif/0', step)))[1]![0]![0]).toBe(own.tray[0]!.number)
    // And away again: as it was.
    expect(lines(done(next, removed(toldIn(next).recipe, 'motif/0')))).toEqual(lines(own))
  })
})

describe('the board of a recipe', () => {
  it('knows what is done before a place', () => {
    expect(standsBefore('motif/1', 'motif/2')).toBe(true)
    expect(standsBefore('motif/2', 'motif/2')).toBe(false)
    expect(standsBefore('motif/1/steps/3', 'motif/2')).toBe(true)
    expect(standsBefore('motif/2/steps/0', 'motif/2')).toBe(false)
    expect(standsBefore('motif/2', 'motif/2/steps/1')).toBe(true)
    expect(standsBefore('motif/2/steps/0', 'motif/2/steps/1')).toBe(true)
    const board = boardOf(own)
    expect(['start/0', 'motif/2', 'end/1'].map((place) => motifInHand(place, board))).toEqual([-1, 1, 4])
    // Steps that are done in every second motif only are seen where they are done; in none, in the second.
    const mixed = boardOf(done(own, toldIn(own).recipe, { ...toldIn(own).params, mix: 1 }))
    expect(['motif/1/steps/0', 'motif/2/steps/3'].map((place) => motifInHand(place, mixed))).toEqual([2, 1])
    expect(motifInHand('motif/2/steps/0', board)).toBe(1)
    const at = (place: string) => {
      const { motif, done: steps, nodes } = upTo(board, place)
      return {
        motif,
        acts: steps.map(({ act }) => act).join(' '),
        own: board.run.nodes.slice(0, nodes).filter((n) => n.motif === motif).length,
      }
    }
    expect(at('start/0')).toEqual({ motif: -1, acts: '', own: 0 })
    expect(at('motif/0')).toEqual({ motif: 1, acts: '', own: 0 })
    expect(at('motif/1')).toEqual({ motif: 1, acts: 'pick', own: 3 })
    expect(at('motif/1/steps/1')).toEqual({ motif: 1, acts: 'pick pick', own: 7 })
    expect(at('motif/3')).toEqual({ motif: 1, acts: 'pick pick pass pick pass', own: 10 })
    expect(at('end/9').motif).toBe(4)
  })
  it('is pressed at the end of a hole that lies nearest, on any bead, and beside all beads at none', () => {
    for (const p of [
      own,
      done(begun('lozenges', 'almond-duo-5-x-2-5-mm'), toldIn(begun('lozenges', 'almond-duo-5-x-2-5-mm')).recipe),
    ]) {
      const board = boardOf(p)
      const { beads } = shownNodes(
        picturedBoard(board)!,
        (n) => n.motif === 1,
        () => 'made',
      )
      for (const bead of beads)
        for (const hole of bead.spec.spacing === undefined ? [0] : [0, 1])
          for (const end of [0, 1] as const) {
            const port = portOfPictured(bead, { hole, end })
            // A little inside the end, so that the bead behind it is not meant.
            const inside = { x: port.x + 0.35 * (bead.x - port.x), y: port.y + 0.35 * (bead.y - port.y) }
            const pressed = portPressed([bead], inside)
            expect(pressed).toEqual({ node: bead.node, hole, end })
            expect(portPressed(beads, inside)).not.toBeNull()
          }
      expect(portPressed(beads, { x: -500, y: 0 })).toBeNull()
    }
  })
  it('judges a hole that is entered at its other end in the picture from before; what is new as it lies now', () => {
    const before = boardOf(own)
    expect(judgedAnew(before, null)).toEqual([])
    const { recipe, params } = toldIn(own)
    const when = recipe.motif[1] as { do: 'when'; if: string; steps: Recipe['motif'] }
    const turned: Recipe = {
      ...recipe,
      motif: recipe.motif.with(1, {
        ...when,
        steps: when.steps.map((s, k) =>
          k === 1 && s.do === 'pass' ? { ...s, refs: s.refs.map((r) => ({ ...r, way: 'on' as const })) } : s,
        ),
      }),
    }
    const next = boardOf(
      valueOf(applySteps(own, valueOf(recipeSteps(own, onlyPart(own), { recipe: turned, params })))),
    )
    expect(judgedAnew(next, before).map(({ code, path, going }) => ({ code, path, going }))).toContainEqual({
      ...{ code: 'wrong-end', path: 'motif/1/steps/1', going: 0 },
    })
    // A ring that a new step closes lay open before it: nothing of that is said.
    const open = boardOf(
      done(own, { ...recipe, motif: [recipe.motif[0]!, { ...when, steps: when.steps.slice(0, 1) }] }),
    )
    expect(judgedAnew(before, open)).toEqual([])
  })
})
