import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Box, Clip } from '#core/pattern/clip'
import type { Lie } from '#core/picture/view'
import type { Place } from '#core/technique/lattice'
import type { ToolId } from '../mat/tool/tool'

/** What this tab is doing on the mat: session state, not saved with the piece. */
export const useMat = defineStore('mat', () => {
  const tool = ref<ToolId>('lay')
  const part = ref<string | null>(null)
  /** Tray number of the chosen dish. */
  const number = ref(1)
  const glyphs = ref(false)
  const lie = ref<Lie>('along')
  const cursor = shallowRef<Place | null>(null)
  const hover = shallowRef<Place | null>(null)
  const selection = shallowRef<Box | null>(null)
  const clip = shallowRef<Clip | null>(null)
  const says = ref('')
  return { tool, part, number, glyphs, lie, cursor, hover, selection, clip, says }
})
