<script setup lang="ts">
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import { counted, dayWords } from '../desk/words'
import Choice from '../kit/Choice.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import Term from '../kit/Term.vue'
import type { Purge } from '~~/shared/api'
import { useTrash } from '../stores/trash'

const store = useTrash()
/** What is asked about before it goes for good: a document's id, or all of them. */
const asking = ref<string | 'all' | null>(null)
const spans = [7, 14, 30, 60, 90, 365]
const choices = computed(() => [...new Set([...spans, store.trash?.days ?? 30])].sort((one, other) => one - other))
const documents = computed(() => store.trash?.documents ?? [])
const purges = computed(() => store.trash?.purges ?? [])
/** What was found when all pieces of a document were searched for. */
function proof({ pieces, shared }: Purge): string {
  const own = pieces - (shared ?? 0)
  if (own === 0) return `All its ${counted(pieces, 'piece')} are parts of other documents, too, and stay with those`
  const found = `${counted(own, 'piece')} of its own searched for: nothing left`
  return shared ? `${found}; ${shared} shared with others, kept for those` : found
}
function gone(id: string, name: string): void {
  asking.value = null
  void store.purge(id, name)
}
function emptied(): void {
  asking.value = null
  void store.empty()
}
onMounted(() => void store.fetch())
useHead({ title: 'Trash, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Trash" />
    <div class="flex min-h-0 flex-1">
      <main class="min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-10 py-7">
        <h1><Term word="trash">Trash</Term></h1>
        <p class="text-soft">
          {{
            store.trash === null
              ? 'Fetching …'
              : documents.length === 0
                ? 'Nothing lies here. What is thrown away from the shelf comes here first, with all its versions.'
                : `${counted(documents.length, 'document')}, out of sight of every plan and count. Each goes for good on its day.`
          }}
        </p>
        <NoticeLine v-if="store.failure" kind="failed">{{ store.failure }}</NoticeLine>
        <NoticeLine v-else-if="store.done" kind="done">{{ store.done }}</NoticeLine>
        <div v-if="store.trash" class="mt-3 flex flex-wrap items-center gap-3">
          <label class="flex items-center gap-1.5 text-soft"
            >Documents are kept here for
            <Choice
              class="text-ink"
              :model-value="String(store.trash.days)"
              aria-label="How long the trash keeps documents"
              @update:model-value="store.keepFor(Number($event))"
            >
              <option v-for="days in choices" :key="days" :value="String(days)">{{ days }} days</option>
            </Choice></label
          >
          <template v-if="documents.length > 0">
            <span v-if="asking === 'all'" class="flex gap-3"
              ><span class="text-soft">Let {{ counted(documents.length, 'document') }} go for good?</span
              ><button type="button" class="text-rubric" @click="emptied">Let all go</button
              ><button type="button" class="link" @click="asking = null">Keep them</button></span
            >
            <button v-else type="button" class="plain" @click="asking = 'all'">Empty the trash</button>
          </template>
        </div>
        <table v-if="documents.length > 0" class="mt-3 table-fixed">
          <colgroup>
            <col />
            <col class="w-[150px]" />
            <col class="w-[80px]" />
            <col class="w-[140px]" />
            <col class="w-[120px]" />
            <col class="w-[250px]" />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">Document</th>
              <th scope="col">Folder</th>
              <th scope="col" class="number">Versions</th>
              <th scope="col" class="pl-5">Thrown away</th>
              <th scope="col">Goes on</th>
              <th scope="col"><span class="sr-only">What to do</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="each in documents" :key="each.id">
              <td class="truncate">{{ each.fileName }}</td>
              <td class="truncate text-soft">{{ each.folder ?? '' }}</td>
              <td class="number">{{ each.versions }}</td>
              <td class="pl-5 text-soft">{{ dayWords(each.trashed) }}</td>
              <td>{{ dayWords(each.until) }}</td>
              <td>
                <span v-if="asking === each.id" class="flex gap-3"
                  ><span class="text-soft">With all versions?</span
                  ><button type="button" class="text-rubric" @click="gone(each.id, each.fileName)">Let go</button
                  ><button type="button" class="link" @click="asking = null">Keep</button></span
                >
                <span v-else class="flex gap-3"
                  ><button
                    type="button"
                    class="link"
                    :aria-label="`Put ${each.fileName} back on the shelf`"
                    @click="store.putBack(each.id, each.fileName)"
                  >
                    Put back</button
                  ><button
                    type="button"
                    class="text-soft hover:text-ink"
                    :aria-label="`Let ${each.fileName} go for good`"
                    @click="asking = each.id"
                  >
                    Let go for good
                  </button></span
                >
              </td>
            </tr>
          </tbody>
        </table>
        <template v-if="purges.length > 0">
          <h2 class="mt-8">Gone for good</h2>
          <p class="text-soft">
            Every piece of a document has a hash, by which all that is kept here is searched. Pieces that other
            documents are made of, too, stay with those.
          </p>
          <table class="mt-2 table-fixed">
            <colgroup>
              <col />
              <col class="w-[80px]" />
              <col class="w-[150px]" />
              <col class="w-[360px]" />
            </colgroup>
            <thead>
              <tr>
                <th scope="col">Document</th>
                <th scope="col" class="number">Versions</th>
                <th scope="col" class="pl-5">Let go</th>
                <th scope="col">Proof</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="each in purges" :key="each.id">
                <td class="truncate">{{ each.fileName }}</td>
                <td class="number">{{ each.versions }}</td>
                <td class="pl-5 text-soft">
                  {{ dayWords(each.purged) }}{{ each.person === '' ? ', by its day' : '' }}
                </td>
                <td>
                  <template v-if="each.proven">{{ proof(each) }}</template>
                  <span v-else class="text-soft">its pieces are being let go; looked for within a minute</span>
                </td>
              </tr>
            </tbody>
          </table>
        </template>
      </main>
      <ShelfIndex open="trash" />
    </div>
  </div>
</template>
