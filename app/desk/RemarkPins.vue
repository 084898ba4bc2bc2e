<script setup lang="ts">
import { useMe } from '../stores/me'
import { useRemarks } from '../stores/remarks'

/** Open remarks of readers at points of a page: they look at it as a picture, so no words are marked for them. */
const props = defineProps<{ /** From 0. */ page: number }>()
const remarks = useRemarks()
const me = useMe()
const pins = computed(() =>
  remarks.open.flatMap((each, at) =>
    each.place?.kind === 'page' && each.place.page === props.page
      ? [
          {
            id: each.id,
            number: at + 1,
            says: `${me.nameOf(each.author) || 'Somebody'}: ${each.text}`,
            left: `${each.place.x * 100}%`,
            top: `${each.place.y * 100}%`,
          },
        ]
      : [],
  ),
)
</script>

<template>
  <span
    v-for="pin in pins"
    :key="pin.id"
    role="img"
    class="absolute -mt-[11px] -ml-[11px] flex size-[22px] items-center justify-center rounded-full"
    :class="'border-2 border-white bg-iris text-[12px] text-white'"
    :style="{ left: pin.left, top: pin.top }"
    :aria-label="`Remark ${pin.number}. ${pin.says}`"
    :title="pin.says"
    >{{ pin.number }}</span
  >
</template>
