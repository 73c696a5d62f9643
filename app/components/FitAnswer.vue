<script setup lang="ts">
import { isCounted } from '#core/piece/nature'
import { computed } from 'vue'
import { feelWords, fitsWell } from '#core/fit/feel'
import { fitKindOf } from '#core/wear/kind'
import { fitOf, mustPassMm } from '#core/fit/reckon'
import { partsWith } from '#core/piece/joint'
import { pairWords } from '#core/piece/pair'
import { fittedPart, rowsOf, techniqueOf, type Piece } from '#core/piece/piece'
import { tallyPart, totalOf } from '#core/tally/tally'

import { ringSize } from '#core/units/ring-size'
import { showNumber } from '#core/units/length'
import { useLengths } from '../composables/lengths'

/** Will it fit? The answer as a sentence, with the figures in it. */
const props = defineProps<{ piece: Piece }>()
const { length } = useLengths()
const fit = computed(() => fitOf(props.piece))
const kind = computed(() => fitKindOf(props.piece.fit.kind))
const part = computed(() => fittedPart(props.piece))
/** Parts that are measured together. */
const joined = computed(() => partsWith(props.piece.parts, part.value).length)
/** Whether it is bent to a size, and does not grow by repeats. */
const bent = computed(() => techniqueOf(part.value).wire?.sizedTo !== undefined)
/** Small things need the tenth of a millimetre. */
const fine = computed(() => (fit.value.wantedMm < 100 ? 1 : 0))
const spread = computed(() => (fit.value.finishedMm.most - fit.value.finishedMm.least) / 2)
/**
 * The gauge runs from a little under the body to well over it; of a finished length, as far either side of what is
 * wanted.
 */
const from = computed(() =>
  kind.value.eases.length ? props.piece.fit.bodyMm - 10 : fit.value.wantedMm - Math.max(6, fit.value.wantedMm * 0.08),
)
const to = computed(() =>
  kind.value.eases.length
    ? props.piece.fit.bodyMm + (props.piece.fit.kind === 'choker' ? 130 : 40)
    : fit.value.wantedMm + Math.max(6, fit.value.wantedMm * 0.08),
)
const onGauge = (mm: number) => `${Math.max(0, Math.min(100, ((mm - from.value) / (to.value - from.value)) * 100))}%`
const unmeasured = computed(
  () =>
    props.piece.fit.closure.kind === 'none' && kind.value.passes !== undefined && mustPassMm(props.piece.fit) === 0,
)
const ring = computed(() => (props.piece.fit.kind === 'ring' ? ringSize(fit.value.atMm) : null))

const swatches = (count: number) => (count === 1 ? 'one swatch' : `${count} swatches`)
</script>

<template>
  <div class="answer" :class="{ wants: !fitsWell(fit.feel) }" data-test="answer">
    <strong>{{ feelWords(fit.feel, piece.fit.kind) }}</strong>
    <div class="gauge" aria-hidden="true">
      <span
        v-if="fit.reachMm > 0"
        class="reach"
        :style="{
          left: onGauge(fit.finishedMm.nominal),
          right: `calc(100% - ${onGauge(fit.finishedMm.nominal + fit.reachMm)})`,
        }"
      />
      <span
        class="span"
        :style="{ left: onGauge(fit.finishedMm.least), right: `calc(100% - ${onGauge(fit.finishedMm.most)})` }"
      />
      <span class="at" :style="{ left: onGauge(fit.atMm) }" />
      <span class="wanted" :style="{ left: onGauge(fit.wantedMm) }" />
    </div>
    <p>
      <template v-if="!isCounted(part)"
        >{{ rowsOf(part) }} rounds = {{ length(fit.beadworkMm.nominal, fine) }} of braid.</template
      >
      <template v-else-if="joined > 1"
        >{{ joined }} joined parts = {{ length(fit.beadworkMm.nominal, fine) }} of beadwork.</template
      >
      <template v-else-if="bent"
        >{{ showNumber(totalOf(tallyPart(part))) }} beads on wire =
        {{ length(fit.beadworkMm.nominal, fine) }}.</template
      >
      <template v-else
        >{{ part.times }} {{ part.times === 1 ? 'repeat' : 'repeats' }} and ends =
        {{ length(fit.beadworkMm.nominal, fine) }} of beadwork.</template
      >
      {{ kind.bend === 'round' ? 'Closes at' : kind.pieces === 2 && kind.hangs ? 'Each hangs' : 'Comes to' }}
      <b>{{ length(fit.finishedMm.nominal, fine) }}</b>&nbsp;±&nbsp;{{ length(spread, fine)
      }}<template v-if="fit.reachMm > 0"
        >, let out to {{ length(fit.finishedMm.nominal + fit.reachMm, fine) }}</template
      >; wanted {{ length(fit.wantedMm, fine) }}.
      {{ pairWords(piece) }}
      <template v-if="ring"
        >Ring size {{ showNumber(ring.iso, 1) }}, United States {{ ring.us }}, British {{ ring.gb }}.</template
      >
    </p>
    <p v-if="unmeasured" class="basis">
      <b>Nothing opens.</b> Measure {{ kind.passes!.name.toLowerCase() }}, so that it is sure to go on.
    </p>
    <p class="basis">
      {{
        fit.basis.kind === 'gauge'
          ? `By your gauge, ${swatches(fit.basis.swatches)}: ± ${showNumber(fit.basis.spread * 100, 1)} %.`
          : `By nominal bead sizes: ± ${showNumber(fit.basis.spread * 100)} % until you measure.`
      }}
    </p>
  </div>
</template>

<style scoped>
.answer {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  border-radius: var(--round);
  padding: 14px 16px;
  display: grid;
  gap: 10px;
  font-size: 14.5px;
  line-height: 1.4;
}
.answer strong {
  font: 700 18px/1.2 var(--title);
}
.wants {
  background: var(--marigold-wash);
  color: var(--marigold);
}
.gauge {
  position: relative;
  height: 10px;
  border-radius: 5px;
  background: color-mix(in srgb, currentColor 16%, transparent);
}
.span {
  position: absolute;
  inset: 0 auto;
  border-radius: 5px;
  background: currentColor;
  opacity: 0.45;
}
.reach {
  position: absolute;
  top: 3px;
  height: 4px;
  background: currentColor;
  opacity: 0.6;
}
.at {
  position: absolute;
  top: -3px;
  width: 6px;
  height: 16px;
  margin-left: -3px;
  border-radius: 3px;
  background: currentColor;
}
.wanted {
  position: absolute;
  top: -6px;
  width: 0;
  height: 22px;
  border-left: 2px dashed var(--ink);
}
.basis {
  font-size: 13.5px;
  margin-top: -4px;
}
</style>
