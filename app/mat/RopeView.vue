<script setup lang="ts">
import { useElementSize, usePreferredReducedMotion } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import { requireSpec } from '#core/bead/spec'
import type { TrayBead } from '#core/bead/bead'
import { lookOf, turnedPixels } from '#core/picture/look'
import { ropeBeads } from '#core/picture/rope'
import { latticeOf } from '#core/piece/drawing'
import { ropeOf } from '#core/piece/nature'
import { rowsOf, type Part } from '#core/piece/piece'
import { useTurning } from '../composables/turning'
import { matGround } from './ground'

/**
 * The rope in space, as it comes off the disc: beads round its axis, with the twist of the model; it turns, and can be
 * turned over.
 */
const props = defineProps<{ part: Part; tray: readonly TrayBead[]; tone: 'day' | 'evening' }>()
const frame = ref<HTMLElement>()
const canvas = ref<HTMLCanvasElement>()
const { width, height } = useElementSize(frame)
const motion = usePreferredReducedMotion()
const { turn, turning } = useTurning(0)
const at = ref(0)
const rope = computed(() => ropeOf(props.part))
const twist = ref(rope.value?.twist.usual ?? 0)
/** Rows that are shown at a time: what a screen can hold of beads as beads. */
const shown = computed(() => Math.min(rowsOf(props.part), Math.max(6, Math.round(42 / latticeOf(props.part).pitchY))))
const from = computed(() => Math.max(0, Math.min(rowsOf(props.part) - shown.value, at.value)))
const SHADES = 5

/** Every bead of the tray once, in so many shades from the light in front to the edge. */
function sprites(scale: number): Map<number, HTMLCanvasElement[]> {
  const ground = matGround(props.tone)
  const lattice = latticeOf(props.part)
  return new Map(
    props.tray.map((bead) => {
      const spec = requireSpec(bead.spec)
      const [across, along] =
        lattice.hole === 'across' ? [spec.d * scale, spec.l * scale] : [spec.l * scale, spec.d * scale]
      const side = Math.ceil(Math.max(across, along) * 1.2) + 2
      const pixels = turnedPixels(
        lookOf(bead, { glyphs: false }),
        ground,
        side,
        side,
        across,
        along,
        0,
        lattice.hole === 'across' ? 'down' : 'across',
      )
      const one = document.createElement('canvas')
      one.width = one.height = side
      one
        .getContext('2d')!
        .putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer as ArrayBuffer), side, side), 0, 0)
      return [
        bead.number,
        Array.from({ length: SHADES }, (_, k) => {
          const shade = document.createElement('canvas')
          shade.width = shade.height = side
          const ctx = shade.getContext('2d')!
          ctx.drawImage(one, 0, 0)
          ctx.globalCompositeOperation = 'source-atop'
          ctx.fillStyle = `rgba(20, 14, 10, ${k * 0.14})`
          ctx.fillRect(0, 0, side, side)
          return shade
        }),
      ]
    }),
  )
}

let kept: { key: unknown[]; images: Map<number, HTMLCanvasElement[]> } | null = null

watchEffect(() => {
  const target = canvas.value
  if (!target || width.value < 20 || height.value < 20) return
  const dpr = window.devicePixelRatio || 1
  target.width = Math.round(width.value * dpr)
  target.height = Math.round(height.value * dpr)
  const ctx = target.getContext('2d')!
  const ground = matGround(props.tone)
  ctx.fillStyle = `rgb(${ground.r} ${ground.g} ${ground.b})`
  ctx.fillRect(0, 0, target.width, target.height)
  const beads = ropeBeads(props.part, {
    from: from.value,
    to: from.value + shown.value,
    turn: turn.value,
    windDegrees: rope.value?.wind(twist.value) ?? 0,
  })
  const longest = beads.reduce((most, b) => Math.max(most, b.along), 1)
  const radius = beads.reduce((most, b) => Math.max(most, Math.abs(b.across)), 1)
  const scale = Math.min((target.width * 0.9) / (longest + 4), (target.height * 0.5) / (2 * radius + 4), 40 * dpr)
  const key = [props.tray, props.tone, scale, props.part.spec, props.part.technique]
  if (!kept?.key.every((k, i) => k === key[i])) kept = { key, images: sprites(scale) }
  const [x0, y0] = [(target.width - longest * scale) / 2, target.height / 2]
  // The cords inside hide what lies behind.
  const core = ctx.createLinearGradient(0, y0 - radius * scale, 0, y0 + radius * scale)
  core.addColorStop(0, 'rgba(30, 24, 20, 0.95)')
  core.addColorStop(0.5, 'rgba(84, 70, 58, 0.95)')
  core.addColorStop(1, 'rgba(30, 24, 20, 0.95)')
  ctx.fillStyle = core
  ctx.beginPath()
  ctx.roundRect(x0 - scale, y0 - radius * 0.96 * scale, (longest + 2) * scale, radius * 1.92 * scale, radius * scale)
  ctx.fill()
  // The length runs to the right; what goes round grows downward.
  for (const b of beads.filter((one) => one.depth > -0.3 * radius)) {
    const images = kept.images.get(b.number)
    if (!images) continue
    const shade = images[Math.min(SHADES - 1, Math.floor((1 - (b.depth / radius + 1) / 2) * SHADES))]!
    ctx.save()
    ctx.translate(x0 + b.along * scale, y0 + b.across * scale)
    ctx.scale(1.1, 1.1 * b.narrow)
    ctx.rotate((-b.turnDegrees * Math.PI) / 180)
    ctx.drawImage(shade, -shade.width / 2, -shade.height / 2)
    ctx.restore()
  }
})

let held: number | null = null
const drag = (event: PointerEvent) => {
  if (held === null) return
  turn.value += (event.clientY - held) * 0.012
  held = event.clientY
}
function keys(event: KeyboardEvent) {
  if (event.target !== event.currentTarget) return
  const by = { ArrowUp: -0.12, ArrowDown: 0.12 }[event.key]
  const along = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (by === undefined && along === undefined) return
  event.preventDefault()
  if (by !== undefined) turn.value += by
  else at.value = from.value + along! * Math.max(1, Math.round(shown.value / 8))
}
const wrist = computed(() => Math.cos(turn.value) < 0)
</script>

<template>
  <div
    ref="frame"
    class="bent"
    tabindex="0"
    role="application"
    aria-roledescription="turning view"
    aria-label="The rope; up and down turn it, left and right go along it"
    @keydown="keys"
    @pointerdown="
      (e) => {
        held = e.clientY
        ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
      }
    "
    @pointermove="drag"
    @pointerup="held = null"
    @pointercancel="held = null"
  >
    <canvas ref="canvas" />
    <div class="says" @pointerdown.stop>
      <span>Drag to turn.</span>
      <button
        v-if="motion !== 'reduce'"
        type="button"
        class="link"
        :aria-pressed="turning"
        @click="turning = !turning"
      >
        {{ turning ? 'Hold still' : 'Turn slowly' }}
      </button>
      <button type="button" class="link" @click="turn = wrist ? 0 : Math.PI">
        {{ wrist ? 'Show the outside' : 'Show the wrist side' }}
      </button>
      <label v-if="rope"
        >Twist {{ rope.twist.hand > 0 ? '+' : '−' }}{{ -twist }}° a round
        <input
          v-model.number="twist"
          type="range"
          min="-150"
          max="-60"
          step="2"
          aria-label="Twist of the model, degrees a round"
      /></label>
      <label v-if="shown < rowsOf(part)"
        >From {{ from + 1 }}
        <input
          :value="from"
          type="range"
          min="0"
          :max="rowsOf(part) - shown"
          aria-label="First row that is shown"
          @input="
            (e) => {
              at = Number((e.target as HTMLInputElement).value)
            }
          "
      /></label>
    </div>
    <p v-if="rope" class="model quiet">
      A model: ropes of eight strands twist about 96° a round, ten more or less by the hand that braids.
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
  inset: 12px 12px auto 12px;
  width: fit-content;
  padding: 4px 14px;
  border-radius: 8px;
  background: var(--paper);
  font-size: 14px;
  color: var(--ink);
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  cursor: default;
}
.link {
  min-height: 32px;
}
label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  min-height: 32px;
}
input[type='range'] {
  width: 110px;
  accent-color: var(--madder);
}
.model {
  position: absolute;
  inset: auto 16px 66px 16px;
  color: var(--ink);
}
</style>
