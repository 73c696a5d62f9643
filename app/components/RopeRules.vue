<script setup lang="ts">
import { isCounted, ropeOf } from '#core/piece/nature'
import { computed, reactive, ref } from 'vue'
import { LOADINGS, type LoadingId } from '#core/pattern/loading'
import { graduationSteps, loadingSteps, mirrorRopeSteps, ropeMoveSteps, wristSideLaying } from '#core/pattern/rope'
import { layingSteps } from '#core/piece/edit'
import { columnsOf, type Part, type Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import type { RopeMove } from '#core/technique/disc'

/**
 * What can be done to a rope as a whole: load it by a rule, graduate its ends, move the pattern round or along, mirror
 * it.
 */
const props = defineProps<{ piece: Piece; part: Part; number?: number }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[], says: string] }>()

/** Its surface, where that is known. */
const rope = computed(() => ropeOf(props.part))
const cords = computed(() => !isCounted(props.part))
const beads = computed(() => props.piece.tray.map((b) => ({ value: b.number, title: `${b.letter} ${b.name}` })))

const loading = ref<LoadingId>('rings')
const along = ref(1)
function load() {
  const wish = {
    loading: loading.value,
    numbers: props.piece.tray
      .slice(0, loading.value === 'flowers' ? 3 : Math.max(2, Math.min(4, props.piece.tray.length)))
      .map((b) => b.number),
    along: along.value,
  }
  const { steps, rounds, times } = loadingSteps(props.piece, props.part, rope.value!, wish)
  emit(
    'steps',
    LOADINGS.find((l) => l.id === loading.value)!.name,
    steps,
    `${rounds === 1 ? 'One round' : `${rounds} rounds`}, ${times} times.`,
  )
}

const grade = reactive({
  main: props.piece.tray[0]?.number ?? 1,
  accent: props.piece.tray[1]?.number ?? props.piece.tray[0]?.number ?? 1,
  plain: 8,
  each: 3,
})
const graded = computed(() => grade.plain + columnsOf(props.part) * grade.each)
const graduate = () =>
  emit(
    'steps',
    'Graduation',
    graduationSteps(props.part, {
      main: grade.main,
      accent: grade.accent,
      plainRounds: grade.plain,
      eachRounds: grade.each,
    }),
    `${graded.value} rounds at each end, the second the reverse of the first.`,
  )

const MOVES: readonly { readonly move: RopeMove; readonly label: string; readonly says: string }[] = [
  { move: 'along', label: 'Along a round', says: 'The pattern moved along by a round.' },
  { move: 'half turn', label: 'Half round', says: 'The pattern moved half round the rope.' },
  { move: 'screw', label: 'Round and along', says: 'The pattern moved round by a column and along by a step.' },
]
const move = (m: (typeof MOVES)[number]) => emit('steps', m.label, ropeMoveSteps(props.part, m.move), m.says)
const mirror = () =>
  emit(
    'steps',
    'Mirror the rope',
    mirrorRopeSteps(props.piece, props.part),
    `Mirrored: now by ${rope.value!.mirror.says}.`,
  )

const flat = ref(2)
const smooth = () =>
  emit(
    'steps',
    'Wrist side',
    layingSteps(props.part, wristSideLaying(props.part, props.number ?? grade.main, flat.value)),
    `${flat.value} lines that face the wrist are laid.`,
  )
</script>

<template>
  <div class="rules">
    <div v-if="rope && !cords" class="rule">
      <h4>Load the strands by a rule</h4>
      <VSelect
        v-model="loading"
        :items="LOADINGS.map((l) => ({ value: l.id, title: l.name }))"
        label="Loading"
        :hint="LOADINGS.find((l) => l.id === loading)!.says"
        persistent-hint
        density="compact"
      />
      <VSelect
        v-if="loading === 'rings' || loading === 'flowers'"
        v-model="along"
        :items="[1, 2, 3, 4, 5, 6, 8, 10, 12]"
        :label="loading === 'rings' ? 'Rounds of a colour' : 'Rounds from flower to flower'"
        density="compact"
      />
      <button type="button" class="button" @click="load">Load it</button>
    </div>
    <div v-if="!cords" class="rule">
      <h4>Graduate both ends</h4>
      <div class="two">
        <VSelect v-model="grade.main" :items="beads" label="From" density="compact" />
        <VSelect v-model="grade.accent" :items="beads" label="To" density="compact" />
        <VSelect
          v-model="grade.plain"
          :items="[0, 4, 8, 12, 16, 24, 32, 48, 64]"
          label="Plain rounds"
          density="compact"
        />
        <VSelect v-model="grade.each" :items="[1, 2, 3, 4, 5, 6, 8]" label="Rounds a strand" density="compact" />
      </div>
      <p class="quiet">
        One strand after the other takes the accent, {{ graded }} rounds; the repeat in the middle stays.
      </p>
      <button type="button" class="button" @click="graduate">Graduate</button>
    </div>
    <div v-if="rope || !cords" class="rule">
      <h4>Move the pattern on the rope</h4>
      <div class="acts">
        <button
          v-for="m in cords ? MOVES.slice(1) : rope ? MOVES : MOVES.slice(0, 1)"
          :key="m.move"
          type="button"
          class="button"
          @click="move(m)"
        >
          {{ m.label }}
        </button>
        <button v-if="rope" type="button" class="button" @click="mirror">Mirror, to {{ rope.mirror.says }}</button>
      </div>
    </div>
    <div v-if="rope && !cords && number" class="rule">
      <h4>The side that faces the wrist</h4>
      <VSelect
        v-model="flat"
        :items="Array.from({ length: rope.lines / 2 }, (_, k) => k + 1)"
        label="Lines in the chosen bead"
        hint="Round beads in these lines make the rope flat and smooth on the skin."
        persistent-hint
        density="compact"
      />
      <button type="button" class="button" @click="smooth">Lay these lines</button>
    </div>
  </div>
</template>

<style scoped>
.rules {
  display: grid;
  gap: 20px;
}
.rule {
  display: grid;
  gap: 10px;
}
h4 {
  font: 650 15px/1.2 var(--text);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
