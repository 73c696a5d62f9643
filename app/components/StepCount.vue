<script setup lang="ts">
/** A count with a button for one fewer and one for one more. */
defineProps<{ label: string; value: number; fewer: string; more: string; unit?: string }>()
defineEmits<{ change: [by: 1 | -1] }>()
</script>

<template>
  <div class="adjust">
    <span>{{ label }}</span><span class="set"
      ><button type="button" :aria-label="fewer" @click="$emit('change', -1)">−</button
      ><b
        >{{ value }}<span v-if="unit" class="quiet"> {{ unit }}</span></b
      ><button type="button" :aria-label="more" @click="$emit('change', 1)">+</button></span
    >
  </div>
</template>

<style scoped>
.adjust {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.set {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
.set b {
  min-width: 44px;
  text-align: center;
  font: 700 20px/1 var(--title);
}
.set button {
  width: 40px;
  height: 40px;
  border: 0;
  border-radius: 10px;
  background: var(--ground);
  color: var(--ink);
  font-size: 20px;
  cursor: pointer;
}
</style>
