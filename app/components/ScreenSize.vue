<script setup lang="ts">
import { computed } from 'vue'
import { CARD, PLAIN_PX_PER_MM } from '#core/units/screen'
import { showNumber } from '#core/units/length'
import { useScreen } from '../composables/screen'

/** Measures the screen with a bank card, so that “true size” is true. */
const { cardPx, measured, pxPerMm } = useScreen()
const width = computed({
  get: () => cardPx.value || Math.round(CARD.widthMm * PLAIN_PX_PER_MM),
  set: (px: number) => {
    cardPx.value = px
  },
})
</script>

<template>
  <div class="screen">
    <h2>True size on this screen</h2>
    <p class="soft">
      Hold a bank card (85.60 × 53.98 mm) against the shape and move the slider until both are equally wide.
    </p>
    <div
      class="card"
      :style="{ width: `${width}px`, height: `${(width * CARD.heightMm) / CARD.widthMm}px` }"
      aria-hidden="true"
    >
      <span>{{ showNumber(CARD.widthMm, 1) }} mm</span>
    </div>
    <div class="row">
      <button type="button" class="button" aria-label="A little narrower" @click="width -= 1">−</button>
      <input
        v-model.number="width"
        type="range"
        min="160"
        max="760"
        step="1"
        aria-label="Width of the card on the screen, in pixels"
      />
      <button type="button" class="button" aria-label="A little wider" @click="width += 1">+</button>
    </div>
    <p class="quiet">
      {{
        measured
          ? `Measured: ${showNumber(pxPerMm, 2)} pixels a millimetre.`
          : 'Not measured yet: 96 pixels are taken for an inch.'
      }}
      <button v-if="measured" type="button" class="link" @click="cardPx = 0">Forget it</button>
    </p>
  </div>
</template>

<style scoped>
.screen {
  display: grid;
  gap: 14px;
  border-top: 1px solid var(--line);
  padding-top: 20px;
  overflow-x: auto;
}
.card {
  border-radius: 12px;
  background: linear-gradient(120deg, var(--mat), var(--mat-edge));
  display: grid;
  place-items: end;
  padding: 10px 14px;
  box-sizing: border-box;
  color: var(--ink);
  font-size: 13.5px;
}
.row {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 12px;
  align-items: center;
  max-width: 480px;
}
input {
  accent-color: var(--madder);
  width: 100%;
  height: 44px;
}
</style>
