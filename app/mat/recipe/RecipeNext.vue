<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Piece } from '#core/piece/piece'
import { withFixture, withSlot } from '#core/recipe/edit'
import type { Recipe } from '#core/recipe/language'
import { requireSpec } from '#core/bead/spec'
import NumberField from '../../components/NumberField.vue'
import { useMat } from '../../stores/mat'
import type { RecipeWork } from './work'

/** What comes next: a bead that is strung, a knot, a finding, something wound round, or a word. */
const props = defineProps<{ work: RecipeWork; piece: Piece; number: string }>()
const mat = useMat()
const recipe = computed(() => props.work.now!.recipe)
const slotList = computed(() => Object.entries(recipe.value.slots))
const colourOf = (slot: string) => props.work.colours.get(slot)?.colour ?? '#9c937f'
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
</script>

<template>
  <div class="next">
    <span class="line"
      ><b class="nth">{{ number }}</b
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
</template>

<style scoped src="./recipe-line.css" />
<style scoped>
.line {
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
</style>
