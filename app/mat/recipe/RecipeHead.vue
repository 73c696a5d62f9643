<script setup lang="ts">
import { computed } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { carriedBy, carrierWay, withoutField } from '#core/recipe/edit'
import NumberField from '../../components/NumberField.vue'
import ChoiceRow from '../panel/ChoiceRow.vue'
import type { RecipeWork } from './work'

/** What a recipe has besides its steps: what may vary, what plays a part, what it is worked with. */
const props = defineProps<{ work: RecipeWork }>()
const recipe = computed(() => props.work.now!.recipe)
const params = computed(() => props.work.now!.params)
const slotList = computed(() => Object.entries(recipe.value.slots))
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
</script>

<template>
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
</template>

<style scoped>
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
