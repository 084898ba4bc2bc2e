<script setup lang="ts">
import type { RemarkPlace } from '~~/core/remarks/remark'
import type { DocumentInfo } from '~~/shared/api'
import type { Remark } from '~~/shared/remarks'
import RemarkForm from './RemarkForm.vue'
import RemarkList from './RemarkList.vue'
import Chips from '../kit/Chips.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import { counted } from '../desk/words'
import { useMe } from '../stores/me'
import { useRemarks } from '../stores/remarks'

/** What people say of pages that are looked at as pictures: of a place on one, or of the whole document. */
const props = defineProps<{
  info: DocumentInfo
  /** The page that is shown, from 0. */
  page: number
  /** What was pointed at on a page, for the next remark. */
  pointed: Extract<RemarkPlace, { kind: 'page' }> | null
}>()
const emit = defineEmits<{ go: [remark: Remark]; kept: [] }>()
const me = useMe()
const remarks = useRemarks()
const about = ref<'page' | 'document'>('page')
const current = ref<string | null>(null)
const place = computed((): RemarkPlace | null =>
  about.value === 'document' ? null : (props.pointed ?? { kind: 'page', page: props.page, x: 0.5, y: 0 }),
)
const options = [
  { id: 'page', title: 'A place on a page' },
  { id: 'document', title: 'The whole document' },
] as const
watch(
  () => props.pointed,
  pointed => {
    if (pointed) about.value = 'page'
  },
)
onMounted(() => void remarks.load(props.info.document.id))
function go(remark: Remark): void {
  current.value = remark.id
  emit('go', remark)
}
</script>

<template>
  <section aria-label="Remarks of this document">
    <h2 class="mt-4">{{ counted(remarks.open.length, 'open remark') }}</h2>
    <NoticeLine v-if="remarks.message" kind="failed">{{ remarks.message }}</NoticeLine>
    <template v-if="me.may('remark')">
      <Chips v-model="about" class="mt-2" label="What the next remark is about" :options="options" />
      <RemarkForm
        :version="info.document.version"
        :place="place"
        hint="It is about all of its pages."
        @kept="emit('kept')"
      />
      <p v-if="about === 'page' && !pointed" class="mt-1 text-[13px] text-soft">
        <slot name="hint" />
      </p>
    </template>
    <RemarkList
      :placed="new Map()"
      :current="current"
      :writes="false"
      :changes="info.rights.includes('change')"
      @go="go"
    />
  </section>
</template>
