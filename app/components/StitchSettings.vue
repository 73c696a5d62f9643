<script setup lang="ts">
import { computed } from 'vue'
import { boundsOf } from '#core/bounds'
import { requireTechnique } from '#core/technique/registry'
import type { SettingField, Settings } from '#core/technique/technique'
import LengthField from './LengthField.vue'
import NumberField from './NumberField.vue'

/** What a stitch itself lets one choose. */
const props = defineProps<{ technique: string; settings: Settings }>()
const emit = defineEmits<{ change: [key: string, value: string | number | boolean] }>()
const fields = computed(() =>
  requireTechnique(props.technique).fields.filter(({ counts }) => counts?.(props.settings) ?? true),
)
/** What a field may be, as the stitch's own schema has it. */
const bounds = (field: SettingField) => boundsOf(requireTechnique(props.technique).settings, field.key)
const items = (field: SettingField) =>
  field.kind === 'count'
    ? Array.from({ length: bounds(field).most - bounds(field).least + 1 }, (_, k) => ({
        value: bounds(field).least + k,
        title: String(bounds(field).least + k),
      }))
    : field.choices!.map((c) => ({ value: c.value, title: c.label }))
</script>

<template>
  <template v-for="field in fields" :key="field.key">
    <LengthField
      v-if="field.kind === 'length'"
      :model-value="Number(settings[field.key])"
      :label="field.label"
      :hint="field.help"
      :decimals="2"
      :least="bounds(field).least"
      :most="bounds(field).most"
      @update:model-value="(mm) => emit('change', field.key, mm)"
    />
    <VTextField
      v-else-if="field.kind === 'text'"
      :model-value="String(settings[field.key])"
      :label="field.label"
      :hint="field.help"
      persistent-hint
      maxlength="590"
      @change="(e: Event) => emit('change', field.key, (e.target as HTMLInputElement).value.trim())"
    />
    <NumberField
      v-else-if="field.kind === 'number'"
      :model-value="Number(settings[field.key])"
      :label="field.label"
      :hint="field.help"
      :bounds="bounds(field)"
      @update:model-value="(n) => emit('change', field.key, n)"
    />
    <label v-else-if="field.kind === 'flag'" class="flag"
      ><input
        type="checkbox"
        :checked="Boolean(settings[field.key])"
        @change="(e) => emit('change', field.key, (e.target as HTMLInputElement).checked)"
      /><span
        >{{ field.label }}<span class="quiet">{{ field.help }}</span></span
      ></label
    >
    <VSelect
      v-else
      :model-value="settings[field.key]"
      :items="items(field)"
      :label="field.label"
      :hint="field.help"
      persistent-hint
      @update:model-value="(v) => emit('change', field.key, v)"
    />
  </template>
</template>

<style scoped>
.flag {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
.flag input {
  width: 22px;
  height: 22px;
  accent-color: var(--madder);
}
.flag > span {
  display: grid;
}
</style>
