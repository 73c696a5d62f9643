import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { anyAnswer } from '#core/contract/answer'
import { createdAnswer } from '#core/contract/piece'
import { pieceToBody } from '#core/piece/codec'
import { alikeSteps } from '#core/piece/alike'
import { awaited, canMove } from '#core/piece/awaited'
import { applySteps, type Step } from '#core/piece/step'
import { withMeant } from '#core/proof/meant'
import { api, reach } from '../composables/api'
import { Line, mineAsCopy, type Shown } from '../line/line'
import { layAway } from '../mat/laying'
import { useAccount } from './account'
import { useOutbox } from './outbox'

const LOOK_EVERY_MS = 15_000

/** The open piece, as it is on the screen. */
export const usePiece = defineStore('piece', () => {
  const account = useAccount()
  const outbox = useOutbox()
  const id = ref<string | null>(null)
  const shown = shallowRef<Shown | null>(null)
  /** What was done last here, in words. */
  const did = ref('')
  let line: Line | null = null
  let opening = 0
  let underWay: Promise<void> | null = null

  /** Gestures that wait until it is known how the work lies after the first of them. */
  const waiting: { label: string; steps: readonly Step[] }[] = []
  /** Whether how the work lies is being found: the old picture stays until then. */
  const laying = ref(false)

  const piece = computed(() => shown.value?.ahead.piece ?? null)
  /** The last state of it that the server has. */
  const revision = computed(() => shown.value?.ahead.revision ?? 0)
  const state = computed(() => {
    const now = shown.value?.state ?? 'saved'
    // What waits for its picture is not saved yet.
    return laying.value && now === 'saved' ? 'saving' : now
  })
  const says = computed(() => shown.value?.says ?? '')
  const pending = computed(() => shown.value?.ahead.pending.length ?? 0)
  const canUndo = computed(() => shown.value?.ahead.history.undo.at(-1)?.label ?? null)
  const canRedo = computed(() => shown.value?.ahead.history.redo.at(-1)?.label ?? null)

  let ticking: ReturnType<typeof setInterval> | undefined
  const look = () => line?.look()
  const lookIfSeen = () => {
    if (document.visibilityState === 'visible') void look()
  }
  const again = () => line?.again()

  async function open(which: string): Promise<void> {
    if (id.value === which && line) {
      await look()
      return
    }
    // A page and the one that takes its place may both ask.
    if (id.value === which && underWay) return underWay
    close()
    const work = begin(which).finally(() => {
      if (underWay === work) underWay = null
    })
    underWay = work
    return work
  }

  async function begin(which: string): Promise<void> {
    id.value = which
    const mine = ++opening
    await outbox.leave(which)
    const opened = await Line.open({ account: account.account!.id, piece: which }, (now) => {
      // Nothing is shown before it can be worked on.
      if (mine === opening && line) shown.value = now
    })
    if (mine !== opening) {
      opened.close()
      return
    }
    // How stitched chains lie is found away from the page, before anything of them is shown.
    await layAway(awaited(opened.shown.ahead.piece))
    if (mine !== opening) {
      opened.close()
      return
    }
    line = opened
    shown.value = opened.shown
    document.addEventListener('visibilitychange', lookIfSeen)
    // Other tabs of this browser tell at once; other devices are asked now and then.
    ticking = setInterval(lookIfSeen, LOOK_EVERY_MS)
    window.addEventListener('online', again)
    window.addEventListener('pagehide', commitWaiting)
  }

  // The server is back, or the person signed in again: go on.
  watch([() => reach.away, () => reach.signedOut], () => {
    if (!reach.away && !reach.signedOut) again()
  })

  /** A page is left: its piece is closed, unless another is on the screen already. */
  function leave(which: string): void {
    if (id.value === which) close()
  }

  /** What still waits for its picture is done without it: nothing is lost. */
  function commitWaiting(): void {
    laying.value = false
    for (const one of waiting.splice(0)) {
      const says = line?.commit(one.label, one.steps)
      if (says) did.value = says
    }
  }

  /** Closes the piece; what it has not sent yet is sent from any other page. */
  function close(): void {
    commitWaiting()
    underWay = null
    opening++
    line?.close()
    line = null
    clearInterval(ticking)
    document.removeEventListener('visibilitychange', lookIfSeen)
    window.removeEventListener('online', again)
    window.removeEventListener('pagehide', commitWaiting)
    id.value = null
    shown.value = null
    outbox.release()
  }

  /** One gesture. Returns a sentence if it cannot be done; then nothing has changed. */
  const commit = (label: string, given: readonly Step[]): string | null => {
    did.value = label
    const steps = piece.value ? withMeant(piece.value, alikeSteps(piece.value, given)) : given
    const last = waiting.at(-1)
    if (last) {
      // Places of the old picture may hold another bead in the new one.
      if (piece.value && !canMove(piece.value, steps))
        return 'One moment: how the work lies now is being found. Lay it again.'
      // The same field changed again takes the place of what it was.
      if (last.label === label) last.steps = steps
      else waiting.push({ label, steps })
      return null
    }
    const open = line && piece.value && canMove(piece.value, steps) ? applySteps(piece.value, steps) : null
    const questions = open?.ok ? awaited(open.value) : []
    if (questions.length === 0) return line?.commit(label, steps) ?? null
    waiting.push({ label, steps })
    laying.value = true
    const mine = opening
    void layAway(questions).then(() => {
      if (mine === opening) commitWaiting()
    })
    return null
  }

  function back(way: 'undo' | 'redo'): string | null {
    commitWaiting()
    const label = way === 'undo' ? canUndo.value : canRedo.value
    did.value = label ? `${way === 'undo' ? 'Undone' : 'Done again'}: ${label}` : ''
    return line?.back(way) ?? null
  }

  /** Keeps what was made here as a piece of its own and lets go of it here. Returns the copy's id. */
  async function keepMineAsCopy(): Promise<string | null> {
    commitWaiting()
    if (!line || !piece.value) return null
    const copy = await api(createdAnswer, 'piece', {
      method: 'POST',
      body: pieceToBody(mineAsCopy(piece.value)),
      within: 60_000,
    })
    await line.forget()
    close()
    return copy.id
  }

  /** Lets the edits made here go. */
  async function letMineGo(): Promise<void> {
    waiting.splice(0)
    await line?.forget()
    close()
  }

  /** Lets the edits made here go and shows what the server has. */
  async function takeTheirs(): Promise<void> {
    const which = id.value
    await letMineGo()
    if (which) await open(which)
  }

  /** Brings back a piece that was put away elsewhere, and goes on. */
  async function bringBack(): Promise<void> {
    const which = id.value
    if (!which) return
    await api(anyAnswer, `piece/${which}/restore`, { method: 'POST', body: {} })
    close()
    await open(which)
  }

  const sendAgain = async (): Promise<void> => {
    await line?.sendAgain()
  }

  return {
    id,
    piece,
    revision,
    state,
    says,
    pending,
    did,
    laying,
    canUndo,
    canRedo,
    open,
    leave,
    commit,
    undo: () => back('undo'),
    redo: () => back('redo'),
    look,
    keepMineAsCopy,
    letMineGo,
    takeTheirs,
    bringBack,
    sendAgain,
  }
})
