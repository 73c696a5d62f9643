<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  countAsField,
  freeName,
  listAt,
  movedPath,
  namesTaken,
  onlyIn,
  removed,
  repeated,
  replaced,
  SOME_MOTIFS,
  spotOf,
  stepAt,
  swapped,
  takenApart,
  timesAsField,
  withoutField,
} from '#core/recipe/edit'
import { evaluate } from '#core/recipe/expression'
import { RECIPE_LIMITS, type Expr, type Item, type Step } from '#core/recipe/language'
import NumberField from '../../components/NumberField.vue'
import type { RecipeWork } from './work'

/** What can be done with the step that is chosen: its counts, its place, how often it is done. */
const props = defineProps<{ work: RecipeWork; path: string }>()
const recipe = computed(() => props.work.now!.recipe)
const step = computed(() => stepAt(recipe.value, props.path))
const isTwoHoled = (slot: string) =>
  (props.work.board?.run.nodes.find((node) => node.slot === slot)?.passes.length ?? 1) > 1

function put(next: Step) {
  props.work.change(replaced(recipe.value, props.path, next))
}
const valueOf = (expr: Expr): number | null => {
  try {
    return evaluate(expr, props.work.env)
  } catch {
    return null
  }
}
/** The fields that a count hangs on. */
const fieldsIn = (expr: Expr) =>
  typeof expr === 'string' ? recipe.value.params.filter(({ id }) => new RegExp(`\\b${id}\\b`).test(expr)) : []

// ---- a pick
function withItem(k: number, change: Partial<Item>) {
  if (step.value?.do !== 'pick') return
  put({ ...step.value, items: step.value.items.with(k, { ...step.value.items[k]!, ...change }) })
}
function withoutItem(k: number) {
  if (step.value?.do !== 'pick') return
  const items = step.value.items.toSpliced(k, 1)
  if (items.length > 0) put({ ...step.value, items })
  else away()
}

// ---- its place
function away() {
  if (props.work.change(removed(recipe.value, props.path))) props.work.stand(props.path)
}
function move(by: 1 | -1) {
  const list = listAt(recipe.value, props.path)
  const to = spotOf(props.path).at + by
  if (to < 0 || to >= list.length) return
  if (props.work.change(swapped(recipe.value, props.path, by))) props.work.choose(movedPath(props.path, by))
}
const note = ref('')
watch(
  [() => props.path, () => step.value],
  () => {
    note.value = step.value && 'note' in step.value ? (step.value.note ?? '') : ''
  },
  { immediate: true },
)
function takeNote() {
  const one = step.value
  if (!one || 'steps' in one || one.do === 'say') return
  const { note: _old, ...rest } = one
  put((note.value.trim() ? { ...rest, note: note.value.trim().slice(0, 120) } : rest) as Step)
}

// ---- a number that may vary
const varying = ref<{ k: number; label: string; least: number; most: number } | null>(null)
function vary(k: number, label: string, now: number) {
  varying.value = { k, label, least: 1, most: Math.max(now + 6, 2 * now) }
}
function takeField() {
  const one = varying.value
  if (!one || !step.value) return
  const known = recipe.value.params.find(({ label }) => label.toLowerCase() === one.label.trim().toLowerCase())
  const label = one.label.trim() || 'Number'
  const field = known ?? {
    ...{ id: freeName(label, namesTaken(recipe.value)), label: label.slice(0, 60) },
    ...{ least: Math.min(one.least, one.most), most: Math.max(one.least, one.most) },
  }
  if (!known && recipe.value.params.length >= RECIPE_LIMITS.params) {
    props.work.tell(`At most ${RECIPE_LIMITS.params} numbers can vary: make one of them fixed first.`)
    return
  }
  const next =
    step.value.do === 'each'
      ? timesAsField(recipe.value, props.path, field, props.work.env)
      : countAsField(recipe.value, props.path, one.k, field, props.work.env)
  if (props.work.change(next)) varying.value = null
}
function fix(expr: Expr) {
  let next = recipe.value
  for (const { id } of fieldsIn(expr)) next = withoutField(next, id, props.work.env.get(id) ?? 0)
  props.work.change(next)
}

// ---- in some motifs only
const some = ref(false)
function takeSome(condition: (typeof SOME_MOTIFS)[number]['if']) {
  if (props.work.change(onlyIn(recipe.value, props.path, condition))) props.work.choose(null)
  some.value = false
}

// ---- again and again
const again = ref<{ count: number; times: number; further: number } | null>(null)
const behind = computed(() => listAt(recipe.value, props.path).slice(spotOf(props.path).at))
/** Whether beads are passed that these steps do not pick up. */
const passesOthers = computed(() => {
  const own = behind.value.slice(0, again.value?.count ?? 1)
  const picked = new Set(own.flatMap((s) => (s.do === 'pick' ? s.items.map((i) => i.as ?? i.slot) : [])))
  return own.some((s) => s.do === 'pass' && s.refs.some((r) => r.of !== 'this' || !picked.has(r.bead)))
})
function takeAgain() {
  if (!again.value) return
  const done = props.work.change(repeated(recipe.value, props.path, again.value, props.work.env))
  if (done) {
    again.value = null
    props.work.choose(props.path)
  }
}
function apart() {
  if (props.work.change(takenApart(recipe.value, props.path))) props.work.choose(null)
}
</script>

<template>
  <div v-if="step" class="edit">
    <template v-if="step.do === 'pick'">
      <div v-for="(item, k) in step.items" :key="k" class="item">
        <span class="name">{{ recipe.slots[item.slot]?.many ?? item.slot }}</span>
        <template v-if="typeof item.count === 'number'">
          <button
            type="button"
            class="step"
            :aria-label="`One ${recipe.slots[item.slot]?.name} less`"
            :disabled="item.count <= 1"
            @click="withItem(k, { count: item.count - 1 })"
          >
            −
          </button>
          <b class="figure">{{ item.count }}</b>
          <button
            type="button"
            class="step"
            :aria-label="`One ${recipe.slots[item.slot]?.name} more`"
            @click="withItem(k, { count: item.count + 1 })"
          >
            +
          </button>
          <button
            type="button"
            class="link"
            @click="vary(k, recipe.slots[item.slot]?.many ?? 'Number', Number(item.count))"
          >
            May vary…
          </button>
        </template>
        <template v-else>
          <b class="figure">{{ valueOf(item.count) ?? item.count }}</b>
          <span class="quiet"
            >by
            {{
              fieldsIn(item.count)
                .map((p) => p.label)
                .join(', ') || item.count
            }}</span
          >
          <button v-if="fieldsIn(item.count).length" type="button" class="link" @click="fix(item.count)">
            Fix it
          </button>
        </template>
        <button
          v-if="isTwoHoled(item.slot)"
          type="button"
          class="link"
          @click="withItem(k, { hole: item.hole === 'a' ? 'b' : 'a' })"
        >
          By the {{ item.hole === 'a' ? 'first' : 'second' }} hole
        </button>
        <button v-if="step.items.length > 1" type="button" class="link" @click="withoutItem(k)">Take out</button>
      </div>
    </template>
    <div v-else-if="step.do === 'each'" class="item">
      <span class="name">Times</span>
      <template v-if="typeof step.times === 'number'">
        <button
          type="button"
          class="step"
          aria-label="Once less"
          :disabled="step.times <= 1"
          @click="put({ ...step, times: step.times - 1 })"
        >
          −
        </button>
        <b class="figure">{{ step.times }}</b>
        <button type="button" class="step" aria-label="Once more" @click="put({ ...step, times: step.times + 1 })">
          +
        </button>
        <button type="button" class="link" @click="vary(0, 'Times', Number(step.times))">May vary…</button>
      </template>
      <template v-else>
        <b class="figure">{{ valueOf(step.times) ?? step.times }}</b>
        <button v-if="fieldsIn(step.times).length" type="button" class="link" @click="fix(step.times)">Fix it</button>
      </template>
      <button type="button" class="link" @click="apart">Only once</button>
    </div>
    <NumberField
      v-else-if="step.do === 'knot'"
      :model-value="step.mm"
      label="Thread that it takes"
      unit="mm"
      :bounds="{ least: 0, most: 1000, whole: false }"
      @update:model-value="(mm) => step?.do === 'knot' && put({ ...step, mm })"
    />
    <VTextField
      v-else-if="step.do === 'say'"
      :model-value="step.text"
      label="What is said"
      maxlength="190"
      @change="
        (e: Event) =>
          (e.target as HTMLInputElement).value.trim() &&
          put({ do: 'say', text: (e.target as HTMLInputElement).value.trim() })
      "
    />

    <button v-else-if="step.do === 'when'" type="button" class="link" @click="apart">In every motif</button>

    <form v-if="varying" class="form" @submit.prevent="takeField">
      <VTextField v-model="varying.label" label="What it counts" maxlength="60" list="recipe-fields" />
      <datalist id="recipe-fields">
        <option v-for="p in recipe.params" :key="p.id" :value="p.label" />
      </datalist>
      <div class="two">
        <NumberField v-model="varying.least" label="At least" :bounds="{ least: 0, most: 500, whole: true }" />
        <NumberField v-model="varying.most" label="At most" :bounds="{ least: 1, most: 500, whole: true }" />
      </div>
      <span class="acts">
        <button type="submit" class="button main">Make it a field</button>
        <button type="button" class="link" @click="varying = null">Leave it</button>
      </span>
    </form>
    <form v-else-if="again" class="form" @submit.prevent="takeAgain">
      <div class="two">
        <NumberField
          v-model="again.count"
          label="Steps from here"
          :bounds="{ least: 1, most: behind.length, whole: true }"
        />
        <NumberField v-model="again.times" label="Times" :bounds="{ least: 1, most: 200, whole: true }" />
      </div>
      <NumberField
        v-if="passesOthers"
        v-model="again.further"
        label="Beads further each time"
        hint="For beads that were there before: 0 goes through the same ones again."
        :bounds="{ least: -20, most: 20, whole: true }"
      />
      <span class="acts">
        <button type="submit" class="button main">Repeat them</button>
        <button type="button" class="link" @click="again = null">Leave it</button>
      </span>
    </form>
    <div v-else-if="some" class="form" role="group" aria-label="In which motifs">
      <button v-for="one in SOME_MOTIFS" :key="one.if" type="button" class="link some" @click="takeSome(one.if)">
        {{ one.says }}
      </button>
      <button type="button" class="link" @click="some = false">Leave it</button>
    </div>
    <template v-else>
      <VTextField
        v-if="!('steps' in step) && step.do !== 'say'"
        v-model="note"
        label="Said after it"
        placeholder="draw it tight"
        maxlength="120"
        @change="takeNote"
      />
      <span class="acts">
        <button type="button" class="link" @click="move(-1)">Earlier</button>
        <button type="button" class="link" @click="move(1)">Later</button>
        <button type="button" class="link" @click="again = { count: 1, times: 2, further: 0 }">Repeat…</button>
        <button v-if="path.startsWith('motif/') && step.do !== 'when'" type="button" class="link" @click="some = true">
          Only in…
        </button>
        <button type="button" class="link" @click="away">Take out</button>
      </span>
    </template>
  </div>
</template>

<style scoped>
.edit {
  display: grid;
  gap: 10px;
  padding: 10px 0 4px;
}
.item {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.name {
  min-width: 88px;
}
.figure {
  min-width: 26px;
  text-align: center;
  font-size: 20px;
}
.step {
  width: 40px;
  height: 40px;
  border: 1.5px solid var(--edge);
  border-radius: 10px;
  background: none;
  color: var(--ink);
  font: 500 19px/1 var(--text);
  cursor: pointer;
}
.step:disabled {
  opacity: 0.4;
  cursor: default;
}
.form {
  display: grid;
  gap: 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.some {
  justify-self: start;
  text-align: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
@media (width <= 900px) {
  .step {
    width: 44px;
    height: 44px;
  }
}
</style>
