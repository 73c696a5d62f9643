<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { DEMO_SIGN_IN } from '#core/contract/account'
import { ApiError, reach } from '../composables/api'
import { useAccount } from '../stores/account'

/**
 * How the page stands with the server, on every page: away, renewed, or signed out; then one signs in again in place
 * and goes on.
 */
const store = useAccount()
const route = useRoute()
const password = ref('')
const problem = ref('')
const busy = ref(false)
const asks = computed(() => reach.signedOut !== '' && store.account !== null)
watch(asks, () => {
  password.value = ''
  problem.value = ''
})
const isDemo = computed(() => store.demo && store.account?.signIn === DEMO_SIGN_IN)

async function again() {
  busy.value = true
  problem.value = ''
  try {
    await (isDemo.value ? store.openDemo() : store.signIn(store.account!.signIn, password.value))
  } catch (error) {
    problem.value =
      error instanceof ApiError
        ? (error.problems[0]?.says.replace(/^\w+: /, '') ?? error.says)
        : 'That did not work. Try again in a moment.'
  } finally {
    busy.value = false
  }
}
const reload = () => window.location.reload()
const wayIn = () => window.location.assign('/enter')
</script>

<template>
  <p v-if="reach.renewed" class="bar" role="alert">
    Weben was renewed since this page was opened. What you did is kept in this browser.
    <button type="button" class="button" @click="reload">Reload the page</button>
  </p>
  <p v-else-if="reach.away" class="bar" role="status">
    Weben’s server cannot be reached. It is tried again by itself{{
      route.path.startsWith('/piece/')
        ? '; what you do to this piece is kept in this browser and sent then'
        : '; until then nothing can be saved on this page'
    }}.
  </p>
  <VDialog :model-value="asks" persistent max-width="460" aria-label="Sign in again">
    <form class="sheet again" @submit.prevent="again">
      <h2>Sign in again</h2>
      <p>{{ reach.signedOut }}</p>
      <VTextField :model-value="store.account?.signIn" label="Name" autocomplete="username" readonly />
      <VTextField
        v-if="!isDemo"
        v-model="password"
        label="Password"
        type="password"
        autocomplete="current-password"
        autofocus
      />
      <p v-if="problem" class="trouble" role="alert">{{ problem }}</p>
      <button class="button main" type="submit" :disabled="busy">Sign in and go on</button>
      <button class="button plain" type="button" @click="wayIn">I am someone else</button>
    </form>
  </VDialog>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 30;
  margin: 0;
  padding: 8px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  background: var(--marigold-wash);
  color: var(--marigold);
  font-weight: 600;
}
.again {
  display: grid;
  gap: 14px;
  box-shadow: var(--shadow);
}
.trouble {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: var(--round-in);
}
@media print {
  .bar {
    display: none;
  }
}
</style>
