<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { beginBracelet, usualClosure } from '#core/piece/begin'
import { makeSprites, paint, sizeOnScreen } from '#core/picture/raster'
import { matGround } from '../mat/ground'
import { useDayOrEvening } from '../composables/theme'

/** A band on the mat, drawn by the same renderer as the work itself: the picture of the way in. */
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(canvas)
const theme = useDayOrEvening()
const piece = beginBracelet({ name: 'Welcome', wearer: '', wristMm: 330, easeMm: 13, closure: usualClosure('toggle'), widthMm: 32, technique: 'peyote', spec: 'cylinder-11', motif: 'diamonds', start: 'left' })

function draw() {
  const target = canvas.value
  if (!target || width.value < 10) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  const options = { ground: matGround(theme.value), glyphs: false, nap: 4 }
  const part = piece.parts[0]!
  const scale = Math.max(5, Math.min(13, height.value / 44)) * dpr
  const size = sizeOnScreen(part, { lie: 'along', scale })
  const surface = { width: target.width, height: target.height, pixels: new Int32Array(target.width * target.height) }
  paint(surface, { x: 0, y: 0, width: target.width, height: target.height }, part, { lie: 'along', scale, x: Math.round(target.width * 0.08), y: Math.round((target.height - size.height) / 2) }, makeSprites(piece.tray, scale, 'along', options))
  target.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(surface.pixels.buffer), target.width, target.height), 0, 0)
}
onMounted(draw)
watch([width, height, theme], draw)
</script>

<template>
  <canvas ref="canvas" />
</template>

<style scoped>
canvas { width: 100%; height: 100%; display: block; }
</style>
