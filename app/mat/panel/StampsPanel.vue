<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { partOfClip } from '#core/pattern/plan'
import { copyClip } from '#core/pattern/clip'
import type { Box } from '#core/technique/lattice'
import type { Part, Piece } from '#core/piece/piece'
import { applySteps, type Step } from '#core/piece/step'
import type { Stamp } from '#core/shelf/shelf'
import { STAMP_SIDE } from '#core/shelf/shelf'
import { stampFor, stampOf } from '#core/shelf/stamp'
import { findTechnique } from '#core/technique/registry'
import { saying } from '../../composables/saying'
import { useMat } from '../../stores/mat'
import { useShelf } from '../../stores/shelf'
import PartPicture from '../../components/PartPicture.vue'
import MatPanel from './MatPanel.vue'

/** Small motifs kept with the account and laid again, in any piece. */
const props = defineProps<{ piece: Piece; part: Part; box: Box | null }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]]; says: [text: string] }>()
const mat = useMat()
const shelf = useShelf()
const name = ref('')
const busy = ref(false)

async function guarded(work: () => Promise<void>) {
  busy.value = true
  await saying(work, (text) => emit('says', text))
  busy.value = false
}
onMounted(() => guarded(() => shelf.fetch()))

const keep = () =>
  guarded(async () => {
    if (!props.box) return
    if (props.box.columns > STAMP_SIDE || props.box.rows > STAMP_SIDE) {
      emit('says', `A stamp is at most ${STAMP_SIDE} beads on a side. Select a smaller box.`)
      return
    }
    await shelf.keep([
      stampOf(
        props.piece,
        props.part,
        copyClip(props.part, props.box),
        name.value.trim() || `Stamp ${shelf.stamps.length + 1}`,
      ),
    ])
    name.value = ''
  })

function lay(stamp: Stamp) {
  const { clip, steps } = stampFor(props.piece, props.part, stamp)
  if (steps.length > 0) emit('steps', `Beads of ${stamp.name}`, steps)
  mat.clip = clip
  mat.tool = 'paste'
  emit('says', `“${stamp.name}” is in your hand: press where it belongs.${shiftNote(stamp)}`)
}

function shiftNote({ technique }: Stamp): string {
  if (technique === props.part.technique) return ''
  const made = findTechnique(technique)?.name.toLowerCase() ?? 'another stitch'
  return ` It was made in ${made}, so its edges may shift by half a bead.`
}

/** The stamp as it would lie in this part's stitch, in its own beads. */
function picture(stamp: Stamp) {
  const { clip, steps } = stampFor(props.piece, props.part, stamp)
  const next = applySteps(props.piece, steps)
  return { part: partOfClip(props.part, clip), tray: next.ok ? next.value.tray : props.piece.tray }
}
</script>

<template>
  <MatPanel title="Stamps" @close="mat.panel = null">
    <form class="keep" @submit.prevent="keep">
      <VTextField
        v-model="name"
        label="Keep the selection as"
        placeholder="Name of the stamp"
        maxlength="60"
        density="compact"
        :disabled="!box"
      />
      <button type="submit" class="button" :disabled="!box || busy">Keep</button>
    </form>
    <p v-if="!box" class="quiet">Select a box of beads to keep it as a stamp.</p>
    <ul v-if="shelf.stamps.length">
      <li v-for="item in shelf.stamps" :key="item.id">
        <button type="button" class="stamp" :aria-label="`Lay ${item.value.name}`" @click="lay(item.value)">
          <PartPicture v-bind="picture(item.value)" class="small" /><b>{{ item.value.name }}</b
          ><span class="quiet">{{ item.value.columns }} × {{ item.value.rows }}</span>
        </button>
        <button
          type="button"
          class="link"
          :aria-label="`Throw ${item.value.name} away`"
          @click="guarded(() => shelf.takeOff(item.id))"
        >
          Throw away
        </button>
      </li>
    </ul>
    <p v-else class="quiet">No stamps yet. They stay with you, for every piece.</p>
  </MatPanel>
</template>

<style scoped>
.keep {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
}
.stamp {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 0 10px;
  align-items: center;
  text-align: start;
  border: 0;
  padding: 4px;
  border-radius: 10px;
  background: var(--ground);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.stamp .small {
  grid-row: span 2;
  height: 46px;
  border-radius: 8px;
}
.link {
  min-height: 44px;
  font-size: 13.5px;
}
</style>
