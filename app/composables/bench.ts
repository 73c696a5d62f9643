import { useLocalStorage, useSpeechSynthesis, useSwipe, useWakeLock } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch, type Ref } from 'vue'

/** How a person likes the bench on this device. */
export const useBenchWays = () =>
  useLocalStorage(
    'weben-bench',
    { stride: 'row' as 'row' | 'bite', aloud: false, rate: 1, click: false, pedal: '', breaks: false },
    { mergeDefaults: true },
  )

/** Keeps the screen awake while the bench is open, where the browser can; says whether it does. */
export function useAwake() {
  const lock = useWakeLock()
  const hold = () => {
    if (document.visibilityState === 'visible') void lock.request('screen').catch(() => {})
  }
  onMounted(() => {
    if (lock.isSupported.value) hold()
  })
  onBeforeUnmount(() => {
    void lock.release().catch(() => {})
  })
  return lock
}

/** Reads a sentence aloud when it changes, while that is wanted. */
export function useAloud(text: () => string, wanted: () => boolean, rate: () => number) {
  const now = ref('')
  const pace = ref(1)
  const speech = useSpeechSynthesis(now, { rate: pace, lang: 'en' })
  watch([text, wanted, rate], ([says, on, speed]) => {
    if (!speech.isSupported.value) return
    speech.stop()
    if (!on || !says) return
    now.value = says
    pace.value = speed
    speech.speak()
  })
  onBeforeUnmount(() => {
    if (speech.isSupported.value) speech.stop()
  })
  return speech
}

/** A short click, for those who want to hear that a press was taken. */
export function useClick(wanted: () => boolean) {
  let context: AudioContext | null = null
  onBeforeUnmount(() => {
    void context?.close()
  })
  return () => {
    if (!wanted()) return
    context ??= new AudioContext()
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = 660
    loud.gain.setValueAtTime(0.08, context.currentTime)
    loud.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + 0.06)
    tone.connect(loud).connect(context.destination)
    tone.start()
    tone.stop(context.currentTime + 0.07)
  }
}

/** Where keys are for something else than going on. */
const OTHER_FIELDS = 'input, textarea, select, summary, [role=combobox], [role=dialog], .v-overlay'

/** Keys, a pedal, a press and a swipe: all go on or back. A key is learned as the pedal while `learning` is true. */
export function useHands(
  hands: Readonly<Ref<HTMLElement | null>>,
  ways: Ref<{ pedal: string }>,
  { on, back }: { readonly on: () => void; readonly back: () => void },
) {
  const learning = ref(false)
  function keys(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (learning.value) {
      event.preventDefault()
      learning.value = false
      if (event.key !== 'Escape') ways.value.pedal = event.key
      return
    }
    const target = event.target as HTMLElement
    // A box to tick is no field to type in: a pedal goes on there too.
    if (target.closest(OTHER_FIELDS) && !(target as HTMLInputElement).matches('input[type=checkbox]')) return
    const box = (target as HTMLInputElement).matches('input[type=checkbox]')
    // Space and Enter on another button are that button's; the pedal is the bench's wherever one is.
    const pedal = ways.value.pedal !== '' && event.key === ways.value.pedal && !(box && event.key === ' ')
    const other = box || target.closest(event.key === ' ' ? 'button:not(.on)' : 'button:not(.on), a') !== null
    if (pedal || (!other && [' ', 'Enter'].includes(event.key)) || ['ArrowRight', 'PageDown'].includes(event.key)) {
      event.preventDefault()
      if (!event.repeat) on()
    } else if (['Backspace', 'ArrowLeft', 'PageUp'].includes(event.key)) {
      event.preventDefault()
      back()
    }
  }
  onMounted(() => {
    window.addEventListener('keydown', keys)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', keys)
  })
  let swiped = 0
  useSwipe(hands, {
    threshold: 40,
    onSwipeEnd(_, direction) {
      if (direction !== 'left' && direction !== 'right') return
      swiped = performance.now()
      if (direction === 'left') on()
      else back()
    },
  })
  /** A finger that swiped has not pressed as well. */
  const pressed = () => {
    if (performance.now() - swiped > 400) on()
  }
  return { learning, pressed }
}

/** Eyes rest after so long, and for so long, ms (20-20-20: twenty minutes, twenty feet, twenty seconds). */
const REST = { after: 20 * 60_000, pause: 60_000 } as const

/** Says when it is time to rest the eyes: after twenty minutes of presses without a pause, while that is wanted. */
export function useBreaks(pressedAt: () => number, wanted: () => boolean) {
  const due = ref(false)
  let since = 0
  let last = 0
  watch(pressedAt, (at) => {
    if (at - last > REST.pause) since = at
    last = at
    due.value = wanted() && since > 0 && at - since >= REST.after
  })
  watch(wanted, (on) => {
    if (!on) due.value = false
  })
  const rested = () => {
    since = last = Date.now()
    due.value = false
  }
  return { due, rested }
}
