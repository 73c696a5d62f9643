<script setup lang="ts">
import { boundsOf } from '#core/bounds'
import { onMounted, ref } from 'vue'
import { FIT_TABLE } from '#core/wear/kind'
import { measuresSchema, type Measures, type Person, type ShelfItem } from '#core/shelf/shelf'
import { useLengths } from '../composables/lengths'
import { saying } from '../composables/saying'
import { useShelf } from '../stores/shelf'
import ReadForm from '../components/ReadForm.vue'
import LengthField from '../components/LengthField.vue'
import PutBackBar from '../components/PutBackBar.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'People · Weben' })
const shelf = useShelf()
const { length } = useLengths()
const says = ref('')
const known = ref(false)
const putBack = ref<InstanceType<typeof PutBackBar>>()
const guarded = (work: () => Promise<unknown>) => {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}
onMounted(async () => {
  await guarded(() => shelf.fetch())
  known.value = true
})

/** Every measure once, with the words of the kind that asks for it. */
const FIELDS: readonly { key: keyof Measures; name: string; howTo: string; usual: number }[] = [
  ...new Map(
    FIT_TABLE.flatMap((k) => [
      [
        k.measure,
        {
          key: k.measure,
          name:
            k.measure === 'necklace'
              ? 'Necklace length they like'
              : k.measure === 'drop'
                ? 'Earring drop they like'
                : k.measure === 'hoop'
                  ? 'Hoop they like, round'
                  : k.measure === 'pendant'
                    ? 'Pendant they like, long'
                    : k.measureName,
          howTo: k.howTo,
          usual: k.usualMm,
        },
      ] as const,
      ...(k.passes
        ? [
            [
              k.passes.measure,
              {
                key: k.passes.measure,
                name: k.passes.name,
                howTo: k.passes.howTo,
                usual: { hand: 205, heel: 310, head: 570 }[k.passes.measure as 'hand' | 'heel' | 'head'],
              },
            ] as const,
          ]
        : []),
    ]),
  ).values(),
]
const EARS = [
  { value: '', title: 'not said' },
  { value: 'ear-wire', title: 'ear wires' },
  { value: 'post', title: 'posts' },
  { value: 'clip', title: 'clips, not pierced' },
]

type Draft = { -readonly [K in keyof Person]: Person[K] }
const draft = ref<Draft | null>(null)
const editing = ref<(ShelfItem & { value: Person }) | null>(null)
function begin() {
  editing.value = null
  draft.value = { kind: 'person', name: '', measures: measuresSchema.parse({}), ear: '', notes: '', easeMm: null }
}
function edit(item: ShelfItem & { value: Person }) {
  editing.value = item
  draft.value = { ...item.value, measures: { ...item.value.measures } }
}
async function keep() {
  const person = draft.value
  if (!person) return
  if (person.name.trim() === '') {
    says.value = 'Give the person a name, or a word that you know them by.'
    return
  }
  const value = { ...person, name: person.name.trim() }
  await guarded(async () => {
    if (editing.value) await shelf.change(editing.value, value)
    else await shelf.keep([value])
    draft.value = null
  })
}
const setMeasure = (key: keyof Measures, mm: number | null) => {
  if (draft.value) draft.value.measures = { ...draft.value.measures, [key]: mm }
}
const measured = (person: Person) =>
  FIELDS.flatMap((f) =>
    person.measures[f.key] === null ? [] : [`${f.name.toLowerCase()} ${length(person.measures[f.key]!)}`],
  )
</script>

<template>
  <div>
    <WorkshopHead title="People"
      ><button type="button" class="button main" @click="begin">Add a person</button
      ><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead
    >
    <main class="page">
      <p v-if="says && !draft" class="says" role="alert">{{ says }}</p>
      <p v-if="known && shelf.people.length === 0 && !draft" class="soft">
        Nobody yet. Measure someone once and every piece you make for them fits.
      </p>
      <ReadForm v-if="draft" class="sheet form" aria-label="Person" @done="keep">
        <h2>{{ editing ? editing.value.name : 'A new person' }}</h2>
        <VTextField v-model="draft.name" label="Name" maxlength="60" autofocus />
        <div class="fields">
          <div v-for="f in FIELDS" :key="f.key" class="field">
            <template v-if="draft.measures[f.key] !== null"
              ><LengthField
                :model-value="draft.measures[f.key]!"
                :label="f.name"
                :bounds="boundsOf(measuresSchema, f.key)"
                :hint="f.howTo"
                @update:model-value="(mm) => setMeasure(f.key, mm)"
              /><button
                type="button"
                class="link"
                :aria-label="`${f.name}: not measured`"
                @click="setMeasure(f.key, null)"
              >
                Not measured
              </button></template
            >
            <button v-else type="button" class="button add" @click="setMeasure(f.key, f.usual)">+ {{ f.name }}</button>
          </div>
          <VSelect v-model="draft.ear" :items="EARS" label="Ears" />
        </div>
        <VTextarea
          v-model="draft.notes"
          label="Notes"
          rows="2"
          auto-grow
          maxlength="1000"
          placeholder="Likes it loose; no nickel"
        />
        <p v-if="says" class="says" role="alert">{{ says }}</p>
        <div class="acts">
          <button type="submit" class="button main">Keep</button
          ><button type="button" class="button plain" @click="draft = null">Not now</button>
        </div>
      </ReadForm>
      <ul>
        <li v-for="p in shelf.people" :key="p.id">
          <div>
            <b>{{ p.value.name }}</b><span class="soft">{{ measured(p.value).join(' · ') || 'nothing measured' }}</span
            ><span v-if="p.value.ear || p.value.notes" class="quiet">{{
              [EARS.find((e) => p.value.ear && e.value === p.value.ear)?.title, p.value.notes]
                .filter(Boolean)
                .join(' · ')
            }}</span>
          </div>
          <span class="acts"
            ><button type="button" class="button" :aria-label="`Change ${p.value.name}`" @click="edit(p)">
              Change</button
            ><button
              type="button"
              class="link"
              :aria-label="`Take ${p.value.name} out`"
              @click="guarded(() => putBack!.takeOff(p))"
            >
              Take out
            </button></span
          >
        </li>
      </ul>
      <PutBackBar ref="putBack" />
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1080px;
  margin: 0 auto;
  padding: 8px 28px 40px;
  display: grid;
  gap: 22px;
}
.form {
  display: grid;
  gap: 18px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 16px 20px;
  align-items: start;
}
.field {
  display: grid;
  gap: 2px;
}
.add {
  justify-content: flex-start;
  min-height: 48px;
  font-weight: 500;
}
.link {
  justify-self: start;
  min-height: 32px;
  font-size: 13.5px;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
.says {
  color: var(--marigold);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 16px;
  align-items: center;
  padding: 14px 0;
  border-top: 1px solid var(--line);
}
li > div {
  display: grid;
  gap: 3px;
}
li b {
  font: 650 17px/1.2 var(--title);
}
@media (width <= 600px) {
  .page {
    padding: 4px 14px 28px;
  }
  li {
    grid-template-columns: 1fr;
    gap: 8px;
  }
}
</style>
