<script setup lang="ts">
import { ringStripSvg, wristStripSvg } from '#core/format/strip-svg'
import { saveFile } from '../../composables/save-file'
import WorkshopHead from '../../components/WorkshopHead.vue'

useHead({ title: 'Strips to print · Weben' })
const wrist = wristStripSvg()
const ring = ringStripSvg()
const address = (svg: string) => `data:image/svg+xml,${encodeURIComponent(svg)}`
const printIt = () => window.print()
</script>

<template>
  <div>
    <WorkshopHead title="Strips to print"
      ><button type="button" class="button main" @click="printIt">Print at 100 %</button
      ><NuxtLink to="/reference" class="button plain">Back</NuxtLink></WorkshopHead
    >
    <main class="page">
      <div class="how">
        <p>
          <b>Print at 100 %</b>, without “fit to page”. Lay a rule on the 50 mm bar: if it is longer or shorter, the
          strip lies.
        </p>
        <p>
          <b>Wrist.</b> Cut the long strip out. Lay it flat round the wrist at the bone, snug and not tight, and read
          where the arrow’s edge meets the numbers. Measure twice.
        </p>
        <p>
          <b>Finger.</b> Cut the short strip out and the slit. Put the arrow through the slit, pull it close on the
          warm finger, and read at the slit; it must also pass the knuckle.
        </p>
        <p class="acts">
          <button type="button" class="button" @click="saveFile('wrist-strip.svg', wrist, 'image/svg+xml')">
            Wrist strip as SVG</button
          ><button type="button" class="button" @click="saveFile('ring-strip.svg', ring, 'image/svg+xml')">
            Ring strip as SVG
          </button>
        </p>
      </div>
      <div class="strips">
        <img :src="address(wrist)" alt="Strip to measure a wrist, 230 mm, with a bar of 50 mm" /><img
          :src="address(ring)"
          alt="Strip to measure a finger in ISO, United States and British sizes, with a bar of 50 mm"
        />
      </div>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 8px 28px 40px;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 40px;
  align-items: start;
}
.how {
  display: grid;
  gap: 14px;
  max-width: 520px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.strips {
  display: flex;
  gap: 8mm;
  background: #fff;
  border-radius: 6px;
  padding: 4mm;
  align-items: flex-start;
}
.strips img {
  display: block;
}
@media (width <= 700px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 4px 14px 28px;
  }
  .strips {
    overflow-x: auto;
  }
}
@media print {
  .how {
    display: none;
  }
  .page {
    display: block;
    padding: 0;
  }
  .strips {
    padding: 0;
  }
  @page {
    margin: 10mm;
  }
}
</style>
