<script setup lang="ts">
import type { RepairTarget } from '~~/core/change/repair/target'

/** How far repairs may go from what the document has. */
const limits = defineModel<RepairTarget['limits']>({ required: true })
const fields = [
  { key: 'tracking', title: 'Tracking down to', min: -200, max: 0 },
  { key: 'size', title: 'Size to, %', min: 50, max: 100 },
  { key: 'leading', title: 'Leading to, %', min: 50, max: 100 },
  { key: 'height', title: 'Height by, pt', min: 0, max: 2000 },
] as const

/** A field that says no number leaves what was. */
function set(key: (typeof fields)[number]['key'], field: HTMLInputElement): void {
  if (Number.isFinite(field.valueAsNumber)) limits.value = { ...limits.value, [key]: field.valueAsNumber }
  else field.value = String(limits.value[key])
}
</script>

<template>
  <div class="flex flex-wrap items-end gap-3 text-[13px] text-soft">
    <label v-for="{ key, title, min, max } in fields" :key="key"
      >{{ title }}
      <input
        type="number"
        class="field block w-[84px] text-ink"
        :value="limits[key]"
        :min="min"
        :max="max"
        @change="set(key, $event.target as HTMLInputElement)"
    /></label>
  </div>
</template>
