<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { Piece, Part } from '#core/piece/piece'
import { settingSteps } from '#core/piece/recast'
import type { Step as PieceStep } from '#core/piece/step'
import { conditionWords } from '#core/recipe/condition'
import { emptyRecipe, movedPath, pathOf, spotOf, tidied } from '#core/recipe/edit'
import { evaluate } from '#core/recipe/expression'
import { RECIPE_SECTIONS, type Expr, type Step } from '#core/recipe/language'
import { stepLines } from '#core/recipe/shorthand'
import type { KeptRecipe } from '#core/shelf/shelf'
import { saying } from '../../composables/saying'
import StitchSettings from '../../components/StitchSettings.vue'
import { useMat } from '../../stores/mat'
import { useShelf } from '../../stores/shelf'
import { usePiece } from '../../stores/piece'
import MatPanel from '../panel/MatPanel.vue'
import RecipeHead from './RecipeHead.vue'
import RecipeNext from './RecipeNext.vue'
import RecipeStepEdit from './RecipeStepEdit.vue'
import type { RecipeWork } from './work'

/** One motif, as the hands do it: its steps by number, where the needle is, what may vary, and what plays a part. */
const props = defineProps<{ work: RecipeWork; piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly PieceStep[]]; close: [] }>()
const store = usePiece()
const mat = useMat()
const shelf = useShelf()
const recipe = computed(() => props.work.now!.recipe)
const params = computed(() => props.work.now!.params)
const SECTION_NAMES = { start: 'Start', motif: 'One motif', end: 'End' } as const
const KINDS: Record<Step['do'], string> = {
  pick: 'pick up',
  pass: 'go through',
  fix: 'finding',
  wrap: 'wind',
  knot: 'knot',
  say: 'say',
  each: 'repeat',
  when: 'only if',
}

interface Row {
  readonly path: string
  readonly number: string
  readonly depth: number
  readonly step: Step | null
}
/** Steps of the section one under the other, and where the needle is among them. */
const rows = computed<Row[]>(() => {
  const { section } = props.work
  const out: Row[] = []
  const list = (steps: readonly Step[], inside: readonly number[], number: string) => {
    for (let at = 0; at <= steps.length; at++) {
      const path = pathOf({ section, inside, at })
      if (path === props.work.place && props.work.isOwn)
        out.push({ path, number: `${number}${at + 1}`, depth: inside.length, step: null })
      const step = steps[at]
      if (!step) continue
      out.push({ path, number: `${number}${at + 1}`, depth: inside.length, step })
      if ('steps' in step) list(step.steps, [...inside, at], `${number}${at + 1}.`)
    }
  }
  list(recipe.value[section], [], '')
  return out
})
/** An expression with the fields’ own names. */
const plain = (text: string): string =>
  recipe.value.params.reduce(
    (said, { id, label }) => said.replaceAll(new RegExp(`\\b${id}\\b`, 'g'), `“${label}”`),
    text,
  )
/** A count as it is now, and as it hangs on fields; where it counts with a repeat only that. */
function countOf(expr: Expr): { now: string; by: string } {
  if (typeof expr === 'number') return { now: String(expr), by: '' }
  try {
    return { now: String(evaluate(expr, props.work.env)), by: plain(expr) }
  } catch {
    return { now: plain(expr), by: '' }
  }
}
function says(path: string, step: Step): string {
  if (step.do === 'each') return `${countOf(step.times).now} times:`
  if (step.do === 'when') return `${conditionWords(step.if, recipe.value)}:`
  if (step.do === 'say') return step.text
  return props.work.words.get(path) ?? stepLines([step])[0]!.replace(/^(\w+: )?(pick|pass|fix|wrap) /, '')
}
const noteOf = (step: Step): string => ('note' in step ? (step.note ?? '') : '')
const faultsOf = (path: string) => props.work.faults.get(path) ?? []
const elsewhere = computed(() =>
  [...props.work.faults].filter(([path]) => path === '' || !path.startsWith(`${props.work.section}/`)),
)
const slotList = computed(() => Object.entries(recipe.value.slots))
const colourOf = (slot: string) => props.work.colours.get(slot)?.colour ?? '#9c937f'
const wordOf = (slot: string, count: number) =>
  (count === 1 ? recipe.value.slots[slot]?.name : recipe.value.slots[slot]?.many) ?? slot
// ---- kept for other pieces
const busy = ref(false)
async function guarded(task: () => Promise<unknown>) {
  busy.value = true
  await saying(async () => {
    await task()
  }, props.work.tell)
  busy.value = false
}
onMounted(() => guarded(() => shelf.fetch()))
const keepIt = () =>
  guarded(async () => {
    const { name } = recipe.value
    const value = { kind: 'recipe', name, recipe: recipe.value, params: { ...params.value } } as const
    const known = shelf.recipes.find((item) => item.value.name === name)
    if (known) await shelf.change(known, { ...value })
    else await shelf.keep([value])
    props.work.tell(`“${name}” is kept: it can be worked in any piece, from this list.`)
  })
function take(kept: KeptRecipe) {
  if (props.work.change(kept.recipe, kept.params)) props.work.show('motif')
}
function fromNothing() {
  const bead = props.piece.tray.find((b) => b.number === mat.number) ?? props.piece.tray[0]
  if (!bead) return
  const own = { name: 'bead', many: 'beads', spec: bead.spec }
  props.work.wish('bead', bead.number)
  if (props.work.change(emptyRecipe('Chain of my own', own), {})) props.work.show('motif')
}
const isUnused = computed(() => {
  const used = tidied(recipe.value)
  return Object.keys(used.slots).length < slotList.value.length
})
</script>

<template>
  <MatPanel title="Made step by step" class="recipe" @close="emit('close')">
    <template v-if="!work.isOwn">
      <p>
        This design ships with Weben. Its fields change it; to change its steps, take a copy of it into the piece. The
        beads stay as they are, and undo takes it back.
      </p>
      <button type="button" class="button main" @click="work.change(recipe, params)">Change its steps</button>
    </template>
    <div class="sections" role="tablist" aria-label="Sections of the recipe">
      <button
        v-for="s in RECIPE_SECTIONS"
        :key="s"
        type="button"
        role="tab"
        :aria-selected="work.section === s"
        @click="work.show(s)"
      >
        {{ SECTION_NAMES[s] }}<span v-if="recipe[s].length" class="many">{{ recipe[s].length }}</span>
      </button>
    </div>
    <ol class="steps" data-test="steps">
      <li
        v-for="row in rows"
        :key="`${row.path}${row.step ? '' : 'here'}`"
        :class="{ here: !row.step, on: row.step && row.path === work.chosen }"
        :style="{ '--in': row.depth }"
      >
        <template v-if="row.step">
          <button
            type="button"
            class="line"
            :aria-expanded="row.path === work.chosen"
            :disabled="!work.isOwn"
            @click="row.path === work.chosen ? work.choose(null) : work.choose(row.path)"
          >
            <b class="nth">{{ row.number }}</b>
            <span class="says">
              <template v-if="row.step.do === 'pick'">
                <span v-for="(item, k) in row.step.items" :key="k" class="run"
                  ><span class="swatch" :style="{ '--bead': colourOf(item.slot) }" aria-hidden="true" /><b
                    :class="{ varies: countOf(item.count).by }"
                    :title="countOf(item.count).by ? `By ${countOf(item.count).by}` : undefined"
                    >{{ countOf(item.count).now }}</b
                  >
                  {{ wordOf(item.slot, Number(countOf(item.count).now))
                  }}<span v-if="item.hole === 'b'" class="quiet"> by the second hole</span></span
                >
              </template>
              <template v-else>{{ says(row.path, row.step) }}</template>
              <span v-if="noteOf(row.step)" class="quiet"> · {{ noteOf(row.step) }}</span>
            </span>
            <span class="kind">{{ KINDS[row.step.do] }}</span>
          </button>
          <div v-for="f in faultsOf(row.path)" :key="f.says" class="fault" role="status">
            {{ f.says }}
            <button
              v-if="work.isOwn && f.going !== undefined"
              type="button"
              class="link"
              @click="work.turnRound(row.path, f.going)"
            >
              Enter from the other end
            </button>
          </div>
          <RecipeStepEdit v-if="work.isOwn && row.path === work.chosen" :work="work" :path="row.path" />
        </template>
        <RecipeNext v-else-if="work.isOwn" :work="work" :piece="piece" :number="row.number" />
      </li>
    </ol>
    <button
      v-if="work.isOwn && spotOf(work.place).at < recipe[work.section].length"
      type="button"
      class="link"
      @click="work.stand(`${work.section}/${recipe[work.section].length}`)"
    >
      Needle to the end
    </button>
    <p v-if="work.says" class="fault" role="alert">{{ work.says }}</p>
    <p v-for="[path, list] in elsewhere" :key="path" class="fault">
      {{ path ? `${SECTION_NAMES[spotOf(path).section]}, step ${spotOf(movedPath(path, 1)).at}: ` : ''
      }}{{ list.map((f) => f.says).join(' ') }}
    </p>
    <div v-if="work.isOwn" class="acts">
      <button type="button" class="link" :disabled="!store.canUndo" @click="store.undo()">Undo</button>
      <button type="button" class="link" @click="fromNothing">Begin with nothing</button>
      <button v-if="isUnused" type="button" class="link" @click="work.change(tidied(recipe))">
        Let unused beads go
      </button>
    </div>

    <template v-if="work.isOwn">
      <RecipeHead :work="work" />
      <span class="acts">
        <button type="button" class="link" :disabled="busy" @click="keepIt">Keep it for other pieces</button>
      </span>
    </template>
    <template v-else>
      <h4>What may vary</h4>
      <StitchSettings
        :technique="part.technique"
        :settings="part.settings"
        @change="
          (key, value) =>
            emit(
              'steps',
              'How it is made',
              settingSteps(piece, part, { ...part.settings, [key]: value }, piece.tray[0]?.number ?? 0),
            )
        "
      />
    </template>
    <template v-if="shelf.recipes.length">
      <h4>Recipes that you kept</h4>
      <div v-for="item in shelf.recipes" :key="item.id" class="kept">
        <span>{{ item.value.name }}</span>
        <button type="button" class="link" @click="take(item.value)">Work by it</button>
        <button type="button" class="link" :disabled="busy" @click="guarded(() => shelf.takeOff(item.id))">
          Take out
        </button>
      </div>
    </template>
  </MatPanel>
</template>

<style scoped src="./recipe-line.css" />
<style scoped>
.sections {
  display: flex;
  gap: 4px;
}
.sections button {
  flex: 1;
  min-height: 38px;
  border: 0;
  border-radius: 9px;
  background: var(--ground);
  color: var(--ink);
  font: 500 14.5px/1 var(--text);
  cursor: pointer;
}
.sections [aria-selected='true'] {
  background: var(--dark);
  color: var(--dark-ink);
}
.many {
  margin-inline-start: 6px;
  opacity: 0.7;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding-inline-start: calc(var(--in) * 18px);
  border-bottom: 1px solid var(--line);
}
.on {
  background: color-mix(in srgb, var(--marigold-wash) 60%, transparent);
}
button.line:enabled {
  cursor: pointer;
}
.run {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  margin-inline-end: 10px;
}
.varies {
  border-bottom: 2px dotted var(--madder);
}
.here {
  border: 2px solid var(--madder);
  border-radius: 10px;
  padding: 0 8px 8px;
  margin: 4px 0;
  background: var(--ground);
}
.fault {
  padding: 7px 10px;
  border-radius: 8px;
  background: var(--marigold-wash);
  color: var(--marigold);
  font-size: 14px;
  line-height: 1.35;
  margin-bottom: 6px;
}
.kept {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
.kept span {
  flex: 1;
}
h4 {
  margin: 6px 0 0;
  font: 650 15px/1.2 var(--text);
}
</style>
