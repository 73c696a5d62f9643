import { computed, reactive, ref, shallowRef, toRaw, watch } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import { techniqueOf, workOf, type Part, type Piece } from '#core/piece/piece'
import { recipeSteps } from '#core/piece/recast'
import { laidSlots } from '#core/piece/slot-colours'
import type { Step as PieceStep } from '#core/piece/step'
import { inserted, movedPath, replaced, spotOf, stepAt } from '#core/recipe/edit'
import { RECIPE_SECTIONS, type Recipe, type RecipeSection, type Step } from '#core/recipe/language'
import { refsThrough, sharedWithBefore, turnedRound } from '#core/recipe/pressed'
import type { Going, Port } from '#core/recipe/run'
import { envOf, type Params } from '#core/recipe/total'
import { stepWords } from '#core/recipe/words'
import { judgedAnew, picturedBoard, upTo, type Board, type Told } from '#core/technique/recipe-board'

/** What this tab does to a recipe: where the next step goes, what is chosen, and what became of it. */
interface Wish {
  piece(): Piece
  part(): Part
  /** Whether it is worked on: what is not looked at is not laid out. */
  isOpen(): boolean
  /** Whether a change waits for its picture. */
  isLaying(): boolean
  /** Takes steps as one gesture; answers a sentence if they cannot be taken. */
  take(label: string, steps: readonly PieceStep[], show?: string): string | null
}

/** A change of the recipe is one gesture: the next one takes its place while it is being laid out. */
const LABEL = 'Steps of the recipe'

/** The recipe of a part as it is worked on; all that is asked of it is reckoned by core. */
export function recipeWork(wish: Wish) {
  const side = computed(() => techniqueOf(wish.part()).recipe ?? null)
  const isOwn = computed(() => side.value?.keptBy === wish.part().technique)
  const told = computed(() => side.value?.of(wish.part()) ?? null)
  /** What was changed and is not laid out yet. */
  const draft = shallowRef<{ recipe: Recipe; params: Params } | null>(null)
  const says = ref('')
  const place = ref('motif/0')
  const chosen = ref<string | null>(null)
  const by = ref<string | null>(null)
  /** The first of two beads that are one, while the second is pressed. */
  const sharing = ref<'first' | Port | null>(null)
  const now = computed(() => draft.value ?? told.value)
  const section = computed(() => spotOf(place.value).section)
  const board = computed<Board | null>(() => (wish.isOpen() ? (side.value?.board(workOf(wish.part())) ?? null) : null))
  /** The board before the last change, by which a hole that is entered at its other end is judged. */
  const before = shallowRef<Board | null>(null)
  /** Beads of the tray that were chosen for parts. */
  const wished = new Map<string, number>()
  const env = computed(() => {
    const { recipe, params } = now.value!
    return new Map([...envOf(recipe, params, 4), ['m', 1]])
  })

  watch(told, (next, last) => {
    // Other colours are no other recipe: what waits for its picture stays.
    if (isSameRecipe(next, last)) return
    draft.value = null
    if (next === null || last === null) return
    // Undone elsewhere: the place may be gone.
    const { section } = spotOf(place.value)
    const list = next.recipe[section]
    if (!stepAt(next.recipe, movedPath(place.value, -1)) && spotOf(place.value).at > 0)
      place.value = `${section}/${list.length}`
    if (chosen.value && !stepAt(next.recipe, chosen.value)) chosen.value = null
  })
  watch(wish.isLaying, (isLaying) => {
    // It is there, or it could not be done: either way the piece says what holds.
    if (!isLaying) draft.value = null
  })
  watch(board, (next, last) => {
    if (!isSameRecipe(next, last)) before.value = last ?? null
  })
  watch(
    () => wish.part().id,
    () => {
      says.value = ''
      sharing.value = null
      show(section.value)
    },
    { immediate: true },
  )

  /** Takes another recipe. Answers whether it is taken. */
  function change(recipe: Recipe, params: Params = now.value!.params): boolean {
    const told = { recipe: toRaw(recipe), params: toRaw(params) }
    const steps = recipeSteps(wish.piece(), wish.part(), told, wished)
    if (!steps.ok) {
      says.value = steps.problems[0]!.says
      return false
    }
    const show = steps.value.flatMap((s) => (s.type === 'part' && s.do === 'insert' ? [s.value.id] : []))[0]
    const problem = steps.value.length > 0 ? wish.take(LABEL, steps.value, show) : null
    says.value = problem ?? ''
    if (problem) return false
    draft.value = { recipe, params }
    return true
  }

  function show(next: RecipeSection) {
    chosen.value = null
    place.value = `${next}/${now.value?.recipe[next].length ?? 0}`
  }
  function choose(path: string | null) {
    chosen.value = path
    if (path) place.value = movedPath(path, 1)
  }
  /** The step that the next one would be put behind. */
  const last = computed(() => {
    const path = movedPath(place.value, -1)
    const step = spotOf(place.value).at > 0 && now.value ? stepAt(now.value.recipe, path) : undefined
    return step ? { path, step } : null
  })
  const own = computed(() => by.value ?? now.value?.recipe.carriers[0]?.id ?? '')
  const carried = () => (now.value!.recipe.carriers[0]?.id === own.value ? {} : { by: own.value })
  const isSame = (step: Step) => !('by' in step && step.by ? step.by !== own.value : carried().by)

  /** Puts a step where the hands are. */
  function put(step: Step, recipe = now.value!.recipe): boolean {
    const done = change(inserted(recipe, place.value, { ...step, ...('text' in step ? {} : carried()) }))
    if (done) {
      place.value = movedPath(place.value, 1)
      chosen.value = null
    }
    return done
  }

  /** One more bead that plays a part: onto the pick before the needle, or a new one. */
  function string(slot: string, hole: 'a' | 'b' = 'a', recipe = now.value!.recipe): boolean {
    const at = last.value
    if (at?.step.do !== 'pick' || !isSame(at.step)) {
      if (!change(inserted(recipe, place.value, { do: 'pick', items: [{ slot, hole, count: 1 }], ...carried() })))
        return false
      place.value = movedPath(place.value, 1)
      chosen.value = null
      return true
    }
    const { items } = at.step
    const end = items.at(-1)!
    const isMore = end.slot === slot && end.hole === hole && typeof end.count === 'number'
    const more = isMore
      ? items.with(-1, { ...end, count: (end.count as number) + 1 })
      : [...items, { slot, hole, count: 1 }]
    return change(replaced(recipe, at.path, { ...at.step, items: more }))
  }

  /** Holes that were pressed one after the other: onto the pass before the needle, or a new one. */
  function through(ports: readonly Port[]): boolean {
    const run = board.value?.run
    if (!run || ports.length === 0 || !isOwn.value) return false
    if (sharing.value) return share(ports[0]!)
    const { motif, nodes } = upTo(board.value!, place.value)
    const later = ports.find(({ node }) => node >= nodes)
    if (later) {
      says.value = 'That bead is not picked up yet at this step: choose a later step, or string it first.'
      return false
    }
    const [first] = ports
    const pressed = run.nodes[first!.node]!
    if (pressed.isFixture) return put({ do: 'fix', fixture: pressed.slot })
    const goes = ports.map(({ node, hole, end }): Going => ({ node, hole, way: end === 0 ? 1 : -1 }))
    const refs = refsThrough(goes, run.nodes, motif, board.value!.motifs)
    if (!refs.ok) {
      says.value = refs.problems[0]!.says
      return false
    }
    const at = last.value
    if (at?.step.do === 'pass' && isSame(at.step))
      return change(replaced(now.value!.recipe, at.path, { ...at.step, refs: [...at.step.refs, ...refs.value] }))
    return put({ do: 'pass', refs: refs.value })
  }

  /** Two beads are one: first that of this motif, then that of the motif before. */
  function share(port: Port): boolean {
    if (sharing.value === 'first') {
      sharing.value = port
      return true
    }
    const { nodes } = board.value!.run
    const pair = [nodes[(sharing.value as Port).node]!, nodes[port.node]!]
    const [other, one] = pair[0]!.motif < pair[1]!.motif ? pair : pair.toReversed()
    sharing.value = null
    if (one!.motif - other!.motif !== 1 || other!.motif < 0) {
      says.value = 'Press a bead of one motif, then the one of the motif before it that is the same bead.'
      return false
    }
    const shared = sharedWithBefore(now.value!.recipe, one!, other!, env.value)
    if (!shared.ok) {
      says.value = shared.problems[0]!.says
      return false
    }
    const done = change(shared.value)
    if (done) show('motif')
    return done
  }

  /** What a step says, by its path: as it is done in the motif in hand, or anywhere. */
  const words = computed(() => {
    const out = new Map<string, string>()
    const run = board.value?.run
    if (!run) return out
    const all = stepWords(run)
    run.done.forEach(({ path, motif }, k) => {
      if (!out.has(path) || motif === 1) out.set(path, all[k]!.says)
    })
    return out
  })
  /** What is wrong, at its step; '' where it is at none. */
  const faults = computed(() => {
    const out = new Map<string, { code: string; says: string; going?: number }[]>()
    if (!board.value) return out
    const add = (path: string, one: { code: string; says: string; going?: number }) =>
      out.set(path, [...(out.get(path) ?? []), { ...one, says: one.says.replace(/ \(step [\d.]+ of the \w+\)$/, '') }])
    for (const { code, at, says: text } of board.value.run.faults)
      add(RECIPE_SECTIONS.some((s) => at.startsWith(`${s}/`)) ? at : '', { code, says: text })
    for (const one of judgedAnew(board.value, before.value)) add(one.path, one)
    return out
  })
  /** Enters a hole at its other end. */
  function turnRound(path: string, going: number) {
    const step = stepAt(now.value!.recipe, path)
    const done = board.value?.run.done.find((one) => one.path === path && one.motif === 1)
    const any = done ?? board.value?.run.done.find((one) => one.path === path)
    if (step?.do !== 'pass' || !any) return
    change(replaced(now.value!.recipe, path, turnedRound(step, any, board.value!.run.nodes, going)))
  }

  /** Beads of the slots, as they mostly lie. */
  const colours = computed(() => {
    const tray = new Map<number, TrayBead>(wish.piece().tray.map((bead) => [bead.number, bead]))
    return new Map(
      laidSlots(wish.piece(), wish.part()).flatMap(({ slot, numbers }) => {
        const bead = tray.get(numbers[0] ?? 0)
        return bead ? [[slot, bead] as const] : []
      }),
    )
  })

  const pictured = computed(() => (board.value ? picturedBoard(board.value) : null))
  const reached = computed(() => (board.value ? upTo(board.value, place.value) : null))

  /** Puts the needle before a step. */
  function stand(path: string) {
    chosen.value = null
    place.value = path
  }
  /** Begins to say that two beads are one, or leaves it. */
  function shareNext() {
    sharing.value = sharing.value ? null : 'first'
  }
  const tell = (text: string) => {
    says.value = text
  }

  return reactive({
    ...{ stand, shareNext, tell },
    ...{ side, isOwn, now, board, pictured, reached, says, place, chosen, by: own, sharing, section, last, env },
    ...{ words, faults, colours },
    wish: (slot: string, number: number) => wished.set(slot, number),
    setBy: (id: string) => {
      by.value = id
    },
    ...{ change, show, choose, put, string, through, turnRound },
  })
}

/** The very same recipe, with the same values of its fields. */
const isSameRecipe = (a: Told | null, b: Told | null): boolean =>
  a !== null && b !== null && a.recipe === b.recipe && JSON.stringify(a.params) === JSON.stringify(b.params)

export type RecipeWork = ReturnType<typeof recipeWork>
