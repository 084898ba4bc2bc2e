<script setup lang="ts">
import Choice from '../kit/Choice.vue'
import { useMe } from '../stores/me'
import { useShelf } from '../stores/shelf'
import RunningHead from '../desk/RunningHead.vue'
import NewDocument from '../desk/NewDocument.vue'
import DeskStarts from '../desk/DeskStarts.vue'
import ShelfCard from '../desk/ShelfCard.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import FolderMembers from '../desk/FolderMembers.vue'
import GivenRemarks from '../remarks/GivenRemarks.vue'
import { useInfiniteScroll } from '@vueuse/core'
import { counted } from '../desk/words'
import { shelfSorts } from '~~/shared/shelf'
import Chips from '../kit/Chips.vue'

const shelf = useShelf()
const me = useMe()
const input = ref<HTMLInputElement | null>(null)
const over = ref(false)
const making = ref(false)
const starting = ref(false)
const folderName = ref('')
const renaming = ref<string | null>(null)
const scroll = ref<HTMLElement | null>(null)
const sortWords = { changed: 'newest change', name: 'name', pages: 'most pages', settled: 'least settled' } as const
/** How long a folder may keep documents, in days; whatever it keeps them for is among them. */
const keepSpans = computed(() =>
  [...new Set([30, 90, 180, 365, 1095, shelf.openFolder?.keepDays ?? 30])].sort((one, other) => one - other),
)
const looking = computed(() => shelf.query.trim() !== '' || shelf.folder !== null)
const lookedFor = computed(() =>
  [shelf.query.trim() === '' ? '' : ' found', shelf.openFolder ? ` in the folder ${shelf.openFolder.name}` : ''].join(
    '',
  ),
)
useInfiniteScroll(scroll, () => shelf.more(), {
  distance: 600,
  canLoadMore: () => (shelf.cards?.length ?? 0) < shelf.total,
})
async function addFolder(): Promise<void> {
  if (await shelf.addFolder(folderName.value.trim())) folderName.value = ''
}
async function renameFolder(): Promise<void> {
  if (await shelf.renameFolder(shelf.folder!, renaming.value!.trim())) renaming.value = null
}
watch(
  () => shelf.folder,
  () => {
    renaming.value = null
  },
)

function take(files: FileList | null): void {
  for (const file of files ?? []) void shelf.put(file)
}
function drop(event: DragEvent): void {
  over.value = false
  take(event.dataTransfer?.files ?? null)
}
function chosen(): void {
  take(input.value?.files ?? null)
  if (input.value) input.value.value = ''
}
onMounted(() => {
  void shelf.refresh()
  shelf.listen()
})
onBeforeUnmount(() => shelf.hush())
useHead({ title: 'Shelf, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead />
    <NewDocument v-model="making" />
    <DeskStarts v-if="starting" v-model="starting" />
    <div class="flex min-h-0 flex-1">
      <main
        ref="scroll"
        class="relative min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-10 py-7"
        @dragover.prevent="over = true"
        @dragleave.self="over = false"
        @drop.prevent="drop"
      >
        <div class="flex items-end gap-4">
          <div class="flex-1">
            <h1>Shelf</h1>
            <p class="text-soft">
              {{
                shelf.cards === null
                  ? 'Fetching …'
                  : shelf.total === 0 && !looking && !me.may('arrange')
                    ? 'Nothing to be looked at yet: you are a reader here, and others put documents on the shelf.'
                    : shelf.total === 0 && !looking
                      ? 'Nothing here yet. Open a text, presentation or drawing (.odt, .odp, .odg) or a finished PDF to see its type; ' +
                        'plain text, Markdown and HTML become texts, and a zip brings several with their fonts.'
                      : looking
                        ? `${counted(shelf.total, 'document')}${lookedFor}.`
                        : me.may('arrange')
                          ? `${counted(shelf.total, 'document')}. Drop more anywhere on the shelf.`
                          : `${counted(shelf.total, 'document')}, to be looked at: you are a reader here.`
              }}
            </p>
          </div>
          <input
            ref="input"
            type="file"
            multiple
            accept=".odt,.ott,.odp,.otp,.odg,.otg,.txt,.md,.markdown,.html,.htm,.pdf,.zip"
            class="sr-only"
            tabindex="-1"
            aria-label="Files to open"
            @change="chosen"
          />
          <template v-if="me.may('arrange')">
            <button type="button" class="plain" @click="starting = true">Defaults</button>
            <button type="button" class="plain" @click="making = true">New document</button>
            <button type="button" class="act" @click="input?.click()">Open documents</button>
          </template>
        </div>
        <p v-if="shelf.failure" role="alert" class="mt-4 border border-rubric bg-sheet p-3 text-rubric">
          {{ shelf.failure }}
        </p>
        <GivenRemarks v-if="me.isShared" class="mt-2" />
        <NoticeLine v-if="shelf.thrownAway" kind="done">
          {{ shelf.thrownAway.fileName }} lies in the <NuxtLink to="/trash" class="link">trash</NuxtLink>, with all its
          versions. <button type="button" class="link" @click="shelf.putBack()">Put it back</button>
        </NoticeLine>
        <NoticeLine v-if="shelf.room" kind="failed">{{ shelf.room }}</NoticeLine>
        <ul v-if="shelf.uploads.length > 0" class="mt-4 space-y-2" aria-live="polite">
          <li
            v-for="upload in shelf.uploads"
            :key="upload.key"
            class="flex items-center gap-3 border bg-sheet px-3 py-2"
            :class="upload.state === 'refused' ? 'border-rubric' : 'border-rule'"
          >
            <strong class="shrink-0">{{ upload.name }}</strong>
            <template v-if="upload.state === 'told'"
              ><span class="flex-1">{{ upload.message }}</span
              ><button type="button" class="link" @click="shelf.dismiss(upload.key)">Good</button></template
            >
            <template v-else-if="upload.state === 'refused'"
              ><span class="flex-1 text-rubric">{{ upload.message }}</span
              ><button type="button" class="link" @click="shelf.dismiss(upload.key)">Dismiss</button></template
            >
            <template v-else
              ><progress
                class="h-2 flex-1"
                :value="upload.progress"
                max="1"
                :aria-label="`Sending ${upload.name}`"
              /><span class="text-soft">{{
                upload.state === 'waiting'
                  ? 'waiting'
                  : upload.state === 'sending'
                    ? `sending, ${Math.round(upload.progress * 100)} %`
                    : 'checking'
              }}</span></template
            >
          </li>
        </ul>
        <div class="mt-4 flex flex-wrap items-center gap-2 text-[13px]">
          <input
            v-model="shelf.query"
            class="field w-[220px]"
            placeholder="Search names, titles and faces"
            aria-label="Search the shelf"
          />
          <Chips
            label="Folders"
            :model-value="shelf.folder ?? ''"
            :options="[
              { id: '', title: 'Everything' },
              ...shelf.folders.map(({ id, name, documents, members }) => ({
                id,
                title: members.length > 0 ? `${name}, closed` : name,
                count: documents,
              })),
            ]"
            @update:model-value="shelf.folder = $event === '' ? null : $event"
          />
          <form v-if="me.may('arrange')" class="flex gap-2" @submit.prevent="addFolder">
            <input
              v-model="folderName"
              class="field w-[130px]"
              placeholder="New folder"
              maxlength="120"
              aria-label="Name of a new folder"
            /><button type="submit" class="plain" :disabled="folderName.trim() === ''">Make it</button>
          </form>
          <FolderMembers v-if="shelf.openFolder && me.isShared" :key="shelf.openFolder.id" :folder="shelf.openFolder" />
          <template v-if="shelf.openFolder && shelf.mayIn(shelf.openFolder.id, 'arrange')">
            <form v-if="renaming !== null" class="flex gap-2" @submit.prevent="renameFolder">
              <input v-model="renaming" class="field w-[160px]" maxlength="120" aria-label="New name of the folder" />
              <button type="submit" class="plain" :disabled="renaming.trim() === ''">Rename</button>
              <button type="button" class="link" @click="renaming = null">Leave it</button>
            </form>
            <template v-else>
              <button type="button" class="link" @click="renaming = shelf.openFolder.name">Rename the folder</button>
              <button
                type="button"
                class="link"
                title="Its documents stay on the shelf"
                @click="shelf.removeFolder(shelf.openFolder.id)"
              >
                Take the folder “{{ shelf.openFolder.name }}” away
              </button>
              <label class="flex items-center gap-1.5 text-soft"
                >Keeps documents
                <Choice
                  class="text-ink"
                  :model-value="String(shelf.openFolder.keepDays ?? '')"
                  aria-label="How long this folder keeps documents"
                  @update:model-value="shelf.keepInFolder(shelf.openFolder.id, $event === '' ? null : Number($event))"
                >
                  <option value="">for good</option>
                  <option v-for="days in keepSpans" :key="days" :value="String(days)">
                    {{ days }} days after the last change
                  </option>
                </Choice></label
              >
            </template>
          </template>
          <label class="ml-auto flex items-center gap-1.5 text-soft"
            >Sort by
            <Choice v-model="shelf.sort" class="text-ink" aria-label="Sort by">
              <option v-for="each in shelfSorts" :key="each" :value="each">{{ sortWords[each] }}</option>
            </Choice></label
          >
        </div>
        <p v-if="shelf.cards !== null && shelf.total === 0 && looking" class="mt-6 text-soft">
          {{
            shelf.query.trim() === ''
              ? 'This folder is empty. Documents are put into it on their cards.'
              : 'Nothing on the shelf answers to that.'
          }}
        </p>
        <ul class="mt-6 grid grid-cols-[repeat(auto-fill,minmax(356px,1fr))] gap-6">
          <ShelfCard
            v-for="(card, index) in shelf.cards ?? []"
            :key="card.id"
            :card="card"
            :first="index === 0"
            :job="shelf.jobs[card.id]"
            @remove="shelf.throwAway(card)"
          />
        </ul>
        <div v-if="over" class="drop-here">Drop to open</div>
      </main>
      <ShelfIndex open="shelf" />
    </div>
  </div>
</template>
