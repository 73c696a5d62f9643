import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Clip } from '#core/pattern/clip'
import type { Lie } from '#core/picture/view'
import type { Place, Box } from '#core/technique/lattice'
import type { TrayBead } from '#core/bead/bead'
import type { Vision } from '#core/colour/vision'
import type { SymmetryKind } from '#core/pattern/symmetry'
import type { Part } from '#core/piece/piece'
import type { ToolId } from '../mat/tool/tool'

export type Panel =
  'tray' | 'pattern' | 'picture' | 'stamps' | 'rows' | 'parts' | 'slots' | 'strands' | 'recipe' | 'views'

/** What this tab is doing on the mat: session state, not saved with the piece. */
export const useMat = defineStore('mat', () => {
  const tool = ref<ToolId>('lay')
  const part = ref<string | null>(null)
  /** Tray number of the chosen dish. */
  const number = ref(1)
  const glyphs = ref(false)
  const lie = ref<Lie>('level')
  const cursor = shallowRef<Place | null>(null)
  const hover = shallowRef<Place | null>(null)
  const selection = shallowRef<Box | null>(null)
  const clip = shallowRef<Clip | null>(null)
  /** What the mat says to those who listen; the same said twice is spoken twice. */
  const says = ref('')
  const say = (text: string) => {
    says.value = says.value === text ? `${text}\u00A0` : text
  }
  /** Live symmetry of what is laid. */
  const symmetry = ref<SymmetryKind>('none')
  /** Which side is seen, and whether the work is turned by half on the screen. */
  const wrongSide = ref(false)
  const turned = ref(false)
  /** Beads, or a chart as it prints in black and white. */
  const look = ref<'beads' | 'chart'>('beads')
  const vision = ref<Vision>('all')
  const tone = ref<'theme' | 'day' | 'evening'>('theme')
  /** Flat on the mat, or bent as it is worn. */
  const bent = ref(false)
  /** How a rope is unrolled: one of the charts of its technique; the first where none is chosen. */
  const chart = ref('')
  /** Which panel is open beside the mat. */
  const panel = ref<Panel | null>(null)
  /** What a panel would make of the part if it were done now: shown, not yet laid. */
  const ghost = shallowRef<Part | null>(null)
  const ghostTray = shallowRef<readonly TrayBead[] | null>(null)
  /** Beads that the proofreader points at, and what it says of them. */
  const lit = shallowRef<{
    readonly part: string
    readonly keys: readonly number[]
    readonly says: string
  } | null>(null)
  /**
   * Begins anew for another piece: what is selected, bent or open belongs to the one before. The clip and the tool
   * stay in the hand.
   */
  let piece: string | null = null
  function begin(id: string | null) {
    if (id === piece) return
    piece = id
    part.value = panel.value = cursor.value = hover.value = selection.value = ghost.value = ghostTray.value = null
    lit.value = null
    bent.value = wrongSide.value = turned.value = false
    symmetry.value = 'none'
    chart.value = ''
  }
  return {
    begin,
    tool,
    part,
    number,
    glyphs,
    lie,
    cursor,
    hover,
    selection,
    clip,
    says,
    say,
    symmetry,
    wrongSide,
    turned,
    look,
    vision,
    tone,
    bent,
    chart,
    panel,
    ghost,
    ghostTray,
    lit,
  }
})
