<script setup lang="ts">
import { usualClosure } from '#core/wear/closure'
import { beginPiece } from '#core/begin/begin'
import PartPicture from './PartPicture.vue'

/** A band on the mat, drawn by the renderer of the work itself: the picture of the way in. */
const piece = beginPiece({
  kind: 'bracelet',
  name: 'Welcome',
  wearer: '',
  bodyMm: 330,
  easeMm: 13,
  closure: usualClosure('toggle'),
  widthMm: 32,
  technique: 'peyote',
  spec: 'cylinder-11',
  motif: 'diamonds',
  start: 'left',
})
</script>

<template>
  <PartPicture :part="piece.parts[0]!" :tray="piece.tray" class="welcome" />
</template>

<style scoped>
.welcome {
  width: 100%;
  height: 100%;
}
</style>
