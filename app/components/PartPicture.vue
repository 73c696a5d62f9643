<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, watchEffect } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import { freeOf, usualBead } from '#core/piece/drawing'
import { partsWith } from '#core/piece/joint'
import type { Part } from '#core/piece/piece'
import { paint } from '#core/picture/raster'
import { makeSprites } from '#core/picture/sprite'
import { sizeOnScreen, usualLying } from '#core/picture/view'
import { boxOfWhole, paintWhole, wholeOf } from '#core/picture/whole'
import { matGround } from '../mat/ground'
import { useDayOrEvening } from '../composables/theme'

/**
 * A part lying on the mat, its beginning in sight; `close`: so near that it fills the frame. With `parts`, all that
 * hangs together with it where something hangs, as it hangs.
 */
const props = defineProps<{ part: Part; tray: readonly TrayBead[]; parts?: readonly Part[]; close?: boolean }>()
const frame = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const theme = useDayOrEvening()
/** What of work that lies freely is bare before its first bead, mm. */
function bareMm(): number {
  const free = freeOf(props.part)
  return free && free.ys.length > 0 ? Math.max(0, free.ys.reduce((least, y) => Math.min(least, y), Infinity) - 3) : 0
}

function show(target: HTMLCanvasElement, pixels: Int32Array) {
  const image = new ImageData(new Uint8ClampedArray(pixels.buffer as ArrayBuffer), target.width, target.height)
  target.getContext('2d')!.putImageData(image, 0, 0)
}

/** All that hangs together, as large as the frame takes it. */
function paintHanging(target: HTMLCanvasElement, dpr: number) {
  const { part, tray, parts } = props
  const whole = wholeOf(partsWith(parts ?? [part], part))
  const lying = usualLying(whole.placed.map((p) => p.part))
  const one = boxOfWhole(whole, part, { ...lying, scale: 1, x: 0, y: 0 })
  const room = { width: target.width - 24 * dpr, height: target.height - 24 * dpr }
  const scale = Math.max(0.5, Math.min(11 * dpr, room.width / one.width, room.height / one.height))
  const view = {
    ...lying,
    scale,
    x: Math.round((target.width - one.width * scale) / 2 - one.x * scale),
    y: Math.round((target.height - one.height * scale) / 2 - one.y * scale),
  }
  const surface = { width: target.width, height: target.height, pixels: new Int32Array(target.width * target.height) }
  const sprites = makeSprites(tray, scale, { ground: matGround(theme.value), glyphs: false, nap: 4, bare: true })
  const rect = { x: 0, y: 0, width: target.width, height: target.height }
  paintWhole(surface, rect, { part, view, whole }, sprites, sprites)
  return surface
}

watchEffect(() => {
  const target = canvas.value
  if (!target || width.value < 10 || height.value < 10) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  if (usualLying(props.parts ?? [props.part]).flip) {
    show(target, paintHanging(target, dpr).pixels)
    return
  }
  const one = sizeOnScreen(props.part, { lie: 'level', scale: 1 })
  const bead = usualBead(props.part)
  const scale = props.close
    ? (12 * dpr) / Math.min(bead.beadX, bead.beadY)
    : Math.min(11 * dpr, (target.height * 0.8) / Math.max(1, one.height))
  const surface = { width: target.width, height: target.height, pixels: new Int32Array(target.width * target.height) }
  const view = {
    lie: 'level' as const,
    scale,
    // From near the beads are looked at, not what is bare before them.
    x: Math.round((props.close ? 10 : Math.min(60, 0.06 * width.value)) * dpr - (props.close ? bareMm() : 0) * scale),
    y: Math.round((target.height - one.height * scale) / 2),
  }
  paint(
    surface,
    { x: 0, y: 0, width: target.width, height: target.height },
    props.part,
    view,
    makeSprites(props.tray, scale, { ground: matGround(theme.value), glyphs: false, nap: 4 }),
  )
  show(target, surface.pixels)
})
</script>

<template>
  <div ref="frame" class="picture" aria-hidden="true"><canvas ref="canvas" /></div>
</template>

<style scoped>
.picture {
  background: var(--mat);
  border-radius: var(--round);
  overflow: hidden;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
}
</style>
