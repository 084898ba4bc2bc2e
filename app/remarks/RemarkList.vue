<script setup lang="ts">
import type { PlacedRemark } from '~~/core/desk/remark-places'
import type { Remark } from '~~/shared/remarks'
import RemarkItem from './RemarkItem.vue'
import Chips from '../kit/Chips.vue'
import { useMe } from '../stores/me'
import { useRemarks } from '../stores/remarks'

/** What was said of a document: what is open, what is for whoever looks, what is settled. */
const props = defineProps<{
  /** Where the words of remarks are now, by their ids. */
  placed: ReadonlyMap<string, PlacedRemark>
  /** The remark that the walk is at. */
  current: string | null
  writes: boolean
  /** Whoever looks may change the document: then all remarks are theirs to give and settle. */
  changes: boolean
}>()
const emit = defineEmits<{ go: [remark: Remark]; write: [remark: Remark] }>()
const me = useMe()
const remarks = useRemarks()
const which = ref<'open' | 'mine' | 'settled'>('open')
const mine = computed(() => remarks.open.filter(each => each.to !== null && each.to === me.me?.person?.id))
const shown = computed(() => ({ open: remarks.open, mine: mine.value, settled: remarks.settled })[which.value])
const chips = computed(() => [
  { id: 'open' as const, title: 'Open', count: remarks.open.length },
  ...(me.isShared ? [{ id: 'mine' as const, title: 'For you', count: mine.value.length }] : []),
  { id: 'settled' as const, title: 'Settled', count: remarks.settled.length },
])
</script>

<template>
  <div>
    <Chips v-model="which" class="mt-3" label="Which remarks are shown" :options="chips" />
    <ul v-if="shown.length > 0" class="mt-2 border-t border-rule" aria-label="Remarks">
      <RemarkItem
        v-for="remark in shown"
        :key="remark.id"
        :remark="remark"
        :placed="props.placed.get(remark.id) ?? null"
        :current="current === remark.id"
        :writes="writes"
        :changes="changes"
        @go="emit('go', remark)"
        @write="emit('write', remark)"
      />
    </ul>
    <p v-else class="mt-3 text-soft">
      {{
        which === 'settled'
          ? 'None is settled.'
          : which === 'mine'
            ? 'None is given to you.'
            : 'Nobody has said anything that is still open.'
      }}
    </p>
  </div>
</template>
