<script setup lang="ts">
import { useAcross } from '../stores/across'
import { useShelf } from '../stores/shelf'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import BatchPanel from '../stages/across/BatchPanel.vue'
import BundlePanel from '../stages/across/BundlePanel.vue'
import ProofTable from '../stages/across/ProofTable.vue'
import WishPanel from '../stages/across/WishPanel.vue'
import { counted, grouped } from '../desk/words'
import Term from '../kit/Term.vue'
import Chips from '../kit/Chips.vue'

const across = useAcross()
const shelf = useShelf()
const tabs = [
  ['families', 'Faces'],
  ['sizes', 'Sizes'],
  ['colors', 'Colours'],
  ['proof', 'Proof'],
] as const
const heads = { families: 'Family', sizes: 'Size', colors: 'Colour' } as const
/** What a proof finds in each document is shown in place of the census. */
const proofs = ref(false)
function pick(id: (typeof tabs)[number][0]): void {
  proofs.value = id === 'proof'
  if (id !== 'proof') across.of = id
  across.use = null
}
onMounted(() => {
  void across.start()
})
onBeforeUnmount(() => across.stop())
useHead({ title: 'All documents, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="All documents" />
    <div class="flex min-h-0 flex-1">
      <main class="min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-8 py-6" aria-label="The census over all documents">
        <h1>All documents: their <Term word="census">census</Term></h1>
        <p class="text-soft">
          {{
            across.cards.length === 0
              ? 'Nothing lies on the shelf yet.'
              : `What ${counted(across.total, 'document')} use, as they are now. A row shows in which; ` +
                'the documents that are ticked are taken into the plan.' +
                (across.total > across.cards.length
                  ? ` The first ${across.cards.length} by name are listed: one plan takes no more.`
                  : '')
          }}
        </p>
        <p v-if="across.message" role="alert" class="mt-2 border border-rubric bg-sheet px-3 py-2 text-rubric">
          {{ across.message }}
        </p>
        <div class="mt-3 flex flex-wrap items-center gap-3">
          <Chips
            label="What is counted"
            :model-value="proofs ? 'proof' : across.of"
            :options="tabs.map(([id, title]) => ({ id, title }))"
            @update:model-value="pick"
          />
          <input
            v-if="!proofs"
            v-model="across.query"
            class="field w-[180px]"
            placeholder="Search"
            aria-label="Search the census"
          />
        </div>
        <ProofTable v-if="proofs" :cards="across.cards" />
        <table v-if="!proofs" class="mt-2 table-fixed">
          <colgroup>
            <col />
            <col class="w-[110px]" />
            <col class="w-[110px]" />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">{{ heads[across.of] }}</th>
              <th scope="col" class="number">Documents</th>
              <th scope="col" class="number">{{ across.of === 'colors' ? 'Mentions' : 'Characters' }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="use in across.uses.slice(0, 200)"
              :key="use.value"
              :class="{ 'bg-wash': across.use === use.value }"
            >
              <td class="truncate">
                <button
                  type="button"
                  class="flex w-full items-center gap-2 text-left hover:underline"
                  :aria-pressed="across.use === use.value"
                  @click="across.choose(use.value)"
                >
                  <span
                    v-if="across.of === 'colors'"
                    class="inline-block size-[14px] border border-soft"
                    :style="{ background: use.value }"
                  /><span :class="{ 'text-iris': use.status === 'absent' }"
                    ><span v-if="use.status === 'absent'" aria-hidden="true">◇ </span>{{ use.value
                    }}{{ across.of === 'sizes' ? ' pt' : '' }}</span
                  ><span v-if="use.status === 'absent'" class="text-[13px] text-soft">absent</span>
                </button>
              </td>
              <td class="number">{{ use.documents.length }}</td>
              <td class="number">{{ grouped(use.count) }}</td>
            </tr>
          </tbody>
        </table>
        <h2 class="mt-6">
          {{ across.use === null ? 'Documents' : `Documents with ${across.use}${across.of === 'sizes' ? ' pt' : ''}` }}
        </h2>
        <p class="flex gap-3 text-soft">
          {{ counted(across.selected.length, 'document') }} ticked
          <button type="button" class="link" @click="across.tick(true)">Tick all that are listed</button
          ><button type="button" class="link" @click="across.tick(false)">None</button>
        </p>
        <table class="mt-1 table-fixed">
          <colgroup>
            <col class="w-[26px]" />
            <col />
            <col class="w-[120px]" />
            <col class="w-[80px]" />
            <col class="w-[110px]" />
          </colgroup>
          <thead>
            <tr>
              <th scope="col"><span class="sr-only">In the plan</span></th>
              <th scope="col">Document</th>
              <th scope="col">Folder</th>
              <th scope="col" class="number">Pages</th>
              <th scope="col" class="number">{{ across.use === null ? 'Characters' : 'Of it' }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="card in across.listed" :key="card.id">
              <td>
                <input
                  v-model="across.selected"
                  type="checkbox"
                  class="mt-1"
                  :value="card.id"
                  :aria-label="`${card.fileName}: in the plan`"
                />
              </td>
              <td class="truncate">
                <NuxtLink :to="`/documents/${card.id}`" class="hover:underline">{{ card.fileName }}</NuxtLink>
              </td>
              <td class="truncate text-soft">{{ shelf.folderName(card.folder) }}</td>
              <td class="number">{{ card.pages ?? '–' }}</td>
              <td class="number">{{ grouped(across.countIn(card.id) ?? card.characters ?? 0) }}</td>
            </tr>
          </tbody>
        </table>
      </main>
      <ShelfIndex open="across" />
      <section class="h-full w-[min(560px,46vw)] shrink-0 overflow-y-auto px-[22px] pt-4 pb-8" aria-label="The plan">
        <BatchPanel v-if="across.batch" />
        <template v-else><WishPanel /><BundlePanel /></template>
      </section>
    </div>
  </div>
</template>
