<script setup lang="ts">
import { saveFile } from '../../kit/save-file'
import Choice from '../../kit/Choice.vue'
import FaceRights from './FaceRights.vue'
import { useDesk } from '../../stores/desk'
import { counted } from '../../desk/words'

const desk = useDesk()
const document = computed(() => desk.info!.document)
const versions = computed(() => [...desk.info!.versions].reverse())
const when = (date: string | Date) =>
  new Date(date).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
const absent = computed(() => [
  ...new Set((desk.census?.faces ?? []).filter(face => face.status === 'absent').map(face => face.family)),
])

const bleed = ref(0)
const marks = ref(false)
const leaveOut = ref(false)
const notes = ref(false)
const making = ref(false)
const refused = ref('')
/** Whether it was a licence that stood in the way: only then is there a choice to leave faces out. */
const mayNotEmbed = ref(false)
const made = ref<{
  pages: number
  notEmbedded: string[]
  pictures: string[]
  unlaid: { feature: string; count: number }[]
} | null>(null)

/** Has the pages written as PDF, and saves them under the document's name. */
async function makePdf(): Promise<void> {
  making.value = true
  refused.value = ''
  made.value = null
  try {
    const yes = (on: boolean) => (on ? 'yes' : 'no')
    const asked = new URLSearchParams({
      bleed: String(bleed.value),
      marks: yes(marks.value),
      leaveOut: yes(leaveOut.value),
      notes: yes(notes.value),
    })
    const response = await fetch(`/api/documents/${document.value.id}/pdf?${asked}`)
    if (!response.ok) {
      const refusal = (await response.json()) as { message?: string; data?: { fault?: string } }
      mayNotEmbed.value ||= refusal.data?.fault === 'may-not-embed'
      throw new Error(refusal.message ?? 'The PDF could not be made.')
    }
    saveFile(await response.blob(), document.value.fileName.replace(/\.\w+$/, '.pdf'))
    made.value = JSON.parse(decodeURIComponent(response.headers.get('x-pdf-notes') ?? 'null'))
  } catch (error) {
    refused.value = error instanceof Error ? error.message : String(error)
  }
  making.value = false
}
const file = (version?: number) =>
  `/api/documents/${document.value.id}/file?download=1${version === undefined ? '' : `&version=${version}`}`
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <h1>Hand it on</h1>
    <p class="text-soft">
      The file is an OpenDocument {{ document.kind }} as it came, with only what you changed rewritten.
    </p>
    <p v-if="absent.length > 0" class="notice mt-3">
      <strong>It still names {{ absent.join(', ') }}</strong
      >, absent here. Stand-ins are never written into the file; whoever opens it needs the font or sees another.
    </p>
    <p v-if="desk.signed && document.version > 1" class="notice mt-3">
      <strong>Its signature no longer holds</strong>, because the document was changed.
    </p>
    <div class="mt-4 flex gap-2">
      <a class="act" :href="file()">Download {{ document.fileName }}</a>
      <a class="plain" :href="`/api/documents/${document.id}/census?format=csv`">Download the census as CSV</a>
    </div>
    <FaceRights />
    <h2 class="mt-6">For print and reading</h2>
    <p class="text-soft">
      The pages as a PDF at true size, with the faces they are set in, headings as bookmarks, and text that can be
      searched.
    </p>
    <div class="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
      <label class="flex items-center gap-2 text-soft"
        >Bleed
        <Choice v-model.number="bleed" class="text-ink">
          <option :value="0">none</option>
          <option :value="3">3 mm</option>
          <option :value="5">5 mm</option>
        </Choice>
      </label>
      <label class="flex items-center gap-2"><input v-model="marks" type="checkbox" />Crop marks</label>
      <label v-if="desk.all.notes.length > 0" class="flex items-center gap-2"
        ><input v-model="notes" type="checkbox" />The pages of speaker notes too</label
      >
      <label v-if="mayNotEmbed" class="flex items-center gap-2"
        ><input v-model="leaveOut" type="checkbox" />Leave out faces that may not be embedded</label
      >
      <button type="button" class="plain" :disabled="making" @click="makePdf">
        {{ making ? 'Setting the pages' : 'Download as PDF' }}
      </button>
    </div>
    <p v-if="refused" role="alert" class="mt-2 text-rubric">{{ refused }}</p>
    <div v-if="made" class="mt-2 text-soft" aria-live="polite">
      <p>
        Saved, {{ counted(made.pages, 'page') }}.
        <template v-if="made.notEmbedded.length > 0">Named, not embedded: {{ made.notEmbedded.join(', ') }}. </template
        ><template v-if="made.pictures.length > 0">Shown as grey boxes: {{ made.pictures.join(', ') }}. </template>
      </p>
      <p v-if="made.unlaid.length > 0">
        Not set as the file asks: {{ made.unlaid.map(each => `${each.feature}, ${each.count}`).join('; ') }}.
      </p>
    </div>
    <h2 class="mt-6">Versions</h2>
    <p class="text-soft">{{ counted(versions.length, 'version') }}; each is kept as it was.</p>
    <table class="mt-1 table-fixed">
      <colgroup>
        <col class="w-[64px]" />
        <col />
        <col class="w-[150px]" />
        <col class="w-[150px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Version</th>
          <th scope="col">Made by</th>
          <th scope="col">When</th>
          <th scope="col"><span class="sr-only">Files</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="version in versions" :key="version.number">
          <td class="tabular-nums">{{ version.number }}</td>
          <td>{{ version.title }}</td>
          <td class="text-soft">{{ when(version.created) }}</td>
          <td class="whitespace-nowrap">
            <a class="link" :href="file(version.number)">File</a
            ><template v-if="version.madeBy === 'change'">
              ·
              <NuxtLink
                class="link"
                :to="`/records/${document.id}/${version.number}`"
                :aria-label="`Record of version ${version.number}`"
                >Record</NuxtLink
              >
              ·
              <a
                class="link"
                :href="`/api/documents/${document.id}/record-pdf?version=${version.number}`"
                :aria-label="`Record of version ${version.number} as PDF`"
                >PDF</a
              >
              ·
              <a
                class="link"
                :href="`/api/documents/${document.id}/record-csv?version=${version.number}`"
                :aria-label="`Record of version ${version.number} as CSV`"
                >CSV</a
              ></template
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
