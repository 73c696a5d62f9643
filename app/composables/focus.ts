/** What takes the keyboard's focus, in the order of Tab. */
const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), ' +
  '[tabindex]:not([tabindex="-1"])'
const OVERLAY = '.v-overlay'

/**
 * A place where the focus was: the element, and its neighbours in the order of Tab, nearest first, those after it
 * before those ahead of it.
 */
interface Place {
  readonly element: HTMLElement
  readonly near: readonly HTMLElement[]
}

const NEIGHBOURS = 40

function placeOf(element: HTMLElement): Place {
  const all = [...document.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(
    (e) => e === element || !e.closest(OVERLAY) || element.closest(OVERLAY) !== null,
  )
  const at = all.indexOf(element)
  if (at < 0) return { element, near: [] }
  return {
    element,
    near: [...all.slice(at + 1, at + 1 + NEIGHBOURS), ...all.slice(Math.max(0, at - NEIGHBOURS), at).reverse()],
  }
}

const isUsable = (element: HTMLElement): boolean =>
  element.isConnected && element.checkVisibility() && !element.matches(':disabled')

/**
 * Where the focus belongs once the place it was at is gone: the place itself, or the first of its neighbours that is
 * still there.
 */
const bestOf = ({ element, near }: Place): HTMLElement | undefined => [element, ...near].find(isUsable)

/**
 * Keeps the keyboard's place: after a dialog closes the focus returns to what opened it; after a panel, a row or a
 * button goes away, to what took its place. Nothing is done where a person lets go of the focus by pressing beside it.
 */
export function keepFocus(): void {
  let last: Place | null = null
  /** Where the focus was before it went into a dialog or menu. */
  let opener: Place | null = null
  let asked = false

  document.addEventListener('focusin', (event) => {
    const element = event.target as HTMLElement
    const enters = element.closest(OVERLAY) !== null
    if (enters && last && !last.element.closest(OVERLAY)) opener = last
    if (!enters) opener = null
    last = placeOf(element)
  })

  const restore = () => {
    asked = false
    if (document.activeElement !== document.body && document.activeElement !== null) return
    if (!last || isUsable(last.element)) return
    const inOverlay = last.near.find((e) => e.closest(OVERLAY) && isUsable(e))
    const to = inOverlay ?? (opener ? bestOf(opener) : bestOf(last))
    to?.focus({ preventScroll: true })
  }
  // What is hidden loses the focus only when it is next drawn.
  const ask = () => {
    if (asked || (document.activeElement !== document.body && last && isUsable(last.element))) return
    asked = true
    requestAnimationFrame(() => requestAnimationFrame(restore))
  }
  new MutationObserver(ask).observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['style', 'hidden', 'disabled'],
  })
}
