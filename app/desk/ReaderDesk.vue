<script setup lang="ts">
import type { Census } from '~~/core/census/census'
import type { FinishedCensus } from '~~/core/format/finished/census'
import type { RemarkPlace } from '~~/core/remarks/remark'
import type { DocumentInfo } from '~~/shared/api'
import type { Remark } from '~~/shared/remarks'
import { useMe } from '../stores/me'
import { counted, grouped } from './words'
import DeskFrame from './DeskFrame.vue'
import RunningHead from './RunningHead.vue'
import PageFolio from './PageFolio.vue'
import ReaderPage from './ReaderPage.vue'
import WhoIsHere from './WhoIsHere.vue'
import SignOff from '../kit/SignOff.vue'
import PageRemarks from '../remarks/PageRemarks.vue'
import { useRemarks } from '../stores/remarks'

/** A document for whoever looks and changes nothing: its pages come as outlines, drawn by the desk, and no face with them. */
const me = useMe()
const props = defineProps<{ info: DocumentInfo }>()
const remarks = useRemarks()
const census = shallowRef<Census | FinishedCensus | null>(null)
const page = ref(0)
const zoom = ref(1)
const scroll = ref<HTMLElement | null>(null)
const pictures = useTemplateRef<{ $el: HTMLElement }[]>('sheets')
const sheets = computed(() => (pictures.value ?? []).map(each => each.$el))
const pages = computed(() => census.value?.document.pages ?? 0)
const title = computed(() => props.info.document.fileName.replace(/\.\w+$/, ''))
const families = computed(() => {
  const counts = new Map<string, number>()
  for (const { name, characters } of census.value
    ? 'fonts' in census.value
      ? census.value.fonts
      : census.value.faces.map(face => ({ name: face.family, characters: face.characters }))
    : [])
    counts.set(name, (counts.get(name) ?? 0) + characters)
  return [...counts].sort((a, b) => b[1] - a[1])
})
const pictureOf = (index: number) => {
  const { id, version } = props.info.document
  return `/api/documents/${id}/page-picture?version=${version}&page=${index}`
}
function go(index: number): void {
  page.value = index
  sheets.value[index]?.scrollIntoView({ block: 'start' })
}
function follow(): void {
  const top = (scroll.value?.getBoundingClientRect().top ?? 0) + 200
  const at = sheets.value.findLastIndex(sheet => sheet.getBoundingClientRect().top <= top)
  page.value = Math.max(0, at)
}
/** What was pointed at on a page: what the next remark is about. */
const pointed = shallowRef<Extract<RemarkPlace, { kind: 'page' }> | null>(null)
const current = ref<string | null>(null)
/** Open remarks by their pages, numbered as they are listed; and what is pointed at for the next one. */
const pins = computed(() => {
  const found = new Map<number, { x: number; y: number; title: string; current: boolean }[]>()
  const put = (on: Extract<RemarkPlace, { kind: 'page' }>, title: string, isCurrent: boolean) =>
    found.set(on.page, [...(found.get(on.page) ?? []), { x: on.x, y: on.y, title, current: isCurrent }])
  remarks.open.forEach((each, at) => {
    if (each.place?.kind === 'page') put(each.place, String(at + 1), each.id === current.value)
  })
  if (pointed.value) put(pointed.value, '+', true)
  return found
})
function goTo(remark: Remark): void {
  current.value = remark.id
  if (remark.place?.kind === 'page') go(remark.place.page)
}
onMounted(async () => {
  census.value = await $fetch<Census | FinishedCensus>(`/api/documents/${props.info.document.id}/census`).catch(
    () => null,
  )
})
useHead({ title: () => `${title.value}, Morphene` })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead :title="title"><WhoIsHere v-if="me.isShared" :document="info.document.id" /></RunningHead>
    <DeskFrame left-name="pages">
      <template #left>
        <div
          ref="scroll"
          role="region"
          aria-label="Pages"
          tabindex="0"
          class="min-h-0 flex-1 overflow-auto bg-desk p-5"
          @scroll.passive="follow"
        >
          <ReaderPage
            v-for="index in pages"
            :key="index"
            ref="sheets"
            :source="pictureOf(index - 1)"
            :number="index"
            :pins="pins.get(index - 1)"
            :style="{ width: `${zoom * 100}%` }"
            @point="pointed = { kind: 'page', page: index - 1, ...$event }"
          />
        </div>
        <PageFolio
          :page="page"
          :pages="pages"
          :zoom="zoom"
          @go="go"
          @fit="zoom = 1"
          @zoom="zoom = Math.max(0.25, Math.min(4, zoom * $event))"
        />
      </template>
      <template #right>
        <div id="tray" class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-8" tabindex="-1">
          <h1>{{ title }}</h1>
          <p class="text-soft">
            You look at this document and change nothing: its pages are drawn by the desk.
            {{ info.rights.includes('take') ? 'You may take it away.' : '' }}
          </p>
          <p v-if="info.rights.includes('take')" class="mt-2">
            <a class="plain inline-block" :href="`/api/documents/${info.document.id}/file?download`">Save the file</a>
          </p>
          <SignOff class="mt-3" :info="info" />
          <PageRemarks :info="info" :page="page" :pointed="pointed" @go="goTo" @kept="pointed = null">
            <template #hint>Point at a place on a page to say something of that.</template>
          </PageRemarks>
          <h2 class="mt-4">{{ counted(families.length, 'family', 'families') }}</h2>
          <table class="mt-1" aria-label="Families of this document">
            <tbody>
              <tr v-for="[family, characters] in families" :key="family">
                <td>{{ family || 'a font without a name' }}</td>
                <td class="number">{{ grouped(characters) }}</td>
              </tr>
            </tbody>
          </table>
          <h2 class="mt-4">{{ counted(info.versions.length, 'version') }}</h2>
          <ol class="mt-1">
            <li
              v-for="each in [...info.versions].reverse().slice(0, 30)"
              :key="each.number"
              class="border-b border-rule py-1"
            >
              {{ each.title }} <span class="text-soft">{{ me.nameOf(each.author) }}</span>
            </li>
          </ol>
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
