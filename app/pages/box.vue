<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { DEFAULT_SPEC, requireSpec, shapeName } from '#core/bead/spec'
import { readPalette, writePalette } from '#core/format/palette'
import { sameLook } from '#core/piece/tray'
import { saveFile } from '../composables/save-file'
import { saying } from '../composables/saying'
import { useShelf } from '../stores/shelf'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Box · Weben' })
const shelf = useShelf()
const says = ref('')
const known = ref(false)

function guarded(work: () => Promise<void>) {
  says.value = ''
  return saying(work, (text) => { says.value = text })
}
onMounted(async () => { await guarded(() => shelf.fetch()); known.value = true })

const bySize = computed(() => {
  const sizes = new Map<string, (typeof shelf.beads)[number][]>()
  for (const item of shelf.beads) sizes.set(item.value.spec, [...sizes.get(item.value.spec) ?? [], item])
  return [...sizes].map(([spec, items]) => ({ spec: requireSpec(spec), items }))
})
const out = () => saveFile('my-box.gpl', writePalette('My box', shelf.beads.map(i => i.value)), 'text/plain')
async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const palette = readPalette(await file.text(), DEFAULT_SPEC)
  if (!palette.ok) { says.value = palette.problems[0]!.says; return }
  const fresh = palette.value.beads.filter(b => !shelf.beads.some(i => sameLook(i.value, b)))
  await guarded(async () => { if (fresh.length > 0) await shelf.keep(fresh.map(b => ({ kind: 'bead' as const, ...b }))) })
  if (!says.value) says.value = `${fresh.length} of ${palette.value.beads.length} colours are new and were put in.`
}
</script>

<template>
  <div>
    <WorkshopHead title="Box"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <div class="acts">
        <label class="button">Palette in<input type="file" accept=".gpl,text/plain" class="hidden" aria-label="Palette in" @change="read"></label>
        <button type="button" class="button" :disabled="shelf.beads.length === 0" @click="out">Palette out</button>
      </div>
      <p v-if="says" class="says" role="status">{{ says }}</p>
      <p v-if="known && shelf.items.length === 0" class="soft">The box is empty. On the mat, press “Change” at a bead of the tray and keep it in your box; or read in a palette.</p>
      <section v-for="size in bySize" :key="size.spec.id">
        <h2>{{ size.spec.name }}</h2>
        <ul>
          <li v-for="item in size.items" :key="item.id"><span class="swatch" :style="{ '--bead': item.value.colour }" /><span><b>{{ item.value.name }}</b><span class="quiet">{{ item.value.finish }}</span></span><button type="button" class="link" :aria-label="`Take ${item.value.name} out`" @click="guarded(() => shelf.takeOff(item.id))">Take out</button></li>
        </ul>
      </section>
      <section v-if="shelf.specs.length">
        <h2>Sizes of my own</h2>
        <ul>
          <li v-for="item in shelf.specs" :key="item.id"><span /><span><b>{{ item.value.name }}</b><span class="quiet">{{ shapeName(requireSpec(item.value.spec).shape) }}, {{ requireSpec(item.value.spec).d }} × {{ requireSpec(item.value.spec).l }} mm, hole {{ requireSpec(item.value.spec).h }} mm, {{ requireSpec(item.value.spec).perGram }} in a gram</span></span><button type="button" class="link" :aria-label="`Take ${item.value.name} out`" @click="guarded(() => shelf.takeOff(item.id))">Take out</button></li>
        </ul>
      </section>
      <section v-if="shelf.stamps.length">
        <h2>Stamps</h2>
        <ul>
          <li v-for="item in shelf.stamps" :key="item.id"><span /><span><b>{{ item.value.name }}</b><span class="quiet">{{ item.value.columns }} × {{ item.value.rows }} beads</span></span><button type="button" class="link" :aria-label="`Throw ${item.value.name} away`" @click="guarded(() => shelf.takeOff(item.id))">Throw away</button></li>
        </ul>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page { max-width: 1080px; margin: 0 auto; padding: 8px 28px 40px; display: grid; gap: 26px; }
.acts { display: flex; gap: 12px; }
.says { background: var(--verdigris-wash); color: var(--verdigris); padding: 10px 14px; border-radius: 10px; }
section { display: grid; gap: 10px; }
ul { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(250px, 1fr)); gap: 4px 28px; }
li { display: grid; grid-template-columns: 24px 1fr auto; gap: 10px; align-items: center; padding: 8px 0; border-bottom: 1px solid var(--line); }
li > span:nth-child(2) { display: grid; }
.link { min-height: 44px; font-size: 14px; }
@media (width <= 600px) { .page { padding: 4px 14px 28px; } }
</style>
