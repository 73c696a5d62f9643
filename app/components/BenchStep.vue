<script setup lang="ts">
import { computed } from 'vue'
import type { Bite, RowTask, Task } from '#core/making/agenda'
import { titleOf } from '#core/making/say'
import { trayByNumber, type Piece } from '#core/piece/piece'
import { asides, asWords, GAP, rowTitle, runText } from '#core/tally/words'
import { markedRows } from '#core/proof/marks'
import { wanting } from '#core/proof/proof'
import { shownSteps } from '#core/tally/strips'
import { usePiece } from '../stores/piece'
import { useProof } from '../stores/proof'
import StepStrip from './StepStrip.vue'
import ToldSteps from './ToldSteps.vue'

/** The step in hand, large: its words with bead pictures, what is strung of it, and what follows. */
const props = defineProps<{
  piece: Piece
  task: RowTask
  bites: readonly Bite[]
  /** Bites that are done. */
  bite: number
  /** Whether one goes run by run. */
  running: boolean
  next: Task | null
  copies: number
}>()
const tray = computed(() => trayByNumber(props.piece.tray))
/** What the proofreader says of the row in hand, of the plan that is worked. */
const proof = useProof()
const store = usePiece()
const look = computed(() => {
  const { part, row } = props.task
  const own = store.piece?.parts.find((p) => p.id === part.id)
  return own?.repeat === part.repeat ? markedRows(part, wanting({ open: proof.open })).get(row)?.says : undefined
})
/** The steps with their pictures, where there are any. */
const pictured = computed(() => shownSteps(props.task.part, props.task.row))
const nextRuns = computed(() => props.next?.words?.runs.slice(0, 12) ?? [])
const laid = computed(() => props.bites[props.bite]?.before ?? 0)
</script>

<template>
  <div class="step">
    <p class="which">
      <strong
        >{{ rowTitle(task.words) }} <span class="way" aria-hidden="true">{{ task.words.direction }}</span><span
          class="hidden"
          >{{ task.words.direction === '→' ? 'left to right' : 'right to left' }}</span
        ></strong
      >
      <span class="of"
        ><template v-if="copies > 1">{{ task.copy }} of {{ copies }} · </template
        ><template v-if="piece.parts.length > 1">{{ task.part.name }} · </template
        ><b class="figure" data-test="beads">{{ task.words.beads }}</b> {{ task.words.beads === 1 ? 'bead' : 'beads'
        }}<template v-if="bite > 0"> · {{ task.words.beads - laid }} to go</template></span
      >
    </p>
    <p v-if="look" class="look"><span aria-hidden="true">◆ </span>Before you work it: {{ look }}</p>
    <p v-if="task.words.as" class="as">{{ asWords(task.words) }}</p>
    <StepStrip
      v-if="pictured.some((step) => step.picture)"
      :piece="piece"
      :part="task.part"
      :steps="pictured"
      :done="running ? bite : 0"
      large
      data-test="runs"
    />
    <ToldSteps
      v-else-if="task.words.told"
      :told="task.words.told"
      :tray="tray"
      :done="running ? bite : 0"
      large
      data-test="runs"
    />
    <ol v-else class="runs" data-test="runs">
      <li
        v-for="(b, k) in bites"
        :key="k"
        :class="{ done: k < bite, now: running && k === bite }"
        :aria-current="running && k === bite ? 'step' : undefined"
      >
        <span
          v-if="b.number !== 0"
          class="bead"
          :style="{ '--bead': tray.get(b.number)?.colour }"
          aria-hidden="true"
        />
        <span class="count"
          ><b>{{ b.count }}</b
          >{{ b.number === 0 ? GAP : tray.get(b.number)?.letter }}</span
        ><span class="hidden"
          >{{ b.number === 0 ? 'empty' : tray.get(b.number)?.name }}{{ k < bite ? ', strung' : '' }}</span
        >
      </li>
    </ol>
    <ul v-if="!task.words.told && asides(task.words).length" class="asides">
      <li v-for="text in asides(task.words)" :key="text">{{ text }}</li>
    </ul>
    <p v-if="next" class="then">
      Then {{ titleOf(next).charAt(0).toLowerCase() + titleOf(next).slice(1) }} {{ next.words?.direction }}
      <template v-if="next.part.id !== task.part.id">of {{ next.part.name }} </template>
      <span v-for="(run, k) in nextRuns" :key="k" class="small">{{ runText(run, tray) }}</span><span
        v-if="(next.words?.runs.length ?? 0) > nextRuns.length"
      >
        …</span
      >
    </p>
  </div>
</template>

<style scoped src="./bench-step.css" />
<style scoped>
.step {
  display: grid;
  gap: clamp(12px, 2.4vh, 26px);
  align-content: start;
  min-width: 0;
}
.look {
  color: var(--marigold);
  font-size: 15px;
}
.way {
  color: var(--madder);
}
.of .figure {
  font-size: 1.35em;
  color: var(--ink);
}
.runs {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 0;
  padding: 0;
}
.runs li {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  padding: 8px 16px 8px 10px;
  border-radius: 14px;
  background: var(--paper);
  min-height: 60px;
}
.runs .bead {
  width: 26px;
  height: 36px;
  border-radius: 8px;
  background: linear-gradient(100deg, rgb(255 255 255 / 36%), transparent 45%, rgb(0 0 0 / 26%)), var(--bead);
  box-shadow: inset 0 0 0 1px rgb(0 0 0 / 18%);
}
.count {
  font: 650 clamp(28px, 3.2vw, 40px) / 1 var(--title);
  font-variant-numeric: tabular-nums;
}
.runs .done {
  opacity: 0.45;
  text-decoration: line-through;
  text-decoration-thickness: 3px;
}
.runs .now {
  box-shadow: 0 0 0 4px var(--madder);
}
.asides {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  margin: 0;
  padding: 0;
  font-size: clamp(18px, 1.9vw, 24px);
  font-weight: 700;
  color: var(--verdigris);
}
.small {
  margin-left: 10px;
  font-weight: 650;
  color: var(--ink);
}
@media (width <= 720px) {
  .runs {
    gap: 8px;
  }
  .runs li {
    min-height: 52px;
    padding: 4px 12px 4px 8px;
    gap: 8px;
  }
  .runs .bead {
    width: 22px;
    height: 32px;
  }
}
</style>
