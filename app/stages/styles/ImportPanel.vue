<script setup lang="ts">
import { isOfText } from '~~/core/style/families'
import { importWishes, sameStyle, type StyleChoice } from '~~/core/change/styles/import-styles'
import type { ListedStyle } from '~~/core/change/styles/style-list'
import type { StyleDetail } from '~~/core/change/styles/style-detail'
import type { ShelfCard } from '~~/shared/api'
import Choice from '../../kit/Choice.vue'
import ShelfPicker from '../../kit/ShelfPicker.vue'
import { sentenceOf, useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'

/** Styles from another document or template of the shelf, chosen one by one. */
const desk = useDesk()
const styles = useStyles()
const source = shallowRef<ShelfCard | null>(null)
const theirs = shallowRef<readonly ListedStyle[]>([])
const mine = shallowRef<readonly StyleDetail[]>([])
const chosen = ref<Record<string, StyleChoice['how']>>({})
const fetching = ref(false)
const keyOf = (style: { readonly family: string; readonly name: string }) => `${style.family}\n${style.name}`
const nameOf = computed(() => source.value?.fileName.replace(/\.\w+$/, '') ?? '')

onMounted(async () => {
  const list = await Promise.all(
    styles.list.filter(isOfText).map(({ family, name }) => desk.engine!.ask('style', { family, name })),
  )
  mine.value = list.filter(style => style !== null).filter(isOfText)
})
watch(source, async card => {
  theirs.value = []
  chosen.value = {}
  if (card === null) return
  fetching.value = true
  try {
    theirs.value = await $fetch<ListedStyle[]>(`/api/documents/${card.id}/styles`)
  } catch (error) {
    styles.message = sentenceOf(error)
  }
  fetching.value = false
})
const clash = (style: ListedStyle) => sameStyle(styles.list, style.summary)
const alike = (style: ListedStyle) => clash(style)?.sentence === style.summary.sentence
function toggle(style: ListedStyle): void {
  const { [keyOf(style.summary)]: known, ...rest } = chosen.value
  chosen.value = known === undefined ? { ...rest, [keyOf(style.summary)]: clash(style) ? 'theirs' : 'both' } : rest
}
const wishes = computed(() =>
  importWishes(
    theirs.value.map(each => each.detail),
    mine.value,
    theirs.value.flatMap((each): StyleChoice[] => {
      const how = chosen.value[keyOf(each.summary)]
      return how === undefined ? [] : [{ family: each.summary.family, name: each.summary.name, how }]
    }),
    nameOf.value,
  ),
)
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1">Styles from elsewhere</h1>
    <p class="text-soft">
      Choose them one by one. Where this document has a style of the name already, both are shown.
    </p>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <ShelfPicker v-model="source" label="From" class="mt-3" :without="desk.info?.document.id" />
    <div class="sticky top-0 z-10 mt-2 flex gap-2 border-b border-rule bg-paper py-2">
      <button type="button" class="act" :disabled="wishes.length === 0 || styles.busy" @click="styles.propose(wishes)">
        Show the plan
      </button>
      <button type="button" class="plain" @click="styles.leave()">Leave it</button>
    </div>
    <p v-if="fetching" role="status" class="mt-3 text-soft">Reading its styles …</p>
    <table v-if="theirs.length > 0" class="mt-2 table-fixed">
      <colgroup>
        <col class="w-[26px]" />
        <col class="w-[170px]" />
        <col />
        <col class="w-[132px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">Take it</span></th>
          <th scope="col">Style</th>
          <th scope="col">What it says</th>
          <th scope="col">If the name is taken</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="style in theirs" :key="keyOf(style.summary)">
          <td>
            <input
              type="checkbox"
              class="mt-1"
              :checked="chosen[keyOf(style.summary)] !== undefined"
              :aria-label="`Take ${style.summary.displayName}`"
              @change="toggle(style)"
            />
          </td>
          <td class="truncate" :style="{ paddingLeft: `${style.summary.depth * 12}px` }">
            {{ style.summary.displayName
            }}<span v-if="style.summary.family === 'text'" class="text-[12px] text-soft"> for words</span>
          </td>
          <td class="py-1">
            <template v-if="clash(style) && !alike(style)"
              ><span class="text-soft">theirs</span> {{ style.summary.sentence }}<br /><span class="text-soft"
                >mine</span
              >
              {{ clash(style)!.sentence }}</template
            ><span v-else>{{ style.summary.sentence }}</span>
          </td>
          <td>
            <Choice
              v-if="clash(style) && chosen[keyOf(style.summary)] !== undefined"
              :model-value="chosen[keyOf(style.summary)]!"
              class="!min-h-[26px] w-full !py-0"
              :aria-label="`${style.summary.displayName} is there already`"
              @update:model-value="chosen[keyOf(style.summary)] = $event"
            >
              <option value="mine">keep mine</option>
              <option value="theirs">take theirs</option>
              <option value="both">keep both</option></Choice
            ><span v-else-if="clash(style)" class="text-soft">{{ alike(style) ? 'says the same' : 'is taken' }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="source !== null && !fetching" class="mt-3 text-soft">This document has no named styles.</p>
  </div>
</template>
