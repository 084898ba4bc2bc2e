<script setup lang="ts">
import type { LinkedDocument, ShelfCard } from '~~/shared/api'
import { paletteOf } from '~~/core/change/repaint/house-paint'
import type { House } from '~~/core/house/house'
import ShelfPicker from '../kit/ShelfPicker.vue'
import Term from '../kit/Term.vue'
import { counted, percentage } from '../desk/words'
import { sentenceOf } from '../stores/desk'
import { useAcross } from '../stores/across'
import { useHouses } from '../stores/houses'
import ShareLine from './ShareLine.vue'

/** The documents of a house: how much of each is to style, which are behind, and the way to bring them along. */
const houses = useHouses()
const across = useAcross()
const router = useRouter()
const info = computed(() => houses.info!)
const picked = shallowRef<ShelfCard | null>(null)
const said = ref('')
const names = ref(false)
const paint = ref(true)
const measured = computed(() => houses.documents.flatMap(each => (each.share ? [each.share] : [])))
const total = computed(() => ({
  characters: measured.value.reduce((sum, each) => sum + each.characters, 0),
  toStyle: measured.value.reduce((sum, each) => sum + each.toStyle, 0),
}))
const share = computed(() => (total.value.characters === 0 ? null : total.value.toStyle / total.value.characters))
const shareOf = ({ share: own }: LinkedDocument) =>
  own ? (own.characters === 0 ? 1 : own.toStyle / own.characters) : null
const behind = computed(() => houses.documents.filter(each => each.share && each.share.dressed !== info.value.issued))

async function link(id: string, house: string | null): Promise<void> {
  said.value = ''
  try {
    await $fetch(`/api/documents/${id}/house`, { method: 'PUT', body: { house } })
    await houses.load()
    await houses.loadDocuments()
  } catch (error) {
    said.value = sentenceOf(error)
  }
}
watch(picked, card => {
  if (!card) return
  void link(card.id, info.value.id)
  void nextTick(() => (picked.value = null))
})

/** Offers the plan of the newest version to documents, as a batch: nothing changes until it is carried out. */
async function offer(documents: readonly LinkedDocument[]): Promise<void> {
  said.value = ''
  try {
    const house = await $fetch<House>(`/api/houses/${info.value.id}/versions/${info.value.issued}`)
    const dress = {
      type: 'dress',
      house,
      of: { house: info.value.id, version: info.value.issued },
      drawUp: true,
      names: names.value ? 'house' : 'own',
    }
    // What colours did in the house before is known until the document is dressed.
    const wishes = paint.value ? [{ type: 'house-paint', house: paletteOf(house) }, dress] : [dress]
    const { id } = await $fetch<{ id: string }>('/api/batches', {
      method: 'POST',
      body: { request: { wishes, leftOut: [] }, documents: documents.map(each => each.id) },
    })
    across.leftOut = []
    await across.watchBatch(id)
    await router.push('/across')
  } catch (error) {
    said.value = sentenceOf(error)
  }
}
</script>

<template>
  <section aria-label="Documents of this house">
    <h2>
      <template v-if="share !== null">{{ percentage(share) }} <Term word="toStyle">to style</Term></template>
      <template v-else>{{ counted(houses.documents.length, 'document') }}</template>
    </h2>
    <p class="text-soft">
      {{
        info.issued === 0
          ? 'Documents follow a house from its first version on: issue it first.'
          : `${counted(houses.documents.length, 'document')} linked; ` +
            (houses.measuring > 0
              ? `${houses.measuring} still being measured.`
              : behind.length === 0
                ? `all of them in version ${info.issued}.`
                : `${behind.length} not dressed in version ${info.issued} yet.`)
      }}
    </p>
    <p v-if="said" role="alert" class="mt-1 text-rubric">{{ said }}</p>
    <table v-if="houses.documents.length > 0" class="mt-2 table-fixed">
      <colgroup>
        <col />
        <col class="w-[150px]" />
        <col class="w-[64px]" />
        <col class="w-[118px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Document</th>
          <th scope="col">To style</th>
          <th scope="col" class="number">Version</th>
          <th scope="col"><span class="sr-only">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in houses.documents" :key="each.id">
          <td>
            <NuxtLink
              class="link"
              :to="`/documents/${each.id}?stage=${each.kind === 'finished' ? 'proof' : 'house'}`"
              >{{ each.fileName.replace(/\.\w+$/, '') }}</NuxtLink
            >
          </td>
          <td>
            <span v-if="shareOf(each) !== null" class="flex items-center gap-2"
              ><span class="h-[8px] flex-1 bg-rule" aria-hidden="true"
                ><span
                  class="block h-full"
                  :class="shareOf(each)! >= 0.9 ? 'bg-verdigris' : 'bg-ochre'"
                  :style="{ width: `${shareOf(each)! * 100}%` }" /></span
              ><span class="w-[52px] text-right tabular-nums">{{ percentage(shareOf(each)!) }}</span></span
            ><span v-else class="text-soft">{{
              each.kind === 'finished' ? 'a finished PDF: see its proof' : info.issued === 0 ? '–' : 'measuring …'
            }}</span>
          </td>
          <td class="number">{{ each.share?.dressed ?? '–' }}</td>
          <td>
            <button
              v-if="each.share && each.share.dressed !== info.issued"
              type="button"
              class="link mr-2"
              @click="offer([each])"
            >
              Dress it</button
            ><button type="button" class="link" :aria-label="`Unlink ${each.fileName}`" @click="link(each.id, null)">
              Unlink
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <ShelfPicker v-model="picked" class="mt-3" label="Link a document" finished />
    <div v-if="info.issued > 0 && behind.length > 0" class="mt-3 border border-verdigris p-3">
      <p>
        <strong>{{ counted(behind.length, 'document') }}</strong> can be brought to version {{ info.issued }}: you see
        what it does to the pages of each, and what would run over, before anything changes.
      </p>
      <label class="mt-1 flex items-center gap-2"
        ><input v-model="names" type="checkbox" /> styles take the names of the house</label
      >
      <label class="mt-1 flex items-center gap-2"
        ><input v-model="paint" type="checkbox" /> shapes, lines, grounds and charts take its colours</label
      >
      <button type="button" class="act mt-2" :disabled="houses.busy" @click="offer(behind)">
        Plan {{ counted(behind.length, 'document') }}
      </button>
    </div>
    <template v-if="houses.days.length > 1">
      <h3 class="mt-4 font-medium">How that went</h3>
      <ShareLine :days="houses.days" />
    </template>
  </section>
</template>
