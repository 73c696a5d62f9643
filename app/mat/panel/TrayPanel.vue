<script setup lang="ts">
import Sortable from 'sortablejs'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { shortened } from '#core/units/text'
import { requireSpec } from '#core/bead/spec'
import { readPalette, writePalette } from '#core/format/palette'
import type { Part, Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { addBeadsSteps, clearUnusedSteps, moveBeadSteps } from '#core/piece/tray'
import { usesOf } from '#core/tally/tally'
import { showNumber } from '#core/units/length'
import { saveFile, slug } from '../../composables/save-file'
import { useMat } from '../../stores/mat'
import MatPanel from './MatPanel.vue'

/** The tray as a list: its order, what is not used, palettes in and out. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{
  steps: [label: string, steps: readonly Step[]]
  says: [text: string]
  edit: [number: number]
}>()
const mat = useMat()
const list = ref<HTMLElement>()
const counts = computed(
  () =>
    new Map(
      props.piece.tray.flatMap((b) => {
        const uses = usesOf(props.piece, b.number)
        return uses > 0 ? [[b.number, uses]] : []
      }),
    ),
)

const move = (from: number, to: number) => {
  if (to >= 0 && to < props.piece.tray.length && from !== to)
    emit('steps', 'Order of the tray', moveBeadSteps(props.piece, from, to))
}
let sortable: Sortable | undefined
onMounted(() => {
  sortable = Sortable.create(list.value!, {
    handle: '.handle',
    animation: 140,
    onEnd({ oldIndex, newIndex, item }) {
      // The list is Vue's: what was dragged goes back, and the change of the tray brings the new order.
      const parent = item.parentElement!
      parent.insertBefore(item, parent.children[oldIndex! + (oldIndex! > newIndex! ? 1 : 0)] ?? null)
      move(oldIndex!, newIndex!)
    },
  })
})
onBeforeUnmount(() => sortable?.destroy())

const clearUnused = () => emit('steps', 'Clear unused beads', clearUnusedSteps(props.piece))

const out = () =>
  saveFile(`${slug(props.piece.name)}.gpl`, writePalette(props.piece.name, props.piece.tray), 'text/plain')
async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const palette = readPalette(await file.text(), props.part.spec)
  if (!palette.ok) {
    emit('says', palette.problems[0]!.says)
    return
  }
  const { steps, left } = addBeadsSteps(props.piece, palette.value.beads)
  if (steps.length > 0) emit('steps', shortened(`Palette ${palette.value.name}`, 80), steps)
  emit(
    'says',
    steps.length > 0
      ? `${steps.length} beads of “${palette.value.name}” put on the ` +
          `tray${left > 0 ? `; it is full, and ${left} were left out` : ''}.`
      : 'All of these beads are on the tray already.',
  )
}
</script>

<template>
  <MatPanel title="Tray" @close="mat.panel = null">
    <ol ref="list">
      <li v-for="(b, k) in piece.tray" :key="b.number" :class="{ unused: !counts.has(b.number) }">
        <span class="handle" aria-hidden="true" title="Drag to put in another order">⋮⋮</span>
        <span class="swatch" :style="{ '--bead': b.colour }" />
        <button
          type="button"
          class="link who"
          :aria-label="`Change ${b.letter} ${b.name}`"
          @click="emit('edit', b.number)"
        >
          <b>{{ b.letter }}</b> {{ b.name }}
        </button>
        <span class="quiet">{{ counts.has(b.number) ? showNumber(counts.get(b.number)!) : 'unused' }}</span>
        <span class="order"
          ><button type="button" :disabled="k === 0" :aria-label="`${b.letter} earlier`" @click="move(k, k - 1)">
            ↑</button
          ><button
            type="button"
            :disabled="k === piece.tray.length - 1"
            :aria-label="`${b.letter} later`"
            @click="move(k, k + 1)"
          >
            ↓
          </button></span
        >
        <span class="quiet spec"
          >{{ b.finish }}<template v-if="b.spec !== part.spec">, {{ requireSpec(b.spec).name }}</template></span
        >
      </li>
    </ol>
    <button type="button" class="button" @click="clearUnused">Take unused beads off</button>
    <div class="pair">
      <button type="button" class="button" @click="out">Palette out</button>
      <label class="button"
        >Palette in<input type="file" accept=".gpl,text/plain" class="hidden" aria-label="Palette in" @change="read"
      /></label>
    </div>
    <p class="quiet">Palettes are GPL text files, which drawing programs read too.</p>
  </MatPanel>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
}
li {
  display: grid;
  grid-template-columns: 20px 18px 1fr auto auto;
  gap: 0 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  background: var(--paper);
}
.handle {
  cursor: grab;
  color: var(--soft);
  letter-spacing: -3px;
  padding: 8px 0;
  touch-action: none;
}
.who {
  text-align: start;
  text-decoration: none;
  color: var(--ink);
  min-height: 32px;
  overflow-wrap: anywhere;
}
.who:hover {
  text-decoration: underline;
}
.spec {
  grid-column: 3 / -1;
  font-size: 12.5px;
}
.order button {
  width: 30px;
  height: 34px;
  border: 0;
  background: none;
  color: var(--soft);
  cursor: pointer;
  font-size: 16px;
  border-radius: 8px;
}
.order button:hover:not(:disabled) {
  background: var(--ground);
  color: var(--ink);
}
.order button:disabled {
  opacity: 0.3;
}
.unused .who {
  color: var(--soft);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.pair .button {
  padding: 0 8px;
  font-size: 14px;
}
@media (width <= 900px) {
  .order button {
    width: 44px;
    height: 44px;
  }
}
</style>
