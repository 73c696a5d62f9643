<script setup lang="ts">
import { useThemeOnPage } from './composables/theme'

useThemeOnPage()
</script>

<template>
  <VApp>
    <NuxtPage />
  </VApp>
</template>
