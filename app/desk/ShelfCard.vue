<script setup lang="ts">
import type { Job } from '~~/shared/api'
import type { ShelfCard } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import { useShelf } from '../stores/shelf'
import { counted, settledWords } from './words'
import Term from '../kit/Term.vue'

const props = defineProps<{ card: ShelfCard; job?: Job; first?: boolean }>()
const emit = defineEmits<{ remove: [] }>()
const shelf = useShelf()
const families = computed(() => {
  const known = new Map<string, { family: string; absent: boolean; characters: number }>()
  for (const face of props.card.faces) {
    const own = known.get(face.family)
    known.set(face.family, {
      family: face.family,
      absent: face.status === 'absent',
      characters: (own?.characters ?? 0) + face.characters,
    })
  }
  return [...known.values()].sort((a, b) => b.characters - a.characters)
})
const absent = computed(() => families.value.filter(each => each.absent).length)
/** Folders that it can be put into, and the one where it lies. */
const placesToPut = computed(() =>
  shelf.folders.filter(each => each.id === props.card.folder || shelf.mayIn(each.id, 'arrange')),
)
const name = computed(() => props.card.fileName.replace(/\.(od[tpg]|pdf)$/i, ''))
</script>

<template>
  <li class="relative flex gap-4 border border-rule bg-paper p-4">
    <NuxtLink
      :to="`/documents/${card.id}`"
      class="flex h-[178px] w-[126px] shrink-0 items-start justify-start"
      :aria-label="`Open ${name}`"
      tabindex="-1"
    >
      <img
        v-if="card.picture !== null"
        :src="`/api/documents/${card.id}/picture?version=${card.counted}&picture=${card.picture}`"
        alt=""
        loading="lazy"
        decoding="async"
        class="max-h-full max-w-full bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]"
      />
      <span v-else class="size-full bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]" />
    </NuxtLink>
    <div class="min-w-0 flex-1">
      <h2 class="truncate text-[19px]">
        <NuxtLink :to="`/documents/${card.id}`" class="hover:underline">{{ name }}</NuxtLink>
      </h2>
      <template v-if="card.counted !== null && card.pages !== null">
        <p class="text-soft">
          {{ counted(card.pages ?? 0, 'page') }}, {{ counted(card.characters ?? 0, 'character') }}
        </p>
        <p v-if="card.settled === null" class="mt-1">finished PDF</p>
        <p v-else class="mt-1">
          <strong>{{ settledWords(card.settled) }}</strong>
          {{ ' ' }}<Term v-if="first" word="settled">settled</Term><template v-else>settled</template>
        </p>
        <p :class="absent > 0 ? 'text-iris' : 'text-soft'">
          <span v-if="absent > 0" aria-hidden="true">◇ </span
          >{{ absent > 0 ? `${counted(absent, 'family', 'families')} absent` : 'no face absent' }}
        </p>
        <p class="mt-1 line-clamp-3 text-[13px] text-soft">
          <template v-for="(family, index) in families.slice(0, 6)" :key="family.family"
            ><span :class="{ 'text-iris': family.absent }">{{ family.family }}</span
            >{{
              index < Math.min(families.length, 6) - 1
                ? ', '
                : families.length > 6
                  ? ` and ${families.length - 6} more`
                  : ''
            }}</template
          >
        </p>
      </template>
      <p v-if="card.counted !== card.version && job?.state === 'failed'" class="mt-2 text-rubric">
        It could not be counted: {{ job.message }} The file is kept.
      </p>
      <p v-else-if="card.counted === null" class="mt-2 text-soft" role="status">
        Counting its faces …<progress
          class="mt-1 block h-2 w-full"
          :value="job?.progress ?? 0"
          max="1"
          aria-label="Counting"
        />
      </p>
      <p v-else-if="card.counted !== card.version" class="text-[13px] text-soft" role="status">
        As before the last change; it is counted anew …
      </p>
      <p v-if="card.signed" class="mt-1 text-[13px] text-ochre">Signed: a change ends its signature.</p>
    </div>
    <div
      v-if="shelf.mayIn(card.folder, 'arrange')"
      class="absolute right-4 bottom-3 flex items-center gap-3 text-[13px]"
    >
      <Choice
        v-if="shelf.folders.length > 0"
        class="max-w-[120px] bg-transparent text-soft"
        :model-value="card.folder ?? ''"
        :aria-label="`Folder of ${name}`"
        @update:model-value="shelf.move(card.id, $event || null)"
      >
        <option value="">no folder</option>
        <option v-for="each in placesToPut" :key="each.id" :value="each.id">{{ each.name }}</option>
      </Choice>
      <button
        type="button"
        class="text-soft hover:text-ink"
        :aria-label="`Throw ${name} away`"
        title="It goes into the trash, with all its versions"
        @click="emit('remove')"
      >
        Throw away
      </button>
    </div>
  </li>
</template>
