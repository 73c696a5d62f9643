<script setup lang="ts">
import { usePreferredReducedMotion } from '@vueuse/core'
import { computed } from 'vue'
import { isCounted } from '#core/piece/nature'
import { discMove, discMoves, nextBeads, pauseWords } from '#core/making/disc'
import type { RowTask } from '#core/making/agenda'
import { columnsOf, rowsOf, trayByNumber, type Piece } from '#core/piece/piece'
import DiscView from './DiscView.vue'

/** The move in hand of a braid: the disc as it lies, from where to where, and the bead that is slid down. */
const props = defineProps<{ piece: Piece; task: RowTask; bite: number; turning: boolean }>()
const motion = usePreferredReducedMotion()
const part = computed(() => props.task.part)
const index = computed(() => props.task.row * columnsOf(part.value) + props.bite)
const move = computed(() => discMove(part.value, index.value)!)
const letters = computed(() => trayByNumber(props.piece.tray))
const bead = computed(() => letters.value.get(move.value.number))
const beads = computed(() => nextBeads(part.value, index.value).map((n) => letters.value.get(n)?.colour ?? ''))
const pause = computed(() => pauseWords(part.value, index.value))
const left = computed(() => discMoves(part.value) - index.value)
</script>

<template>
  <div class="move">
    <DiscView
      :disc="move.disc"
      :from="move.from"
      :to="move.to"
      :active="move.strand"
      :beads="beads"
      :turn="move.turn"
      :moving="turning && motion !== 'reduce'"
      :says="`Disc before move ${index + 1}. ${pause}`"
      class="view"
    />
    <div class="words" data-test="next">
      <h3>Strand {{ move.strand + 1 }}, {{ move.words }}</h3>
      <p class="slots">
        slot <b class="figure">{{ move.from }}</b> → <b class="figure">{{ move.to }}</b>
      </p>
      <p v-if="bead && !isCounted(part)" class="slide">
        <span class="swatch tall" :style="{ '--bead': bead.colour }" /> This is <b>{{ bead.letter }} {{ bead.name }}</b
        >: keep it taut.
      </p>
      <p v-else-if="bead" class="slide">
        <span class="swatch tall" :style="{ '--bead': bead.colour }" /> Slide one
        <b>{{ bead.letter }} {{ bead.name }}</b> down and tuck it under the crossing strand.
      </p>
      <p v-else class="slide">No bead here: braid plain.</p>
      <p class="quiet">
        Round <b data-test="round">{{ move.round }}</b> of {{ rowsOf(part) }}, move {{ move.move }} of
        {{ move.movesInRound }}; {{ left }} to go.
      </p>
    </div>
  </div>
</template>

<style scoped>
.move {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 24px;
  align-items: center;
}
.view {
  max-height: 56vh;
}
.words {
  display: grid;
  gap: 14px;
}
h3 {
  font-size: clamp(24px, 2.6vw, 34px);
  line-height: 1.15;
}
.slots {
  font-size: 20px;
}
.slots .figure {
  font-size: 40px;
}
.slide {
  font-size: 19px;
}
.tall {
  width: 24px;
  height: 34px;
  border-radius: 7px;
  vertical-align: -10px;
}
@media (width <= 720px) {
  .move {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .view {
    max-height: 25dvh;
    justify-self: center;
  }
  h3 {
    font-size: 21px;
  }
  .slots .figure {
    font-size: 30px;
  }
  .words {
    gap: 6px;
  }
}
</style>
