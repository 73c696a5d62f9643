<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import type { Part } from '#core/piece/piece'
import type { Task } from '#core/making/agenda'
import { benchTray, doneOf, soFarOf } from '#core/making/sofar'
import { usualBead } from '#core/piece/drawing'
import { paint } from '#core/picture/raster'
import { makeSprites } from '#core/picture/sprite'
import { screenOfWork, sizeOnScreen, usualLying } from '#core/picture/view'
import { MARKS, matGround } from '../mat/ground'
import { useDayOrEvening } from '../composables/theme'

/** The work drawn so far: what is made faded, what comes now bright, and where the needle is. */
const props = defineProps<{ part: Part; task: Task | null; bites: number; tray: readonly TrayBead[] }>()
const frame = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const theme = useDayOrEvening()
const soFar = computed(() =>
  props.task ? soFarOf(props.task, props.bites, props.tray) : doneOf(props.part, props.tray),
)

watchEffect(() => {
  const target = canvas.value
  if (!target || width.value < 10 || height.value < 10) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  const { part, needle } = soFar.value
  const lying = { ...usualLying([part]), lie: 'upright' as const }
  const one = sizeOnScreen(part, { ...lying, scale: 1 })
  const bead = usualBead(part)
  // As large as its width allows, so that the needle's row is seen whole; never larger than a thumb.
  const least = Math.min(bead.beadX, bead.beadY)
  const scale = Math.max(
    (4 * dpr) / least,
    Math.min((26 * dpr) / least, (target.width * 0.86) / Math.max(1, one.width)),
  )
  const at = { ...lying, scale, x: 0, y: 0 }
  const tip = screenOfWork(part, at, needle.x, needle.y)
  const fits = one.width * scale <= target.width
  const view = {
    ...at,
    x: Math.round(fits ? (target.width - one.width * scale) / 2 : target.width / 2 - tip.x),
    y: Math.round(target.height * 0.3 - tip.y),
  }
  const surface = { width: target.width, height: target.height, pixels: new Int32Array(target.width * target.height) }
  const ground = matGround(theme.value)
  paint(
    surface,
    { x: 0, y: 0, width: target.width, height: target.height },
    part,
    view,
    makeSprites(benchTray(props.tray, ground), scale, { ground, glyphs: false, nap: 4 }),
  )
  const ctx = target.getContext('2d')!
  ctx.putImageData(new ImageData(new Uint8ClampedArray(surface.pixels.buffer), target.width, target.height), 0, 0)
  if (!props.task) return
  const [x, y] = [tip.x + view.x, tip.y + view.y]
  const way = (props.task.words?.direction ?? '→') === '→' ? 1 : -1
  ctx.strokeStyle = MARKS[theme.value].madder
  ctx.lineWidth = 2.5 * dpr
  ctx.beginPath()
  ctx.arc(x, y, 0.6 * Math.max(bead.beadX, bead.beadY) * scale + 2 * dpr, 0, 2 * Math.PI)
  ctx.stroke()
  // The needle comes up from behind and points where the row goes.
  ctx.strokeStyle = MARKS[theme.value].ink
  ctx.lineWidth = 2 * dpr
  ctx.lineCap = 'round'
  ctx.beginPath()
  ctx.moveTo(x - way * 44 * dpr, y - 34 * dpr)
  ctx.lineTo(x - way * 8 * dpr, y - 10 * dpr)
  ctx.stroke()
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
  position: relative;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
