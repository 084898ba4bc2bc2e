<script setup lang="ts">
import type { Severity } from '~~/core/house/checks'

/** How much a finding matters: a shape and a word, never colour alone. */
const props = defineProps<{ severity: Severity }>()
const shapes = { error: '■', warning: '▲', note: '○' } as const
const colors = { error: 'text-rubric', warning: 'text-ochre', note: 'text-soft' } as const
const shape = computed(() => shapes[props.severity])
</script>

<template>
  <span class="whitespace-nowrap" :class="colors[severity]"
    ><span aria-hidden="true" class="mr-1 inline-block w-[11px] text-center text-[11px]">{{ shape }}</span
    ><span class="text-[13px]">{{ severity }}</span></span
  >
</template>
