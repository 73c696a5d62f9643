<script setup lang="ts">
import { isCounted } from '#core/piece/nature'
import { computed } from 'vue'
import { trayByNumber, type Piece } from '#core/piece/piece'

import { asides, asWords, GAP, rowTitle, type RowWords } from '#core/tally/words'
import ToldSteps from './ToldSteps.vue'

/** The words of one working row: number, direction, count, and the runs with their colours. */
const props = defineProps<{
  words: RowWords
  piece: Piece
  large?: boolean
  brief?: boolean
  /** What the proofreader says of this row. */
  mark?: string | undefined
}>()
/** Rounds of a plain braid have crossings of cords, no beads. */
const crossings = computed(() => props.piece.parts.every((p) => !isCounted(p)))
const tray = computed(() => trayByNumber(props.piece.tray))
</script>

<template>
  <div class="words" :class="{ large, brief }">
    <div class="which">
      <strong
        >{{ rowTitle(words) }}
        <span class="way"
          >{{ words.direction
          }}<span class="hidden">{{ words.direction === '→' ? ' left to right' : ' right to left' }}</span></span
        ><span v-if="mark" class="look" :title="mark"
          ><span aria-hidden="true"> ◆</span><span class="hidden">Wants a look: {{ mark }}</span></span
        ></strong
      >
      <span class="quiet">{{ words.beads }} {{ crossings ? 'crossings' : words.beads === 1 ? 'bead' : 'beads' }}</span>
    </div>
    <p v-if="words.as && !brief" class="as">{{ asWords(words) }}</p>
    <ToldSteps v-else-if="words.told && !brief" :told="words.told" :tray="tray" />
    <ol v-else>
      <li v-for="(run, k) in words.runs" :key="k">
        <span class="run">{{ run.count }}{{ run.number === 0 ? GAP : tray.get(run.number)?.letter }}</span>
        <span
          v-if="run.number !== 0"
          class="swatch"
          :style="{ '--bead': tray.get(run.number)?.colour }"
          aria-hidden="true"
        /><span v-else class="hidden">empty</span>
      </li>
      <li v-if="brief && words.told && words.told.length > 1" class="aside">
        {{ words.told.length }} steps, see Tally
      </li>
      <li v-for="text in brief && words.told ? [] : asides(words)" :key="text" class="aside">{{ text }}</li>
    </ol>
  </div>
</template>

<style scoped>
.words {
  display: flex;
  gap: 18px;
  align-items: center;
  min-width: 0;
}
.look {
  color: var(--marigold);
  cursor: help;
}
/* Of a long list the head stays in sight. */
.brief .which {
  position: sticky;
  top: 0;
  align-self: start;
}
p.as {
  margin: 0;
  color: var(--soft);
}
.which {
  display: grid;
  flex: none;
  min-width: 108px;
}
.which strong {
  font: 650 17px/1.2 var(--title);
  white-space: nowrap;
}
ol {
  list-style: none;
  display: flex;
  gap: 4px 14px;
  margin: 0;
  padding: 0;
  flex-wrap: wrap;
}
li {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.run {
  font: 650 17px/1.3 var(--title);
}
li.aside {
  color: var(--verdigris);
  font-weight: 700;
  font-size: 14.5px;
}
.large .run {
  font-size: 20px;
}
</style>
