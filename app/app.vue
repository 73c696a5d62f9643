<script setup lang="ts">
import { watchReach } from './composables/api'
import { keepFocus } from './composables/focus'
import { useThemeOnPage } from './composables/theme'
import { useOutbox } from './stores/outbox'
import ReachNote from './components/ReachNote.vue'

useThemeOnPage()
keepFocus()
watchReach()
useOutbox().begin()
</script>

<template>
  <VApp>
    <ReachNote />
    <NuxtPage />
  </VApp>
</template>
