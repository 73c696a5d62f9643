<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { Piece, Part } from '#core/piece/piece'
import { settingSteps } from '#core/piece/recast'
import type { Step as PieceStep } from '#core/piece/step'
import {
  carriedBy,
  carrierWay,
  emptyRecipe,
  movedPath,
  SOME_MOTIFS,
  pathOf,
  spotOf,
  tidied,
  withFixture,
  withoutField,
  withSlot,
} from '#core/recipe/edit'
import { evaluate } from '#core/recipe/expression'
import { RECIPE_SECTIONS, type Expr, type Recipe, type Step } from '#core/recipe/language'
import { stepLines } from '#core/recipe/shorthand'
import { requireSpec } from '#core/bead/spec'
import type { KeptRecipe } from '#core/shelf/shelf'
import { saying } from '../../composables/saying'
import NumberField from '../../components/NumberField.vue'
import StitchSettings from '../../components/StitchSettings.vue'
import { useMat } from '../../stores/mat'
import { useShelf } from '../../stores/shelf'
import { usePiece } from '../../stores/piece'
import ChoiceRow from '../panel/ChoiceRow.vue'
import MatPanel from '../panel/MatPanel.vue'
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
/** A condition in words, as far as signs can be read out. */
const asked = (text: string): string =>
  plain(text).replaceAll('=', ' is ').replaceAll('<', ' is under ').replaceAll('>', ' is over ')
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
  if (step.do === 'when')
    return `${SOME_MOTIFS.find((s) => s.if === step.if)?.says ?? `where ${asked(String(step.if))}`}:`
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
const isTwoHoled = (slot: string) => requireSpec(recipe.value.slots[slot]!.spec).spacing !== undefined
const hole = ref<'a' | 'b'>('a')

// ---- another bead that plays a part
const adding = ref<{ number: number; name: string } | null>(null)
function addBead() {
  const bead = props.piece.tray.find((b) => b.number === adding.value?.number)
  if (!bead) return
  const name = adding.value!.name.trim().slice(0, 38) || bead.name.slice(0, 38)
  const [next, key] = withSlot(recipe.value, { name, many: /s$/.test(name) ? name : `${name}s`, spec: bead.spec })
  props.work.wish(key, bead.number)
  if (props.work.string(key, 'a', next)) adding.value = null
}
// ---- a finding, a knot, a word
const asking = ref<'finding' | 'wind' | 'say' | null>(null)
const finding = ref({ name: 'clasp ring', mm: 5 })
const text = ref('')
const winding = ref({ name: 'cord', mm: 2, turns: 1 })
/** A finding or a cord under its name: that of the recipe, or a new one. */
function fixtureFor(written: string, d: number): readonly [Recipe, string] | null {
  const name = written.trim().slice(0, 38)
  if (!name) return null
  const known = Object.entries(recipe.value.fixtures).find(([, f]) => f.name === name)
  return known ? [recipe.value, known[0]] : withFixture(recipe.value, { name, d })
}
function windRound() {
  const found = fixtureFor(winding.value.name, winding.value.mm)
  if (!found) return
  const [next, fixture] = found
  if (props.work.put({ do: 'wrap', fixture, turns: winding.value.turns }, next)) asking.value = null
}
function throughFinding() {
  const found = fixtureFor(finding.value.name, finding.value.mm)
  if (!found) return
  const [next, key] = found
  if (props.work.put({ do: 'fix', fixture: key }, next)) asking.value = null
}
function say() {
  if (text.value.trim() && props.work.put({ do: 'say', text: text.value.trim().slice(0, 190) })) {
    asking.value = null
    text.value = ''
  }
}
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
const setField = (id: string, value: number) => props.work.change(recipe.value, { ...params.value, [id]: value })
const fixField = (id: string) => props.work.change(withoutField(recipe.value, id, props.work.env.get(id) ?? 0))
const rename = (event: Event) => {
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 60)
  if (name) props.work.change({ ...recipe.value, name })
}
const renameSlot = (slot: string, event: Event) => {
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 38)
  const own = recipe.value.slots[slot]!
  if (name && name !== own.name)
    props.work.change({
      ...recipe.value,
      slots: { ...recipe.value.slots, [slot]: { ...own, name, many: /s$/.test(name) ? name : `${name}s` } },
    })
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
        <div v-else-if="work.isOwn" class="next">
          <span class="line"
            ><b class="nth">{{ row.number }}</b
            ><span class="says ask">What comes next?</span><span class="kind">needle here</span></span
          >
          <div v-if="recipe.carriers.length > 1" class="chips" role="group" aria-label="With which">
            <button
              v-for="c in recipe.carriers"
              :key="c.id"
              type="button"
              class="chip"
              :aria-pressed="work.by === c.id"
              @click="work.setBy(c.id)"
            >
              {{ c.name }}
            </button>
          </div>
          <div class="chips" role="group" aria-label="String">
            <button
              v-for="[slot, s] in slotList"
              :key="slot"
              type="button"
              class="chip"
              :title="`String one ${s.name}`"
              @click="work.string(slot, isTwoHoled(slot) ? hole : 'a')"
            >
              <span class="swatch" :style="{ '--bead': colourOf(slot) }" aria-hidden="true" />
              {{ s.name }}
            </button>
            <button type="button" class="chip plain" @click="adding = { number: mat.number, name: '' }">
              Another bead…
            </button>
          </div>
          <button
            v-if="slotList.some(([slot]) => isTwoHoled(slot))"
            type="button"
            class="link"
            @click="hole = hole === 'a' ? 'b' : 'a'"
          >
            Two-hole beads by their {{ hole === 'a' ? 'first' : 'second' }} hole
          </button>
          <form v-if="adding" class="form" @submit.prevent="addBead">
            <VSelect
              v-model="adding.number"
              :items="
                piece.tray.map((b) => ({
                  value: b.number,
                  title: `${b.letter} ${b.name}, ${requireSpec(b.spec).name}`,
                }))
              "
              label="Bead of the tray"
            />
            <VTextField v-model="adding.name" label="What it is here" placeholder="petal, stem, tip" maxlength="38" />
            <span class="acts">
              <button type="submit" class="button main">String one</button>
              <button type="button" class="link" @click="adding = null">Leave it</button>
            </span>
          </form>
          <div class="acts">
            <button type="button" class="link" @click="work.put({ do: 'knot', mm: 6 })">Knot</button>
            <button type="button" class="link" @click="asking = asking === 'finding' ? null : 'finding'">
              Through a finding…
            </button>
            <button type="button" class="link" @click="asking = asking === 'wind' ? null : 'wind'">Wind round…</button>
            <button type="button" class="link" @click="asking = asking === 'say' ? null : 'say'">Say…</button>
            <button
              v-if="work.section === 'motif'"
              type="button"
              class="link"
              :aria-pressed="work.sharing !== null"
              title="Two beads that are one: press the bead of this motif, then the one of the motif before"
              @click="work.shareNext()"
            >
              {{ work.sharing ? 'Not the same' : 'Same bead as before…' }}
            </button>
          </div>
          <form v-if="asking === 'finding'" class="form" @submit.prevent="throughFinding">
            <VTextField v-model="finding.name" label="What it is" maxlength="38" />
            <NumberField
              v-model="finding.mm"
              label="How wide it is"
              unit="mm"
              :bounds="{ least: 0.5, most: 400, whole: false }"
            />
            <button type="submit" class="button main">Go through it</button>
          </form>
          <form v-else-if="asking === 'wind'" class="form" @submit.prevent="windRound">
            <VTextField v-model="winding.name" label="What it is wound round" maxlength="38" />
            <NumberField
              v-model="winding.mm"
              label="How thick it is"
              unit="mm"
              :bounds="{ least: 0.1, most: 400, whole: false }"
            />
            <NumberField
              v-model="winding.turns"
              label="Turns"
              hint="Half a turn goes round its edge."
              :bounds="{ least: 0.5, most: 200, whole: false }"
            />
            <button type="submit" class="button main">Wind it round</button>
          </form>
          <form v-else-if="asking === 'say'" class="form" @submit.prevent="say">
            <VTextField v-model="text" label="What is done here" placeholder="turn the work over" maxlength="190" />
            <button type="submit" class="button main">Put it in</button>
          </form>
        </div>
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
      <template v-if="recipe.params.length">
        <h4>What may vary</h4>
        <div v-for="p in recipe.params" :key="p.id" class="field">
          <NumberField
            :model-value="params[p.id] ?? p.usual"
            :label="p.label"
            :hint="`${p.least} to ${p.most}`"
            :bounds="{ least: p.least, most: p.most, whole: true }"
            @update:model-value="(n) => setField(p.id, n)"
          />
          <button type="button" class="link" @click="fixField(p.id)">Fix it</button>
        </div>
      </template>
      <h4>What plays a part</h4>
      <VTextField
        v-for="[slot, s] in slotList"
        :key="slot"
        :model-value="s.name"
        :label="requireSpec(s.spec).name"
        maxlength="38"
        @change="(e: Event) => renameSlot(slot, e)"
      />
      <ChoiceRow
        :model-value="carrierWay(recipe)"
        label="Worked with"
        :items="[
          { value: 'thread', title: 'One needle' },
          { value: 'needles', title: 'Two needles', says: 'One thread folded in its middle, a needle at each end' },
          { value: 'wire', title: 'Wire, both ends' },
        ]"
        @update:model-value="(way) => way && work.change(carriedBy(recipe, way))"
      />
      <ChoiceRow
        :model-value="recipe.repeat"
        label="The next motif"
        :items="[
          { value: 'along', title: 'Goes on' },
          { value: 'to-and-fro', title: 'Turns over', says: 'Every second motif is the mirror of the one before' },
        ]"
        @update:model-value="(repeat) => repeat && work.change({ ...recipe, repeat })"
      />
      <ChoiceRow
        :model-value="recipe.cut.each"
        label="Thread"
        :items="[
          { value: 'piece', title: 'One for all' },
          { value: 'motif', title: 'New for each motif' },
        ]"
        @update:model-value="(each) => each && work.change({ ...recipe, cut: { ...recipe.cut, each } })"
      />
      <VTextField :model-value="recipe.name" label="Name of the recipe" maxlength="60" @change="rename" />
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
.line {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: baseline;
  width: 100%;
  padding: 11px 2px;
  border: 0;
  background: none;
  color: var(--ink);
  font: 400 15px/1.35 var(--text);
  text-align: start;
}
button.line:enabled {
  cursor: pointer;
}
.nth {
  font: 650 15px/1.3 var(--title);
  color: var(--soft);
}
.kind {
  font-size: 13px;
  color: var(--soft);
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
.here .line {
  padding: 9px 2px;
}
.ask {
  color: var(--madder);
  font-weight: 650;
}
.next {
  display: grid;
  gap: 8px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 7px;
  min-height: 44px;
  padding: 0 13px;
  border: 1.5px solid var(--edge);
  border-radius: 11px;
  background: var(--paper);
  color: var(--ink);
  font: 600 14.5px/1 var(--text);
  cursor: pointer;
}
.chip[aria-pressed='true'] {
  background: var(--dark);
  color: var(--dark-ink);
}
.chip.plain {
  border-style: dashed;
  font-weight: 500;
}
.form {
  display: grid;
  gap: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
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
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}
h4 {
  margin: 6px 0 0;
  font: 650 15px/1.2 var(--text);
}
</style>
