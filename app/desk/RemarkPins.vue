<script setup lang="ts">
import RemarkPin from '../remarks/RemarkPin.vue'
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
            number: String(at + 1),
            says: `${me.nameOf(each.author) || 'Somebody'}: ${each.text}`,
            x: each.place.x,
            y: each.place.y,
          },
        ]
      : [],
  ),
)
</script>

<template>
  <RemarkPin
    v-for="pin in pins"
    :key="pin.id"
    role="img"
    :x="pin.x"
    :y="pin.y"
    :title="pin.number"
    :aria-label="`Remark ${pin.number}. ${pin.says}`"
  />
</template>
