<script setup lang="ts">
import { computed, ref } from 'vue'
import type { BoardLine } from '#core/making/board'
import { alikeOn } from '#core/making/board'
import { techniqueOf, type Part, type Piece } from '#core/piece/piece'
import RowWords from './RowWords.vue'

/** Lines that are made in any order, each a slot of a board: looked at, and ticked off as it is filled. */
const props = defineProps<{ piece: Piece; part: Part; board: readonly BoardLine[] }>()
const emit = defineEmits<{ tick: [rows: number[], done: boolean]; take: [row: number] }>()
const word = computed(() => techniqueOf(props.part).words.line)
const chosen = ref<number | null>(null)
const line = computed(() => props.board.find(({ row }) => row === chosen.value) ?? null)
/** Others that hold the same, not yet filled. */
const alike = computed(() =>
  line.value
    ? alikeOn(props.board, line.value).filter((row) =>
        props.board.some((one) => one.row === row && !one.made && !one.now),
      )
    : [],
)
const filled = computed(() => props.board.filter(({ made }) => made).length)
const stateOf = ({ made, now }: BoardLine): string => (made ? 'filled' : now ? 'in hand' : 'empty')
</script>

<template>
  <section class="board" :aria-label="`Board of ${word}s`">
    <h3>
      {{ filled }} of {{ board.length }} {{ word }}s filled <span class="quiet">in any order: press a number</span>
    </h3>
    <div v-if="line" class="line" data-test="board-line">
      <RowWords :words="line.words" :piece="piece" />
      <p v-if="!line.made && alike.length > 1" class="quiet">
        Alike and empty:
        {{
          alike
            .slice(0, 12)
            .map((row) => row + 1)
            .join(', ')
        }}{{ alike.length > 12 ? ' …' : '' }}
      </p>
      <p class="acts">
        <template v-if="!line.made && !line.now">
          <button type="button" class="button" @click="emit('tick', [line.row], true)">It is filled</button>
          <button v-if="alike.length > 1" type="button" class="button" @click="emit('tick', alike, true)">
            All {{ alike.length }} alike are filled
          </button>
        </template>
        <button v-else-if="line.early" type="button" class="button" @click="emit('tick', [line.row], false)">
          It is not filled
        </button>
        <button v-else-if="line.made" type="button" class="button" @click="emit('take', line.row)">
          Take it in hand again
        </button>
        <span v-else class="quiet">This one is in hand.</span>
      </p>
    </div>
    <ul>
      <li v-for="one in board" :key="one.row">
        <button
          type="button"
          :class="{ made: one.made, now: one.now, chosen: one.row === chosen }"
          :aria-label="`${word} ${one.row + 1}, ${stateOf(one)}`"
          :aria-pressed="one.row === chosen"
          @click="chosen = chosen === one.row ? null : one.row"
        >
          {{ one.row + 1 }}<span v-if="one.made" aria-hidden="true" class="check">✓</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.board {
  display: grid;
  gap: 12px;
}
h3 {
  font-size: 17px;
}
h3 .quiet {
  font-weight: 400;
  padding-inline-start: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 10px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(44px, 1fr));
  gap: 5px;
  background: var(--mat);
  border-radius: var(--round);
  max-height: 38dvh;
  overflow-y: auto;
}
li button {
  position: relative;
  width: 100%;
  min-height: 44px;
  border: 1.5px solid var(--line);
  border-radius: 8px;
  background: var(--ground);
  color: var(--ink);
  font: 600 16px/1 var(--title);
  cursor: pointer;
}
.made {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  border-color: transparent;
}
.check {
  position: absolute;
  inset-block-start: 3px;
  inset-inline-end: 4px;
  font-size: 11px;
}
.now {
  border-color: var(--madder);
  border-width: 2.5px;
}
.chosen {
  outline: 3px solid var(--ink);
  outline-offset: 1px;
}
.line {
  display: grid;
  gap: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
