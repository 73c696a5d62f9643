<script setup lang="ts">
definePageMeta({ redirect: (to) => `/piece/${String(to.params.id)}/mat` })
</script>

<template>
  <div />
</template>
