<script setup lang="ts">
import type { RemarkPlace } from '~~/core/remarks/remark'
import GiveTo from './GiveTo.vue'
import { aboutWords } from './words'
import { useMe } from '../stores/me'
import { useRemarks } from '../stores/remarks'

/** Where a new remark is written. */
const props = defineProps<{
  version: number
  /** What is selected or pointed at: what the remark is about, unless it is about the whole document. */
  place: RemarkPlace | null
  /** What to do to say of which place it is. */
  hint: string
}>()
const emit = defineEmits<{ kept: [] }>()
const me = useMe()
const remarks = useRemarks()
const text = ref('')
const to = ref<string | null>(null)
const busy = ref(false)

async function keep(): Promise<void> {
  if (text.value.trim() === '' || busy.value) return
  busy.value = true
  // What was written stays where it could not be kept.
  if (await remarks.add({ version: props.version, place: props.place, text: text.value, to: to.value })) {
    text.value = ''
    emit('kept')
  }
  busy.value = false
}
</script>

<template>
  <form class="mt-3" aria-label="A new remark" @submit.prevent="keep">
    <p>
      <span class="text-soft">About </span><strong class="font-medium">{{ aboutWords({ place }, -1) }}</strong
      ><span v-if="place === null" class="text-soft">. {{ hint }}</span>
    </p>
    <label class="mt-1 block text-[13px] text-soft"
      >What you say
      <textarea
        v-model="text"
        rows="3"
        maxlength="4000"
        class="field mt-[2px] h-auto w-full py-1 text-[14px] text-ink"
        @keydown.ctrl.enter.prevent="keep"
        @keydown.meta.enter.prevent="keep"
      />
    </label>
    <div class="mt-1 flex flex-wrap items-end gap-2">
      <span v-if="me.isShared" class="text-[13px] text-soft"
        >Given to <GiveTo v-model="to" label="Whom it is given to" class="mt-[2px] min-w-[160px] text-[14px] text-ink"
      /></span>
      <button type="submit" class="act" :disabled="busy || text.trim() === ''">Keep the remark</button>
    </div>
  </form>
</template>
