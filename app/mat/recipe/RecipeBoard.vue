<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { beadOutline, beadTransform } from '#core/picture/outline'
import { ordinal } from '#core/units/ordinal'
import { portOfPictured, portPressed } from '#core/technique/recipe-board'
import { reachOfAll, shownNodes, wayOf } from '#core/technique/step-picture'
import type { Node, Port } from '#core/recipe/run'
import type { RecipeWork } from './work'

/**
 * A motif with its neighbours, to work on with the hands: the end of a hole that is pressed is entered next; a drag
 * over several goes through them all. What is not strung yet at this step is pale.
 */
const props = defineProps<{ work: RecipeWork }>()
const EDGE_MM = 2.4
const svg = ref<SVGSVGElement>()

const until = computed(() => props.work.reached?.nodes ?? 0)
const motif = computed(() => props.work.reached?.motif ?? 0)
const isShown = ({ motif: own }: Node): boolean => own >= motif.value - 1 && own <= motif.value + 1
const shown = computed(() => {
  const { pictured } = props.work
  return pictured ? shownNodes(pictured, isShown, ({ id }) => (id < until.value ? 'made' : 'new')) : null
})
const nodeOf = (id: number): Node => props.work.board!.run.nodes[id]!
const colourOf = (id: number): string => props.work.colours.get(nodeOf(id).slot)?.colour ?? '#9c937f'
const beads = computed(() =>
  (shown.value?.beads ?? [])
    .map((bead) => ({
      ...bead,
      d: beadOutline(bead.spec),
      transform: beadTransform(bead),
      fill: colourOf(bead.node),
      isThere: bead.node < until.value,
      isNow: nodeOf(bead.node).motif === motif.value,
    }))
    .sort((a, b) => Number(a.isThere) - Number(b.isThere)),
)
const there = computed(() => beads.value.filter((bead) => bead.isThere))
const rings = computed(() => (shown.value?.rings ?? []).map((ring) => ({ ...ring, isThere: ring.node < until.value })))

// ---- the view: all that is shown, drawn closer about the needle
const closer = ref(1)
const frame = computed(() => {
  const all = shown.value && reachOfAll(shown.value)
  if (!all) return { x: -10, y: -6, width: 20, height: 12 }
  return {
    x: all.left - EDGE_MM,
    y: all.top - EDGE_MM,
    width: all.right - all.left + 2 * EDGE_MM,
    height: all.bottom - all.top + 2 * EDGE_MM,
  }
})
const view = computed(() => {
  const { x, y, width, height } = frame.value
  const middle = closer.value > 1 && needle.value ? needle.value : { x: x + width / 2, y: y + height / 2 }
  const [w, h] = [width / closer.value, height / closer.value]
  return `${middle.x - w / 2} ${middle.y - h / 2} ${w} ${h}`
})

// ---- the thread
const ways = computed(() => {
  const { pictured, reached, now } = props.work
  if (!pictured || !reached || !now) return []
  return now.recipe.carriers.map(({ id }) => ({
    id,
    points: wayOf(
      pictured,
      reached.done.filter((one) => one.by === id),
    ),
  }))
})
/** The needle in hand. */
const needle = computed(() => {
  const way = ways.value.find(({ id }) => id === props.work.by)?.points ?? []
  const [before, last] = [way.at(-2), way.at(-1)]
  return before && last ? { ...last, turn: (Math.atan2(last.y - before.y, last.x - before.x) * 180) / Math.PI } : null
})
const points = (list: readonly { x: number; y: number }[]): string =>
  list.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ')

// ---- pressing
const aimed = ref<Port | null>(null)
/** Ends that a drag has gone over, in order. */
const dragged = ref<readonly Port[]>([])
let pointer: number | null = null

function at(event: PointerEvent): { x: number; y: number } | null {
  const matrix = svg.value?.getScreenCTM()?.inverse()
  if (!matrix) return null
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return { x, y }
}
function portAt(event: PointerEvent): Port | null {
  const p = at(event)
  if (!p) return null
  const port = portPressed(there.value, p)
  if (port) return port
  const ring = rings.value.find((r) => r.isThere && Math.hypot(r.x - p.x, r.y - p.y) < Math.max(r.r, 1))
  return ring ? { node: ring.node, hole: 0, end: 0 } : null
}
function down(event: PointerEvent) {
  if (event.button !== 0) return
  const port = portAt(event)
  svg.value?.setPointerCapture(event.pointerId)
  pointer = event.pointerId
  aimed.value = port
  dragged.value = port ? [port] : []
}
function move(event: PointerEvent) {
  const port = portAt(event)
  if (pointer !== event.pointerId) {
    if (event.pointerType !== 'touch') aimed.value = port
    return
  }
  // The next bead is entered at the end that the finger came over.
  if (port && !dragged.value.some((one) => one.node === port.node && one.hole === port.hole))
    dragged.value = [...dragged.value, port]
}
function up(event: PointerEvent) {
  if (pointer !== event.pointerId) return
  pointer = null
  const ports = dragged.value
  dragged.value = []
  if (ports.length > 0) props.work.through(ports)
}
function cancel() {
  pointer = null
  dragged.value = []
  aimed.value = null
}

// ---- by keys: from end to end of the holes that are there
const ends = computed<Port[]>(() => [
  ...there.value
    .toSorted((a, b) => a.node - b.node)
    .flatMap(({ node, spec }) =>
      (spec.spacing === undefined ? [0] : [0, 1]).flatMap((hole): Port[] => [
        { node, hole, end: 0 },
        { node, hole, end: 1 },
      ]),
    ),
  ...rings.value.filter((r) => r.isThere).map(({ node }): Port => ({ node, hole: 0, end: 0 })),
])
const says = ref('')
function portWords({ node, hole, end }: Port): string {
  const { name, at: k, slot, isFixture, motif: own, passes } = nodeOf(node)
  const { recipe } = props.work.now!
  if (isFixture) return recipe.fixtures[slot]?.name ?? slot
  const where = own === motif.value ? '' : own < 0 ? ' of the start' : own < motif.value ? ' of the motif before' : ''
  const called = recipe.slots[slot]?.name ?? name
  return (
    `the ${ordinal(k + 1)} ${called}${name === slot ? '' : ` (${name})`}${where}` +
    `${passes.length > 1 ? `, ${hole === 0 ? 'first' : 'second'} hole` : ''}, ` +
    `${end === 0 ? 'from where it was first entered' : 'from its far end'}`
  )
}
function keydown(event: KeyboardEvent) {
  const all = ends.value
  if (all.length === 0) return
  const here = aimed.value
    ? all.findIndex((p) => p.node === aimed.value!.node && p.hole === aimed.value!.hole && p.end === aimed.value!.end)
    : -1
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  if (by !== undefined) {
    event.preventDefault()
    aimed.value = all[(here + by + (here < 0 && by < 0 ? 1 : 0) + all.length) % all.length]!
    says.value = portWords(aimed.value)
  } else if ((event.key === 'Enter' || event.key === ' ') && aimed.value) {
    event.preventDefault()
    event.stopPropagation()
    says.value = props.work.through([aimed.value]) ? `Through ${portWords(aimed.value)}` : props.work.says
  }
}
/** Ends that are shown: of the bead that is aimed at, the one that would be entered larger. */
const marks = computed(() => {
  const lit = dragged.value.length > 0 ? dragged.value : aimed.value ? [aimed.value] : []
  return lit.flatMap((port) => {
    const bead = beads.value.find((b) => b.node === port.node)
    if (!bead) return []
    const other: Port = { ...port, end: port.end === 0 ? 1 : 0 }
    return [
      { ...portOfPictured(bead, port), key: `${port.node}/${port.hole}/in`, enters: true },
      { ...portOfPictured(bead, other), key: `${port.node}/${port.hole}/out`, enters: false },
    ]
  })
})
const trail = computed(() =>
  dragged.value.flatMap((port) => {
    const bead = beads.value.find((b) => b.node === port.node)
    return bead ? [portOfPictured(bead, port), portOfPictured(bead, { ...port, end: port.end === 0 ? 1 : 0 })] : []
  }),
)
watch([until, () => props.work.board], () => {
  aimed.value = null
})
</script>

<template>
  <div class="board">
    <svg
      v-if="shown && shown.beads.length"
      ref="svg"
      :viewBox="view"
      tabindex="0"
      role="application"
      aria-roledescription="board of the motif"
      aria-label="The motif with its neighbours"
      aria-describedby="board-keys"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="cancel"
      @pointerleave="pointer === null && (aimed = null)"
      @keydown="keydown"
    >
      <circle
        v-for="r in rings"
        :key="`r${r.node}`"
        :cx="r.x"
        :cy="r.y"
        :r="r.r"
        class="ring"
        :class="{ there: r.isThere }"
      />
      <path
        v-for="b in beads"
        :key="b.node"
        :d="b.d"
        :transform="b.transform"
        :fill="b.fill"
        class="bead"
        :class="{ there: b.isThere, now: b.isNow }"
      />
      <polyline
        v-for="w in ways.filter((one) => one.points.length > 1)"
        :key="w.id"
        :points="points(w.points)"
        class="way"
        :class="{ other: w.id !== work.by }"
      />
      <polyline v-if="trail.length > 1" :points="points(trail)" class="trail" />
      <circle
        v-for="m in marks"
        :key="m.key"
        :cx="m.x"
        :cy="m.y"
        :r="m.enters ? 0.62 : 0.3"
        class="mark"
        :class="{ enters: m.enters }"
      />
      <g v-if="needle" :transform="`translate(${needle.x} ${needle.y}) rotate(${needle.turn})`">
        <path d="M-0.2 -0.42L2.2 0L-0.2 0.42Z" class="needle" />
      </g>
    </svg>
    <p v-else class="empty">
      {{
        work.board?.run.nodes.length
          ? 'There is too much in one motif to draw it while it is made. The steps beside it count all the same.'
          : 'Nothing is strung yet. Press a bead under “String” to begin.'
      }}
    </p>
    <p id="board-keys" class="hint">
      <template v-if="!work.isOwn">The motif as it is made; take a copy of the steps to change it.</template>
      <template v-else-if="work.sharing">
        {{
          work.sharing === 'first'
            ? 'Press the bead of this motif that was there before.'
            : 'Now press the same bead in the motif before.'
        }}
      </template>
      <template v-else>Press the end of a hole to go through it. Drag over several to go through them all.</template>
      <span class="hidden">Arrow keys go from end to end, Enter goes through.</span>
    </p>
    <p class="hidden" role="status" aria-live="polite">{{ says }}</p>
    <div class="turns" role="toolbar" aria-label="View of the motif">
      <button type="button" aria-label="Closer" title="Closer" @click="closer = Math.min(6, closer * 1.5)">+</button>
      <button type="button" aria-label="Further" title="Further" @click="closer = Math.max(1, closer / 1.5)">−</button>
      <button type="button" title="All that is shown" @click="closer = 1">All</button>
    </div>
  </div>
</template>

<style scoped>
.board {
  background: var(--mat);
  border-radius: var(--round);
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 44px 10px 46px;
  width: calc(100% - 20px);
  height: calc(100% - 90px);
  touch-action: none;
  cursor: crosshair;
  outline-offset: 0;
}
svg:focus-visible {
  outline: 3px solid var(--madder);
  border-radius: 10px;
}
.bead {
  stroke: var(--ink);
  stroke-width: 0.09;
  opacity: 0.2;
}
.bead.there {
  opacity: 0.62;
}
.bead.there.now {
  opacity: 1;
  stroke-width: 0.13;
}
.ring {
  fill: none;
  stroke: var(--soft);
  stroke-width: 0.6;
  opacity: 0.35;
}
.ring.there {
  opacity: 1;
}
.way,
.trail {
  fill: none;
  stroke: var(--madder);
  stroke-width: 0.26;
  stroke-linejoin: round;
  stroke-linecap: round;
  pointer-events: none;
}
.way.other {
  stroke: var(--verdigris);
}
.trail {
  stroke-dasharray: 0.7 0.5;
  stroke-width: 0.34;
}
.mark {
  fill: var(--paper);
  stroke: var(--madder);
  stroke-width: 0.18;
  pointer-events: none;
}
.mark.enters {
  fill: var(--madder);
  stroke: var(--paper);
}
.needle {
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 0.12;
  pointer-events: none;
}
.hint {
  position: absolute;
  left: 14px;
  top: 12px;
  max-width: calc(100% - 28px);
  padding: 3px 8px;
  border-radius: 8px;
  background: color-mix(in srgb, var(--mat) 80%, transparent);
  pointer-events: none;
}
.empty {
  display: grid;
  place-content: center;
  height: 100%;
  padding: 20px;
  text-align: center;
  font-size: 17px;
}
.turns {
  position: absolute;
  left: 12px;
  bottom: 10px;
  display: flex;
  gap: 2px;
  padding: 4px;
  background: var(--paper);
  border-radius: 14px;
  box-shadow: var(--shadow);
}
.turns button {
  min-height: 36px;
  min-width: 36px;
  padding: 0 10px;
  border: 0;
  border-radius: 10px;
  background: none;
  color: var(--ink);
  font: 500 14px/1 var(--text);
  cursor: pointer;
}
.turns button:hover {
  background: color-mix(in srgb, var(--ink) 8%, transparent);
}
@media (width <= 900px) {
  .turns button {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
