<script setup lang="ts">
import { isRound } from '#core/piece/nature'
import { useElementSize, usePreferredReducedMotion } from '@vueuse/core'
import { ref, watchEffect } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import { rgbOf } from '#core/colour/colour'
import { bendBand, bentSize, turnTube } from '#core/picture/bend'
import { pack } from '#core/picture/look'
import { paint } from '#core/picture/raster'
import { makeSprites } from '#core/picture/sprite'
import { sizeOnScreen } from '#core/picture/view'
import type { Part, Piece } from '#core/piece/piece'
import { useTurning } from '../composables/turning'
import { matGround } from './ground'

/** The work as it is worn: a band closed round the wrist, or a tube that turns. */
const props = defineProps<{ piece: Piece; part: Part; tray: readonly TrayBead[]; tone: 'day' | 'evening' }>()
const frame = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const motion = usePreferredReducedMotion()
const { turn, turning } = useTurning(0.9)
const tilt = ref(0.42)
const tube = () => isRound(props.part)

/** The flat picture, made again only when the work or its looks change. */
let made: { key: unknown[]; flat: { width: number; height: number; pixels: Int32Array }; scale: number } | null = null
const MOST_PIXELS = 3_000_000
function flatPicture(ground: { r: number; g: number; b: number }, wanted: number) {
  const key = [props.part, props.tray, props.tone, wanted]
  if (made?.key.every((k, i) => k === key[i])) return made
  const one = sizeOnScreen(props.part, { lie: 'level', scale: 1 })
  const scale = Math.min(wanted, Math.sqrt(MOST_PIXELS / Math.max(1, one.width * one.height)))
  const flat = {
    width: Math.max(1, Math.round(one.width * scale)),
    height: Math.max(1, Math.round(one.height * scale)),
    pixels: new Int32Array(0),
  }
  flat.pixels = new Int32Array(flat.width * flat.height)
  paint(
    flat,
    { x: 0, y: 0, width: flat.width, height: flat.height },
    props.part,
    { lie: 'level', scale, x: 0, y: 0 },
    makeSprites(props.tray, scale, { ground, glyphs: false, nap: 0 }),
  )
  made = { key, flat, scale }
  return made
}

watchEffect(() => {
  const target = canvas.value
  if (!target || width.value < 20 || height.value < 20) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  const ground = matGround(props.tone)
  const ctx = target.getContext('2d')!
  ctx.fillStyle = `rgb(${ground.r} ${ground.g} ${ground.b})`
  ctx.fillRect(0, 0, target.width, target.height)
  const one = sizeOnScreen(props.part, { lie: 'level', scale: 1 })
  const { flat, scale } = flatPicture(ground, tube() ? 14 : 10)
  const gold = rgbOf('#b58a33')
  const options = { turn: turn.value, ground: pack(ground.r, ground.g, ground.b), gap: pack(gold.r, gold.g, gold.b) }
  let bent
  if (tube()) {
    const roundPx = flat.height
    const zoom = Math.min(2, (target.width * 0.94) / flat.width, (target.height * 0.6) / (roundPx / Math.PI))
    bent = turnTube(flat, {
      ...options,
      roundPx,
      tilt: 0,
      scale: Math.max(zoom, (target.height * 0.16) / (roundPx / Math.PI)),
    })
  } else {
    const roundPx = (one.width + props.piece.fit.closure.lengthMm) * scale
    const size = bentSize(flat, { roundPx, tilt: tilt.value, scale: 1 })
    bent = bendBand(flat, {
      ...options,
      roundPx,
      tilt: tilt.value,
      scale: Math.min((target.width * 0.86) / size.width, (target.height * 0.8) / size.height),
    })
  }
  const picture = new ImageData(new Uint8ClampedArray(bent.pixels.buffer as ArrayBuffer), bent.width, bent.height)
  ctx.putImageData(
    picture,
    Math.round((target.width - Math.min(bent.width, target.width * 4)) / 2),
    Math.round((target.height - bent.height) / 2),
  )
})

let held: { x: number; y: number } | null = null
function drag(event: PointerEvent) {
  if (!held) return
  if (tube()) turn.value -= (event.clientY - held.y) * 0.012
  else {
    turn.value -= (event.clientX - held.x) * 0.008
    tilt.value = Math.max(0, Math.min(1.2, tilt.value + (event.clientY - held.y) * 0.006))
  }
  held = { x: event.clientX, y: event.clientY }
}
function keys(event: KeyboardEvent) {
  const step = { ArrowLeft: -0.12, ArrowRight: 0.12, ArrowUp: tube() ? -0.12 : 0, ArrowDown: tube() ? 0.12 : 0 }[
    event.key
  ]
  if (step === undefined) return
  event.preventDefault()
  turn.value += step
  if (!tube() && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
    tilt.value = Math.max(0, Math.min(1.2, tilt.value + (event.key === 'ArrowUp' ? 0.08 : -0.08)))
}
</script>

<template>
  <div
    ref="frame"
    class="bent"
    tabindex="0"
    role="application"
    aria-roledescription="turning view"
    :aria-label="tube() ? 'The tube; arrow keys turn it' : 'The band round a wrist; arrow keys turn and tilt it'"
    @keydown="keys"
    @pointerdown="
      (e) => {
        held = { x: e.clientX, y: e.clientY }
        ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
      }
    "
    @pointermove="drag"
    @pointerup="held = null"
    @pointercancel="held = null"
  >
    <canvas ref="canvas" />
    <p class="says">
      Drag to turn<template v-if="!tube()"> and tilt; the gold piece is the closure</template>.
      <button
        v-if="motion !== 'reduce'"
        type="button"
        class="link"
        :aria-pressed="turning"
        @click="turning = !turning"
        @pointerdown.stop
      >
        {{ turning ? 'Hold still' : 'Turn slowly' }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.bent {
  position: relative;
  overflow: hidden;
  border-radius: var(--round);
  background: var(--mat);
  touch-action: none;
  cursor: grab;
  outline-offset: -4px;
}
.bent:active {
  cursor: grabbing;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.says {
  position: absolute;
  inset: 12px auto auto 12px;
  padding: 4px 12px;
  border-radius: 8px;
  background: var(--paper);
  font-size: 13.5px;
  color: var(--soft);
  display: flex;
  gap: 12px;
  align-items: center;
}
.link {
  min-height: 32px;
}
</style>
