<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue'
import { anyAnswer } from '#core/contract/answer'
import { piecesAnswer, type Listing } from '#core/contract/piece'
import { requireTechnique } from '#core/technique/registry'
import { api } from '../composables/api'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { forgetPiece } from '../line/kept'
import WorkshopHead from '../components/WorkshopHead.vue'

/** What was put away: to bring back, or to remove for good. */
useHead({ title: 'Put-away pieces · Weben' })
const account = useAccount()
const pieces = ref<Listing[] | null>(null)
const says = ref('')
const done = ref('')
const asked = ref<Listing | null>(null)
const guarded = (work: () => Promise<unknown>) => {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}
const load = async () => {
  pieces.value = (await api(piecesAnswer, 'piece?away=1')).pieces
}
onMounted(() => guarded(load))

/** The list is shorter by one: the focus goes to what took its place. */
async function settle(at: number, said: string) {
  done.value = said
  await load()
  await nextTick()
  const left = document.querySelectorAll<HTMLElement>('.away .button, .back')
  left[Math.min(2 * at, left.length - 1)]?.focus()
}
const bringBack = (piece: Listing) =>
  guarded(async () => {
    const at = pieces.value!.indexOf(piece)
    await api(anyAnswer, `piece/${piece.id}/restore`, { method: 'POST', body: {} })
    await settle(at, `${piece.name} is in the workshop again.`)
  })
const removeForGood = () =>
  guarded(async () => {
    const piece = asked.value!
    const at = pieces.value!.indexOf(piece)
    asked.value = null
    await api(anyAnswer, `piece/${piece.id}?for=good`, { method: 'DELETE' })
    await forgetPiece({ account: account.account!.id, piece: piece.id })
    await settle(at, `${piece.name} was removed for good.`)
  })
</script>

<template>
  <div>
    <WorkshopHead title="Put-away pieces"><NuxtLink to="/" class="button plain back">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <p v-if="says" class="trouble" role="alert">{{ says }}</p>
      <p class="soft" role="status">
        {{
          done ||
          (pieces?.length === 0
            ? 'Nothing is put away.'
            : pieces
              ? 'Nothing here is lost until you remove it for good.'
              : 'Looking…')
        }}
      </p>
      <ul v-if="pieces?.length" class="away">
        <li v-for="p in pieces" :key="p.id">
          <div>
            <span class="name">{{ p.name }}</span><span class="quiet">{{
              requireTechnique(p.summary.technique).name.toLowerCase()
            }}</span>
          </div>
          <button type="button" class="button" :aria-label="`Bring ${p.name} back`" @click="bringBack(p)">
            Bring it back
          </button>
          <button type="button" class="button plain" :aria-label="`Remove ${p.name} for good`" @click="asked = p">
            Remove for good
          </button>
        </li>
      </ul>
    </main>
    <VDialog
      :model-value="asked !== null"
      max-width="460"
      role="alertdialog"
      aria-label="Remove for good?"
      @update:model-value="
        (v) => {
          if (!v) asked = null
        }
      "
    >
      <div class="sheet ask">
        <h2>Remove {{ asked?.name }} for good?</h2>
        <p>
          The pattern, all its earlier states and what it holds of the box are gone then. Save it as a piece file first
          if you may want it again.
        </p>
        <button type="button" class="button main" @click="asked = null">Keep it</button>
        <button type="button" class="button" @click="removeForGood">Remove it for good</button>
      </div>
    </VDialog>
  </div>
</template>

<style scoped>
.page {
  max-width: 860px;
  margin: 0 auto;
  padding: 12px 28px 48px;
  display: grid;
  gap: 16px;
}
.trouble {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 12px 16px;
  border-radius: var(--round-in);
}
.away {
  list-style: none;
  margin: 0;
  padding: 0;
}
.away li {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 12px 0;
  border-top: 1px solid var(--line);
}
.away div {
  flex: 1 1 220px;
  display: grid;
}
.name {
  font: 650 19px/1.3 var(--title);
}
.ask {
  display: grid;
  gap: 14px;
  box-shadow: var(--shadow);
}
@media (width <= 600px) {
  .away .plain {
    margin-left: auto;
  }
  .page {
    padding: 8px 14px 32px;
  }
}
</style>
