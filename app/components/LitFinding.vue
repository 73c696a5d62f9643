<script setup lang="ts">
import { useMat } from '../stores/mat'

/** What the light on the mat says, and the way back to where it was lit. */
defineProps<{ pieceId: string | null }>()
const mat = useMat()
</script>

<template>
  <p v-if="mat.lit" class="lit" data-test="lit">
    {{ mat.lit.says }}
    <span class="acts"
      ><NuxtLink :to="`/piece/${pieceId}/proof`">Back to the proof</NuxtLink>
      <button type="button" class="link" @click="mat.lit = null">Put the light out</button></span
    >
  </p>
</template>

<style scoped>
.lit {
  display: grid;
  gap: 4px;
  padding: 8px 12px;
  border-radius: 10px;
  background: var(--paper);
  font-size: 14px;
  line-height: 1.4;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
