import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import type { Part, Piece } from '#core/piece/piece'
import type { Finding } from '#core/proof/found'
import { wanting, type Proof } from '#core/proof/proof'
import type { Progress } from '#core/proof/reader'
import type { Answer, Ask } from '../mat/worker/proof.worker'
import { useBox } from './box'
import { usePiece } from './piece'

/** How long the hand must rest before the piece is read again, ms. */
const REST_MS = 300

/** What the proofreader says of the open piece: read by a worker, a moment after the last stroke. */
export const useProof = defineStore('proof', () => {
  const store = usePiece()
  const box = useBox()
  /** What was said last, and of which state. */
  const said = shallowRef<{ readonly id: string; readonly piece: Piece; readonly proof: Proof } | null>(null)
  const reading = shallowRef(false)
  /** How far a long reading is. */
  const progress = shallowRef<Progress | null>(null)
  /** Whether someone stopped it: it is read again with the next change, or when asked. */
  const stopped = shallowRef(false)
  let worker: Worker | null = null
  let asked: { readonly id: number; readonly of: string; readonly piece: Piece } | null = null
  let count = 0
  /** Whether something changed while it was read. */
  let due = false
  /** Parts as the worker has them. */
  let sent = new Map<string, Part>()

  function letGo(): void {
    worker?.terminate()
    worker = null
    asked = null
    sent = new Map()
    reading.value = false
    progress.value = null
  }

  function ready(): Worker {
    if (worker) return worker
    worker = new Worker(new URL('../mat/worker/proof.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data: { id, proof, progress: far } }: MessageEvent<Answer>) => {
      if (!asked || asked.id !== id) return
      progress.value = far ?? null
      if (!proof) return
      said.value = { id: asked.of, piece: asked.piece, proof }
      asked = null
      reading.value = false
      // What was changed meanwhile is read now.
      if (due) void later()
    }
    worker.onerror = letGo
    return worker
  }

  function read(): void {
    const { piece, id } = store
    if (!piece || !id || stopped.value) return
    if (asked) {
      // Another piece does not wait for the one before.
      if (asked.of === id) {
        due = true
        return
      }
      letGo()
    }
    const { parts, ...head } = piece
    // What is made from the piece is made anew in the worker.
    const bare = ({ sizes: _sizes, held: _held, chart: _chart, ...part }: Part): Part => part
    const ask: Ask = {
      id: ++count,
      piece: head,
      parts: parts.map((part) => (sent.get(part.id) === part ? part.id : bare(part))),
      around: box.known ? { box: { stock: box.box, pieceId: id } } : {},
    }
    asked = { id: ask.id, of: id, piece }
    due = false
    reading.value = true
    try {
      ready().postMessage(ask)
      sent = new Map(parts.map((part) => [part.id, part]))
    } catch {
      letGo()
    }
  }
  const later = useDebounceFn(read, REST_MS)

  watch(
    [() => store.piece, () => box.known, () => box.box],
    () => {
      stopped.value = false
      void later()
    },
    { immediate: true },
  )

  /** Leaves off reading; what was said last stays. */
  function stop(): void {
    letGo()
    stopped.value = true
  }
  function again(): void {
    stopped.value = false
    read()
  }

  const proof = computed<Proof | null>(() => (said.value?.id === store.id ? said.value.proof : null))
  /** Whether what is said is of the piece as it is now. */
  const current = computed(() => proof.value !== null && said.value?.piece === store.piece)
  const open = computed<readonly Finding[]>(() => proof.value?.open ?? [])
  const wants = computed(() => (proof.value ? wanting(proof.value).length : 0))
  return { proof, open, wants, current, reading, progress, stopped, stop, again }
})
