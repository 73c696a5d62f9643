<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, watchEffect } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import { usualBead } from '#core/piece/drawing'
import { isInside, lengthOfLine, rowsOf, type Part } from '#core/piece/piece'
import { paint } from '#core/picture/raster'
import { makeSprites } from '#core/picture/sprite'
import { rectOfCell, sizeOnScreen, usualLying, type View } from '#core/picture/view'
import { MARKS, matGround } from '../mat/ground'
import type { Spot } from '#core/proof/found'
import { placeOfSpot } from '#core/proof/spots'
import { useDayOrEvening } from '../composables/theme'

/** A part near some of its beads, these ringed; the whole of it where it is small or none are named. */
const props = defineProps<{
  part: Part
  tray: readonly TrayBead[]
  /** What is looked at. */
  spots: readonly Spot[]
  /** Whether it is marked: beads ringed, whole lines framed. */
  marked: boolean
  says: string
}>()
const frame = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const theme = useDayOrEvening()

/** Beads that are ringed one by one at most. */
const MOST_RINGS = 400

watchEffect(() => {
  const target = canvas.value
  const { part } = props
  if (!target || width.value < 10 || height.value < 10) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  const usual = usualLying([part])
  const lying = usual.flip ? { ...usual, lie: 'upright' as const } : { lie: 'level' as const }
  const unit = sizeOnScreen(part, { ...lying, scale: 1 })
  const bead = usualBead(part)
  const whole = Math.min(
    (target.width * 0.9) / Math.max(1, unit.width),
    (target.height * 0.9) / Math.max(1, unit.height),
  )
  // Beads can be told apart, and no bead is larger than a thumb.
  const least = Math.min(bead.beadX, bead.beadY)
  const scale = Math.max((11 * dpr) / least, Math.min((30 * dpr) / least, whole))
  const at = { ...lying, scale, x: 0, y: 0 }
  /** A bead, or a whole line from its first bead to its last, on the screen. */
  const rectOf = (spot: Spot, seen: View) => {
    const { c, r } = placeOfSpot(part, spot)
    const first = rectOfCell(part, seen, c, r)
    if (spot.c !== null) return first
    const last = rectOfCell(part, seen, Math.max(0, lengthOfLine(part, r) - 1), r)
    const [x, y] = [Math.min(first.x, last.x), Math.min(first.y, last.y)]
    return {
      ...{ x, y },
      width: Math.max(first.x + first.width, last.x + last.width) - x,
      height: Math.max(first.y + first.height, last.y + last.height) - y,
    }
  }
  const spots = props.spots.slice(0, MOST_RINGS).filter((spot) => {
    const place = placeOfSpot(part, spot)
    return place.r < rowsOf(part) && isInside(part, place)
  })
  const rects = spots.map((spot) => rectOf(spot, at))
  const fits = (room: number, size: number) => size <= room
  const [w, h] = [unit.width * scale, unit.height * scale]
  const centre = (low: (typeof rects)[number][], key: 'x' | 'y', size: 'width' | 'height') =>
    low.length === 0 ? 0 : (Math.min(...low.map((q) => q[key])) + Math.max(...low.map((q) => q[key] + q[size]))) / 2
  const hold = (room: number, size: number, wanted: number) =>
    fits(room, size) ? (room - size) / 2 : Math.min(16 * dpr, Math.max(room - size - 16 * dpr, room / 2 - wanted))
  const view = {
    ...at,
    x: Math.round(hold(target.width, w, centre(rects, 'x', 'width'))),
    y: Math.round(hold(target.height, h, centre(rects, 'y', 'height'))),
  }
  const surface = { width: target.width, height: target.height, pixels: new Int32Array(target.width * target.height) }
  paint(
    surface,
    { x: 0, y: 0, width: target.width, height: target.height },
    part,
    view,
    makeSprites(props.tray, scale, { ground: matGround(theme.value), glyphs: false, nap: 4 }),
  )
  const ctx = target.getContext('2d')!
  ctx.putImageData(new ImageData(new Uint8ClampedArray(surface.pixels.buffer), target.width, target.height), 0, 0)
  for (const spot of props.marked ? spots : []) {
    const box = rectOf(spot, view)
    for (const [colour, line] of [
      [MARKS[theme.value].paper, 4.5],
      [MARKS[theme.value].madder, 2.2],
    ] as const) {
      ctx.strokeStyle = colour
      ctx.lineWidth = line * dpr
      ctx.beginPath()
      ctx.roundRect(box.x - dpr, box.y - dpr, box.width + 2 * dpr, box.height + 2 * dpr, 5 * dpr)
      ctx.stroke()
    }
  }
})
</script>

<template>
  <figure class="proof-picture">
    <div ref="frame" class="frame" role="img" :aria-label="says"><canvas ref="canvas" /></div>
    <figcaption class="quiet">{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
.proof-picture {
  margin: 0;
  display: grid;
  gap: 4px;
}
.frame {
  height: 190px;
  background: var(--mat);
  border-radius: var(--round-in);
  overflow: hidden;
  position: relative;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
