<script setup lang="ts">
import { counted } from '../desk/words'
import NoticeLine from '../kit/NoticeLine.vue'
import { useAddedFaces } from '../stores/added-faces'

/** Font files come into the library: some, or a whole folder of them. */
const added = useAddedFaces()
const files = ref<HTMLInputElement | null>(null)
const folder = ref<HTMLInputElement | null>(null)
function chosen(input: HTMLInputElement | null): void {
  const list = [...(input?.files ?? [])]
  if (input) input.value = ''
  if (list.length > 0) void added.add(list)
}
</script>

<template>
  <div>
    <div class="flex items-center gap-3">
      <input
        ref="files"
        type="file"
        multiple
        accept=".ttf,.otf,.ttc,.otc,.woff,.woff2"
        class="sr-only"
        tabindex="-1"
        aria-label="Font files to add"
        @change="chosen(files)"
      />
      <input
        ref="folder"
        type="file"
        webkitdirectory
        class="sr-only"
        tabindex="-1"
        aria-label="Folder of font files to add"
        @change="chosen(folder)"
      />
      <button type="button" class="plain" :disabled="added.progress !== null" @click="files?.click()">
        Add font files
      </button>
      <button type="button" class="plain" :disabled="added.progress !== null" @click="folder?.click()">
        Add a folder
      </button>
      <template v-if="added.progress">
        <progress
          class="h-[10px] flex-1"
          :value="added.progress.done"
          :max="added.progress.all"
          aria-label="Files added"
        />
        <span class="text-[13px] text-soft" role="status"
          >{{ added.progress.done + 1 }} of {{ added.progress.all }}</span
        >
        <button type="button" class="link" @click="added.stop()">Stop</button>
      </template>
    </div>
    <NoticeLine v-if="added.failure" kind="failed">{{ added.failure }}</NoticeLine>
    <NoticeLine v-else-if="added.said" kind="done">{{ added.said }}</NoticeLine>
    <details v-if="added.refused.length > 0" class="mt-1 text-[13px]">
      <summary class="cursor-pointer text-rubric">{{ counted(added.refused.length, 'file') }} refused</summary>
      <ul class="mt-1 max-h-[140px] overflow-y-auto">
        <li v-for="each in added.refused" :key="each.name">
          <span class="font-medium">{{ each.name }}</span>: {{ each.why }}
        </li>
      </ul>
    </details>
  </div>
</template>
