<script setup lang="ts">
import { isCounted } from '#core/piece/nature'
import type { Piece } from '#core/piece/piece'

import { inkOn } from '#core/colour/colour'
import { beadPixels, lookOf } from '#core/picture/look'
import { matGround } from '../mat/ground'
import { useDayOrEvening } from '../composables/theme'
import { computed } from 'vue'
import GlyphMark from './GlyphMark.vue'

/** The tray: dishes of beads, each with its letter and name. */
const props = defineProps<{ piece: Piece; chosen: number; glyphs: boolean }>()
const emit = defineEmits<{ choose: [number: number]; edit: [number: number]; add: [] }>()
const theme = useDayOrEvening()

/** A dish of beads lying about: the bead's own pixels, turned and scattered the same way every time. */
const dishes = computed(() =>
  props.piece.tray.map((bead, k) => {
    const w = 15
    const h = 18
    const pixels = beadPixels(lookOf(bead, { glyphs: false }), matGround(theme.value), w, h, 'down')
    const canvas = document.createElement('canvas')
    canvas.width = w
    canvas.height = h
    canvas
      .getContext('2d')!
      .putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer as ArrayBuffer), w, h), 0, 0)
    const lying = Array.from({ length: 11 }, (_, i) => {
      const turn = i * 2.39996 + k
      const out = 5.4 * Math.sqrt(i)
      return { x: 29 + out * Math.cos(turn), y: 29 + out * Math.sin(turn), turn: (i * 67 + k * 31) % 180 }
    })
    return { bead, picture: canvas.toDataURL(), lying, key: k < 9 ? String(k + 1) : '' }
  }),
)
</script>

<template>
  <div class="tray" role="radiogroup" aria-label="Tray: the bead to lay">
    <div v-for="dish in dishes" :key="dish.bead.number" class="place">
      <button
        type="button"
        class="dish"
        role="radio"
        :aria-checked="dish.bead.number === chosen"
        :title="`${dish.bead.name}${dish.key ? ` · key ${dish.key}` : ''} · double-click to change`"
        @click="emit('choose', dish.bead.number)"
        @dblclick="emit('edit', dish.bead.number)"
      >
        <svg viewBox="0 0 58 58" aria-hidden="true">
          <circle cx="29" cy="29" r="27" class="rim" />
          <g v-for="(b, i) in dish.lying" :key="i" :transform="`rotate(${b.turn} ${b.x} ${b.y})`">
            <clipPath :id="`dish-${dish.bead.number}-${i}`">
              <rect :x="b.x - 5" :y="b.y - 6" width="10" height="12" rx="3" />
            </clipPath>
            <image
              :href="dish.picture"
              :x="b.x - 5"
              :y="b.y - 6"
              width="10"
              height="12"
              preserveAspectRatio="none"
              :clip-path="`url(#dish-${dish.bead.number}-${i})`"
            />
          </g>
          <g v-if="glyphs" transform="translate(17 17) scale(24)">
            <rect width="1" height="1" rx="0.2" :fill="dish.bead.colour" />
            <GlyphMark :glyph="dish.bead.glyph" :ink="inkOn(dish.bead.colour)" />
          </g>
        </svg>
        <span class="says"
          ><strong
            >{{ dish.bead.letter }}<kbd v-if="dish.key" aria-hidden="true">{{ dish.key }}</kbd></strong
          ><span>{{ dish.bead.name }}</span></span
        >
      </button>
      <button
        v-if="dish.bead.number === chosen"
        type="button"
        class="change"
        :aria-label="`Change ${dish.bead.letter} ${dish.bead.name}`"
        @click="emit('edit', dish.bead.number)"
      >
        Change
      </button>
    </div>
    <button type="button" class="dish add" @click="emit('add')">
      <span class="plus" aria-hidden="true">+</span
      ><span class="says"
        ><span>{{ piece.parts.every((p) => !isCounted(p)) ? 'Add a cord' : 'Add a bead' }}</span></span
      >
    </button>
  </div>
</template>

<style scoped>
.tray {
  display: flex;
  gap: 4px;
  align-items: center;
  overflow-x: auto;
  padding: 4px;
  scroll-padding-inline-end: 140px;
  scrollbar-width: thin;
}
.place {
  flex: none;
  display: flex;
  align-items: center;
}
.dish {
  display: flex;
  align-items: center;
  gap: 8px;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
  padding: 4px 10px 4px 4px;
  border-radius: 36px;
  min-height: 60px;
  text-align: start;
}
.dish:hover {
  background: color-mix(in srgb, var(--ink) 6%, transparent);
}
svg {
  width: 52px;
  height: 52px;
  flex: none;
}
.rim {
  fill: var(--mat);
  stroke: var(--mat-edge);
  stroke-width: 2;
}
[aria-checked='true'] .rim {
  stroke: var(--madder);
  stroke-width: 3.5;
}
.says {
  display: grid;
  line-height: 1.15;
  font-size: 14px;
  max-width: 96px;
}
.says strong {
  font: 700 18px/1.15 var(--title);
}
.change {
  border: 0;
  background: none;
  color: var(--verdigris);
  font: 13.5px/1 var(--text);
  text-decoration: underline;
  cursor: pointer;
  padding: 0 14px 0 0;
  min-height: 44px;
}
kbd {
  font: 12px/1 var(--text);
  color: var(--soft);
  margin-left: 8px;
}
.plus {
  width: 52px;
  height: 52px;
  display: grid;
  place-items: center;
  border-radius: 50%;
  border: 1.5px dashed var(--edge);
  font-size: 22px;
  color: var(--soft);
}
/* However many dishes there are: a bead more is at hand. */
.dish.add {
  flex: none;
  position: sticky;
  inset-inline-end: -4px;
  background: var(--ground);
  border-radius: 36px 0 0 36px;
}
.add .says {
  color: var(--soft);
}
@media (width <= 720px) {
  .says {
    max-width: 74px;
    font-size: 13px;
  }
  svg,
  .plus {
    width: 46px;
    height: 46px;
  }
  .dish {
    padding-inline-end: 8px;
    gap: 6px;
  }
  .tray {
    scroll-padding-inline-end: 62px;
  }
  /* Where room is short the sign says it; it is still read aloud. */
  .add .says {
    position: absolute;
    clip-path: inset(50%);
  }
}
</style>
