<script setup lang="ts">
import type { Part, Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { useMat } from '../../stores/mat'
import MatPanel from './MatPanel.vue'
import RopeRules from '../../components/RopeRules.vue'

/** Patterns of a rope, in the place of those of a flat band. */
defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]]; says: [text: string] }>()
const mat = useMat()
</script>

<template>
  <MatPanel title="Pattern of the rope" @close="mat.panel = null">
    <RopeRules
      :piece="piece"
      :part="part"
      :number="mat.number"
      @steps="
        (label, steps, says) => {
          emit('steps', label, steps)
          emit('says', says)
        }
      "
    />
  </MatPanel>
</template>
