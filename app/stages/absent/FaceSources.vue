<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import type { FamilyCheck } from '~~/core/font/file-check'
import { isFamily } from '~~/core/font/file-check'
import type { Offer } from '~~/shared/api'
import { sentenceOf } from '../../stores/desk'
import { useAbsent } from '../../stores/absent'
import { counted } from '../../desk/words'

const props = defineProps<{ family: string; files: readonly string[] }>()
const absent = useAbsent()

/** Font files that came along: those that are this family first. */
const carried = computed(() =>
  absent.carried
    .map(font => ({ font, is: font.face !== null && isFamily(font.face, props.family).same }))
    .sort((a, b) => Number(b.is) - Number(a.is)),
)
const mine = computed(() => carried.value.filter(each => each.is).map(each => each.font.path))

const embedding: Readonly<Record<FaceRecord['embedding'], string>> = {
  installable: 'may be embedded',
  editable: 'may be embedded for editing',
  preview: 'may be embedded for reading only',
  restricted: 'may not be embedded',
}
const input = ref<HTMLInputElement | null>(null)
const chosen = shallowRef<{ file: File; face: FaceRecord; family: FamilyCheck | null } | null>(null)
const refused = ref('')
async function look(): Promise<void> {
  const file = input.value?.files?.[0]
  chosen.value = null
  refused.value = ''
  if (!file) return
  try {
    chosen.value = { file, ...(await absent.checkFile(file, props.family)) }
  } catch (error) {
    refused.value = sentenceOf(error)
  }
  if (input.value) input.value.value = ''
}
async function add(): Promise<void> {
  if (chosen.value && (await absent.addFile(chosen.value.file))) chosen.value = null
}

const shop = shallowRef<{ supplier: string; offers: Offer[] } | null>(null)
const everything = ref(false)
async function visit(): Promise<void> {
  refused.value = ''
  try {
    const own = await absent.askSupplier(props.family)
    everything.value = own.offers.length === 0
    shop.value = everything.value ? await absent.askSupplier('') : own
  } catch (error) {
    refused.value = sentenceOf(error)
  }
}
</script>

<template>
  <section aria-label="Where the face itself can come from">
    <h2 class="mt-4">The face itself</h2>
    <div v-if="carried.length > 0" class="mt-1">
      <p class="text-soft">{{ counted(carried.length, 'font file') }} came with the document.</p>
      <ul>
        <li
          v-for="{ font, is } in carried"
          :key="font.path"
          class="flex items-baseline gap-3 border-b border-rule py-1"
        >
          <span class="min-w-0 flex-1"
            ><strong>{{ font.face ? `${font.face.family} ${font.face.style}` : font.path }}</strong
            ><span class="text-soft"
              >, {{ font.from === 'package' ? 'inside the package' : 'beside it in the zip'
              }}<template v-if="font.face"
                >; {{ embedding[font.face.embedding] }}; licence: {{ font.face.licence.slice(0, 90) }}</template
              ></span
            ><span v-if="font.problem" class="text-rubric"> {{ font.problem }}</span></span
          >
          <span v-if="!is && font.face" class="shrink-0 text-[13px] text-soft">another family</span>
          <button
            v-if="font.face"
            type="button"
            class="link shrink-0"
            :disabled="absent.busy !== ''"
            :aria-label="`Take ${font.face.family} ${font.face.style} into the library`"
            @click="absent.takeCarried([font.path])"
          >
            Take it
          </button>
        </li>
      </ul>
      <button
        v-if="mine.length > 1"
        type="button"
        class="plain mt-2"
        :disabled="absent.busy !== ''"
        @click="absent.takeCarried(mine)"
      >
        Take all {{ mine.length }} of {{ family }} into the library
      </button>
    </div>
    <p v-else class="mt-1 text-soft">No font file came with the document.</p>
    <div class="mt-3 flex flex-wrap items-center gap-2">
      <input
        ref="input"
        type="file"
        accept=".ttf,.otf,.woff,.woff2"
        class="sr-only"
        tabindex="-1"
        aria-label="Font file to add"
        @change="look"
      />
      <button type="button" class="plain" @click="input?.click()">Add a font file</button>
      <button type="button" class="plain" @click="visit">Ask the supplier</button>
    </div>
    <p v-if="refused" role="alert" class="mt-2 text-rubric">{{ refused }}</p>
    <div
      v-if="chosen"
      class="mt-2 border bg-sheet px-3 py-2"
      :class="chosen.family?.same ? 'border-verdigris' : 'border-ochre'"
      role="status"
    >
      <p>
        <strong>{{ chosen.file.name }}</strong>: {{ chosen.family?.said }}; weight {{ chosen.face.weight }},
        {{ embedding[chosen.face.embedding] }}.
      </p>
      <p class="text-soft">Licence: {{ chosen.face.licence.slice(0, 200) }}</p>
      <div class="mt-2 flex gap-2">
        <button type="button" class="act" :disabled="absent.busy !== ''" @click="add">
          {{ chosen.family?.same ? 'Add it to the library' : 'Add it all the same' }}</button><button
          type="button"
          class="plain"
          @click="chosen = null"
        >
          Leave it
        </button>
      </div>
    </div>
    <div v-if="shop" class="mt-2 border border-rule bg-sheet px-3 py-2">
      <p>
        <strong>{{ shop.supplier }}</strong><span v-if="everything" class="text-soft"
          >: it has no {{ family }}. This is what it has.</span
        >
      </p>
      <ul>
        <li v-for="offer in shop.offers" :key="offer.id" class="flex items-baseline gap-3 border-t border-rule py-1.5">
          <span class="min-w-0 flex-1"
            ><strong>{{ offer.family }}</strong
            ><span class="text-soft">
              by {{ offer.designer }}. {{ offer.said }} {{ counted(offer.weights.length, 'face') }}:
              {{ offer.weights.slice(0, 4).join(', ') }}{{ offer.weights.length > 4 ? ' …' : '' }};
              {{ offer.scripts.join(', ') }}. {{ offer.licence }}.</span
            ></span
          >
          <span class="shrink-0 tabular-nums">{{ offer.price === 0 ? 'free' : `€ ${offer.price}` }}</span>
          <button
            type="button"
            class="link shrink-0"
            :disabled="absent.busy !== ''"
            :aria-label="`Order ${offer.family}`"
            @click="absent.order(offer)"
          >
            {{ absent.busy === 'supplier' ? 'On its way …' : 'Order' }}
          </button>
        </li>
      </ul>
      <p class="mt-1 text-[13px] text-soft">
        Simulated: nothing is paid, and what is delivered is a copy of a free face under a made-up name.
      </p>
    </div>
  </section>
</template>
