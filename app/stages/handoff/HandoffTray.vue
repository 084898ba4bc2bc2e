<script setup lang="ts">
import BundleRow from './BundleRow.vue'
import FaceRights from './FaceRights.vue'
import FormsRow from './FormsRow.vue'
import PdfRow from './PdfRow.vue'
import PrintRow from './PrintRow.vue'
import SignOff from '../../kit/SignOff.vue'
import { useDesk } from '../../stores/desk'
import { useMe } from '../../stores/me'
import { counted } from '../../desk/words'

const desk = useDesk()
const me = useMe()
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
    <SignOff v-if="desk.info" class="mt-3" :info="desk.info" />
    <div class="mt-4 flex gap-2">
      <a class="act" :href="file()">Download {{ document.fileName }}</a>
      <a class="plain" :href="`/api/documents/${document.id}/census?format=csv`">Download the census as CSV</a>
    </div>
    <h2 class="mt-6">As something else</h2>
    <p class="text-soft">Made of what is on the desk now, and saved as a file; the document stays as it is.</p>
    <div class="mt-2">
      <PdfRow />
      <PrintRow />
      <FormsRow
        title="For reading on screens"
        says="Its text as a book (EPUB) or a page for browsers (HTML), with the faces that their licences allow."
        :forms="[
          { as: 'epub', title: 'Make the book' },
          { as: 'html', title: 'Make the page' },
        ]"
      />
      <FormsRow
        title="Its styles alone"
        says="Named paragraph and character styles, for those who build with them."
        :forms="[
          { as: 'css', title: 'As CSS' },
          { as: 'tokens', title: 'As tokens' },
          { as: 'template', title: 'As template' },
        ]"
      />
      <BundleRow />
    </div>
    <FaceRights />
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
          <td>
            {{ version.title }}<span v-if="me.isShared" class="text-soft">, {{ me.nameOf(version.author) }}</span>
          </td>
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
