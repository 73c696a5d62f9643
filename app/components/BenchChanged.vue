<script setup lang="ts">
import { computed } from 'vue'
import { keyOfTask, rowListOf, type Mark } from '#core/making/agenda'
import type { ChangedPart } from '#core/making/changed'
import type { Piece } from '#core/piece/piece'

/** Made rows that the plan has otherwise now: where, and what may be done about it. */
const props = defineProps<{
  piece: Piece
  changed: readonly ChangedPart[]
  /** Where the hands are, if rows were put in before what is made. */
  moved: Mark | null
  /** The copy in hand. */
  copy: number
}>()
const emit = defineEmits<{ answer: [to: Mark | null] }>()
const says = computed(() =>
  props.changed.map((c) => (props.piece.parts.length > 1 ? `${c.says} of ${c.name}` : c.says)).join('; '),
)
const one = computed(() => props.changed.length === 1 && props.changed[0]!.rows.length === 1)
const first = computed(() => {
  const [found] = props.changed
  const part = props.piece.parts.find((p) => p.id === found?.part)
  if (!found || !part || found.rows.length === 0) return null
  return { task: keyOfTask(part.id, props.copy, rowListOf(props.piece, part).rowOf(found.rows[0]!)), bite: 0 }
})
</script>

<template>
  <div class="changed" role="alert" data-test="changed">
    <p>
      <b>Made rows differ now.</b> The plan has {{ says }} otherwise than you made {{ one ? 'it' : 'them' }}.
      <template v-if="moved">Rows were put in before what is made, or taken away there.</template>
    </p>
    <div>
      <button v-if="moved" type="button" class="button main" @click="emit('answer', moved)">
        Keep my place: what is left is the same
      </button>
      <button type="button" class="button" :class="{ main: !moved }" @click="emit('answer', null)">
        Leave what is made
      </button>
      <button v-if="first" type="button" class="button" @click="emit('answer', first)">
        Unpick to the first of them
      </button>
    </div>
  </div>
</template>

<style scoped>
.changed {
  margin-bottom: 14px;
  display: grid;
  gap: 10px;
  padding: 12px 16px;
  border-radius: var(--round-in);
  background: var(--marigold-wash);
  color: var(--marigold);
}
.changed div {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
