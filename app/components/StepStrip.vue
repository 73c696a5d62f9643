<script setup lang="ts">
import { computed } from 'vue'
import { trayByNumber, type Part, type Piece } from '#core/piece/piece'
import type { ShownStep } from '#core/tally/strips'
import StepRuns from './StepRuns.vue'
import StepPictureView from './StepPictureView.vue'

/** Steps one beside the other: each as it looks, with its words. */
const props = defineProps<{ piece: Piece; part: Part; steps: readonly ShownStep[]; large?: boolean; done?: number }>()
const tray = computed(() => trayByNumber(props.piece.tray))
/** Runs of the steps before each. */
const firsts = computed(() => {
  let sum = 0
  return props.steps.map(({ words }) => {
    const first = sum
    sum += words.runs.length
    return first
  })
})
const isOver = (k: number) =>
  (props.steps[k]!.words.runs.length > 0 || k + 1 < props.steps.length) &&
  (props.done ?? 0) > 0 &&
  firsts.value[k]! + props.steps[k]!.words.runs.length <= props.done!
</script>

<template>
  <ol class="strip" :class="{ large }">
    <li v-for="({ words, picture }, k) in steps" :key="k" :class="{ over: isOver(k) }">
      <div v-if="picture" class="frame" :class="{ tall: picture.lines.length }">
        <StepPictureView :part="part" :picture="picture" :tray="tray" />
      </div>
      <p>
        <b class="nth" aria-hidden="true">{{ k + 1 }}</b>
        <span class="says">
          <span v-if="words.who" class="who">{{ words.who }}</span>
          <StepRuns v-if="words.runs.length" :runs="words.runs" :tray="tray" :done="(done ?? 0) - firsts[k]!" />
          <span v-else>{{ words.says }}</span>
          <span v-if="words.note" class="quiet">{{ words.note }}</span>
        </span>
      </p>
    </li>
  </ol>
</template>

<style scoped>
.strip {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 10px;
  min-width: 0;
}
li {
  display: grid;
  grid-template-rows: auto 1fr;
  align-content: start;
  gap: 8px;
  padding: 8px 10px 10px;
  border-radius: 12px;
  background: var(--paper);
  min-width: 0;
  break-inside: avoid;
}
.frame {
  height: 96px;
  border-radius: 8px;
  background: color-mix(in srgb, var(--mat) 34%, var(--paper));
  padding: 6px;
}
/* A whole frame is seen at once. */
.frame.tall {
  height: 170px;
}
p {
  display: flex;
  gap: 10px;
  margin: 0;
  font-size: 14.5px;
  line-height: 1.35;
}
.nth {
  font: 650 15px/1.3 var(--title);
  color: var(--soft);
}
.says {
  display: flex;
  flex-wrap: wrap;
  align-content: start;
  gap: 2px 10px;
  min-width: 0;
}
.who {
  width: 100%;
  color: var(--soft);
  font-size: 0.9em;
}
.says > .quiet {
  width: 100%;
}
.over {
  opacity: 0.45;
}
.large {
  grid-template-columns: repeat(auto-fill, minmax(205px, 1fr));
}
.large .frame {
  height: clamp(84px, 13vh, 150px);
}
.large p {
  font-size: clamp(16px, 1.35vw, 19px);
}
.large :deep(b) {
  font-size: clamp(20px, 1.9vw, 27px);
}
.large .nth {
  font-size: 1em;
}
.large :deep(.swatch) {
  width: 16px;
  height: 21px;
}
@media (width <= 600px) {
  .strip {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    grid-template: auto / 128px minmax(0, 1fr);
    align-items: center;
  }
  .frame {
    height: 84px;
  }
  .large .frame {
    height: 104px;
  }
}
@media print {
  li {
    border: 1px solid #ccc;
  }
}
</style>
