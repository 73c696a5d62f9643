<script setup lang="ts">
import { discOf } from '#core/piece/nature'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { readinessOf } from '#core/proof/readiness'
import type { Piece } from '#core/piece/piece'
import { useProof } from '../stores/proof'

/** The way through a piece: a thread with a bead for each stage. */
const props = defineProps<{ piece: Piece; id: string }>()
const route = useRoute()
const proof = useProof()
const readiness = computed(() => readinessOf(props.piece))
const stages = computed(() =>
  [
    { to: 'fit', name: 'Fit', wants: readiness.value.fit },
    { to: 'mat', name: 'Mat', wants: readiness.value.mat },
    ...(props.piece.parts.some((p) => discOf(p)) ? [{ to: 'disc', name: 'Disc', wants: 0 }] : []),
    { to: 'tally', name: 'Tally', wants: readiness.value.tally },
    { to: 'supplies', name: 'Supplies', wants: readiness.value.supplies },
    { to: 'proof', name: 'Proof', wants: proof.wants },
    { to: 'print', name: 'Print', wants: 0 },
    { to: 'bench', name: 'Bench', wants: 0 },
  ].map((s) => ({ ...s, here: route.path.endsWith(`/${s.to}`) })),
)

// Where not all have room, the one at hand is in sight.
const list = useTemplateRef<HTMLElement>('list')
const { width } = useElementSize(list)
watch(
  [() => route.path, () => width.value],
  async () => {
    await nextTick()
    const here = list.value?.querySelector<HTMLElement>('[aria-current]')
    if (list.value && here) list.value.scrollLeft = here.offsetLeft - (list.value.clientWidth - here.offsetWidth) / 2
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <nav class="thread" aria-label="Stages of the piece">
    <ol ref="list">
      <li v-for="stage in stages" :key="stage.to">
        <NuxtLink
          :to="`/piece/${id}/${stage.to}`"
          :class="{ here: stage.here }"
          :aria-current="stage.here ? 'page' : undefined"
        >
          <span class="bead" :class="stage.here ? 'now' : stage.wants ? 'wants' : 'good'" aria-hidden="true" />
          <span class="name"
            >{{ stage.name
            }}<span v-if="stage.wants" class="wants-count"
              >{{ stage.wants }}<span class="hidden"> to look at</span></span
            ></span
          >
        </NuxtLink>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  position: relative;
}
ol::before {
  content: '';
  position: absolute;
  inset: 16px 0 auto;
  border-top: 1.5px solid var(--edge);
  opacity: 0.65;
}
li {
  flex: 1;
  min-width: 84px;
}
a {
  display: grid;
  justify-items: center;
  gap: 5px;
  padding: 4px 4px 2px;
  color: var(--soft);
  text-decoration: none;
  font-size: 14.5px;
  border-radius: 10px;
  position: relative;
}
a:hover .name {
  color: var(--ink);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.here {
  color: var(--ink);
  font-weight: 700;
}
.bead {
  width: 17px;
  height: 24px;
  border-radius: 6px;
  background: linear-gradient(100deg, rgb(255 255 255 / 38%), transparent 46%, rgb(0 0 0 / 22%)), var(--bead);
  box-shadow: 0 0 0 1px rgb(0 0 0 / 20%);
}
.good {
  --bead: #2c857c;
}
.wants {
  --bead: #d39a2c;
}
.now {
  --bead: #a93c49;
  box-shadow:
    0 0 0 3px var(--ground),
    0 0 0 5px var(--madder);
}
.wants-count {
  margin-left: 5px;
  color: var(--marigold);
  font-weight: 700;
}
@media (width <= 720px) {
  .thread {
    position: fixed;
    inset: auto 0 0;
    z-index: 20;
    background: var(--paper);
    padding: 4px 6px calc(4px + env(safe-area-inset-bottom));
    border-top: 1px solid var(--line);
  }
  ol {
    overflow-x: auto;
    scrollbar-width: none;
  }
  ol::before {
    display: none;
  }
  /* Beside its bead, so that names keep their room. */
  .wants-count {
    position: absolute;
    top: 0;
    left: calc(50% + 13px);
    margin: 0;
    font-size: 12.5px;
  }
  li {
    min-width: 63px;
    background: linear-gradient(var(--edge), var(--edge)) 0 16px / 100% 1.5px no-repeat;
  }
  .now {
    box-shadow:
      0 0 0 3px var(--paper),
      0 0 0 5px var(--madder);
  }
}
@media print {
  .thread {
    display: none;
  }
}
</style>
