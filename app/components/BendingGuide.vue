<script setup lang="ts">
import { computed } from 'vue'
import type { Piece } from '#core/piece/piece'
import { guidesOf } from '#core/piece/wire'
import { guideSheetSvg, guideSvg } from '#core/format/guide-svg'
import { SCALE_BAR_MM } from '#core/format/strip-svg'
import { useScreen } from '../composables/screen'
import { saveFile, slug } from '../composables/save-file'

/** What wire is bent by, at true size, with the bar that proves it. */
const props = defineProps<{
  piece: Pick<Piece, 'name' | 'parts'>
  paper?: boolean
  /** The part that is bent now: only its shape is shown. */
  part?: string
}>()
const { pxPerMm, measured } = useScreen()
const all = computed(() =>
  guidesOf({ parts: props.piece.parts.filter(({ id }) => props.part === undefined || props.part === id) }).map(
    ({ parts, guides }) => ({
      whose: parts.map(({ name }) => name).join(', '),
      guides: guides.slice(0, props.part === undefined ? undefined : 1).map((guide) => ({
        ...guide,
        svg: guideSvg(guide),
      })),
    }),
  ),
)
const perMm = computed(() => (props.paper ? '1mm' : `${pxPerMm.value}px`))
/** On screen a millimetre is as large as it was measured there. */
const src = (svg: string) => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
const size = (svg: string) => {
  const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!
  return { width: `calc(${width} * ${perMm.value})`, height: `calc(${height} * ${perMm.value})` }
}
const save = () =>
  saveFile(
    `${slug(props.piece.name)}-bending-guide.svg`,
    guideSheetSvg(
      all.value.flatMap(({ whose, guides }) =>
        props.piece.parts.length > 1
          ? guides.map((guide) => ({ ...guide, title: `${whose}: ${guide.title}` }))
          : guides,
      ),
      `${props.piece.name}: bending guide`,
    ),
    'image/svg+xml',
  )
</script>

<template>
  <section v-if="all.length" class="bend" :class="{ printed: paper }" aria-labelledby="bend">
    <h2 id="bend" :class="{ hidden: part !== undefined }">Bend it</h2>
    <div v-for="({ whose, guides }, k) in all" :key="k">
      <h3 v-if="piece.parts.length > 1 && part === undefined">{{ whose }}</h3>
      <figure v-for="guide in guides" :key="guide.title" :data-guide="guide.title">
        <div class="sheet" tabindex="0" role="group" :aria-label="`Guide: ${guide.title}`">
          <img :src="src(guide.svg)" :alt="`${guide.title}, at true size`" :style="size(guide.svg)" />
        </div>
        <figcaption>
          <b>{{ guide.title }}.</b> {{ guide.says.join(' ') }}
        </figcaption>
      </figure>
    </div>
    <div class="bar">
      <span
        :style="{ width: `calc(${SCALE_BAR_MM} * ${perMm})` }"
        role="img"
        :aria-label="`Bar of ${SCALE_BAR_MM} mm`"
      />
      <span v-if="paper"
        >{{ SCALE_BAR_MM }} mm: lay a rule here. If it is longer or shorter, print again at 100 %.</span
      >
      <span v-else-if="measured">{{ SCALE_BAR_MM }} mm, as this screen was measured.</span>
      <span v-else
        >{{ SCALE_BAR_MM }} mm: lay a rule here. If it is off,
        <NuxtLink to="/settings">measure this screen with a card</NuxtLink>, or print.</span
      >
    </div>
    <button v-if="!paper && part === undefined" type="button" class="button" @click="save">
      Bending guide as SVG
    </button>
  </section>
</template>

<style scoped>
.bend {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
figure {
  margin: 0 0 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
.sheet {
  overflow-x: auto;
  background: #fffdf6;
  border: 1px solid var(--line);
  border-radius: 12px;
  padding: 12px;
  max-width: 100%;
}
.sheet img {
  display: block;
  max-width: none;
}
figcaption {
  color: var(--soft);
  font-size: 15px;
}
.bar {
  display: grid;
  gap: 6px;
  font-size: 14px;
  color: var(--soft);
}
.bar span:first-child {
  height: 8px;
  border: solid var(--ink);
  border-width: 0 1.5px;
  background: linear-gradient(var(--ink), var(--ink)) center / 100% 1.5px no-repeat;
}
.printed {
  margin-top: 7mm;
}
.printed .sheet {
  border: 0;
  padding: 0;
  background: none;
}
@media print {
  .sheet {
    overflow: visible;
  }
}
.printed figure {
  break-inside: avoid;
}
.button {
  justify-self: start;
}
</style>
