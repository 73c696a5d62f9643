<script setup lang="ts">
import { computed, ref } from 'vue'
import { doorsFor } from '#core/begin/door'
import { makingOf } from '#core/technique/making'
import { requireTechnique } from '#core/technique/registry'
import { fitKindOf, type FitKind } from '#core/wear/kind'
import PartPicture from './PartPicture.vue'

/** How it is made: a handful of doors, each opening on its techniques as small pieces of them; found by typing too. */
const props = defineProps<{ modelValue: string; kind: FitKind; spec: string; used: readonly string[] }>()
defineEmits<{ 'update:modelValue': [technique: string] }>()
const typed = ref('')
const open = ref<string | null>(null)
const doors = computed(() =>
  doorsFor({ kind: props.kind, used: props.used, typed: typed.value.trim(), spec: props.spec }),
)
const isOpen = (id: string) => typed.value.trim() !== '' || open.value === id
const chosenName = computed(() => requireTechnique(props.modelValue).name)
const isChosen = (id: string) => makingOf(props.modelValue).id === id
/** The piece that a door shows: what is chosen behind it, or its first. */
const shownOf = (door: (typeof doors.value)[number]) =>
  door.members.find((m) => m.id === props.modelValue) ?? door.members[0]!
</script>

<template>
  <div class="doors">
    <VTextField
      v-model="typed"
      type="search"
      label="Find a way to make it"
      placeholder="loom, ladder, elastic, disc…"
      density="compact"
      hide-details
      clearable
      @click:clear="typed = ''"
      @keydown.enter.prevent
    />
    <section v-for="door in doors" :key="door.id" class="door" :class="{ open: isOpen(door.id) }">
      <button
        type="button"
        class="head"
        :aria-expanded="isOpen(door.id)"
        :disabled="typed.trim() !== ''"
        @click="open = open === door.id ? null : door.id"
      >
        <PartPicture :part="shownOf(door).sample.part" :tray="shownOf(door).sample.tray" class="shown" close />
        <span class="words"
          ><b>{{ door.title }}</b
          ><span v-if="isChosen(door.id)" class="chosen">Chosen: {{ chosenName }}</span
          ><span v-else>{{ door.says }}</span></span
        >
        <span class="many">{{ door.members.length }}<span class="hidden"> ways</span></span>
      </button>
      <div v-if="isOpen(door.id)" class="members" role="radiogroup" :aria-label="door.title">
        <button
          v-for="m in door.members"
          :key="m.id"
          type="button"
          role="radio"
          :aria-checked="modelValue === m.id"
          :aria-label="m.name"
          :aria-describedby="`about-${m.id}`"
          @click="$emit('update:modelValue', m.id)"
        >
          <PartPicture :part="m.sample.part" :tray="m.sample.tray" class="sample" close />
          <b>{{ m.name }}</b>
          <span :id="`about-${m.id}`" class="about"
            >{{ m.summary }}<span v-if="m.needs" class="needs">Needs: {{ m.needs }}</span></span
          >
        </button>
      </div>
    </section>
    <p v-if="doors.length === 0" class="quiet" role="status">
      Nothing called “{{ typed.trim() }}” can become a {{ fitKindOf(kind).noun }}.
      <button type="button" class="link" @click="typed = ''">Show all</button>
    </p>
  </div>
</template>

<style scoped>
.doors {
  display: grid;
  gap: 8px;
}
.door {
  border-radius: 15px;
  box-shadow: inset 0 0 0 1.5px var(--line);
}
.door.open {
  background: var(--mat-wash, transparent);
}
button {
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: start;
  cursor: pointer;
}
.head {
  width: 100%;
  display: grid;
  grid-template-columns: 92px 1fr auto;
  gap: 14px;
  align-items: center;
  padding: 6px 14px 6px 6px;
  border-radius: 15px;
}
.head:disabled {
  cursor: default;
}
.head:not(:disabled):hover {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
.shown {
  height: 52px;
  border-radius: 10px;
}
.words {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.words b {
  font: 650 16.5px/1.2 var(--title);
}
.words span {
  font-size: 13.5px;
  line-height: 1.35;
  color: var(--soft);
}
.words .chosen {
  color: var(--madder);
  font-weight: 650;
}
.many {
  font: 650 20px/1 var(--title);
  color: var(--soft);
}
.members {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 8px;
  padding: 4px 8px 8px;
}
.members button {
  display: grid;
  align-content: start;
  gap: 5px;
  padding: 5px 5px 10px;
  border-radius: 13px;
  background: var(--paper);
  box-shadow: inset 0 0 0 1.5px var(--line);
}
.members button:hover {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
.members b {
  font: 650 14.5px/1.2 var(--text);
  padding: 3px 6px 0;
}
.about {
  display: grid;
  gap: 3px;
  padding: 0 6px;
  font-size: 12.5px;
  line-height: 1.35;
  color: var(--soft);
}
.needs {
  color: var(--verdigris);
}
.sample {
  height: 56px;
  border-radius: 9px;
}
.members [aria-checked='true'] {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
[aria-checked='true'] .about,
[aria-checked='true'] .needs {
  color: inherit;
  opacity: 0.86;
}
</style>
