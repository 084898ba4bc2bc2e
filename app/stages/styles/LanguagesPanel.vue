<script setup lang="ts">
import Choice from '../../kit/Choice.vue'
import { grouped } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'

/** Text in several languages: one shown alone, or taken into frames of its own. */
const desk = useDesk()
const styles = useStyles()
const languages = shallowRef<readonly { readonly language: string; readonly characters: number }[]>([])
const style = ref('')
const characters = computed(() => styles.list.filter(each => each.family === 'text' && each.characters > 0))
const hidden = computed(() => styles.list.some(each => each.family === 'text' && each.displayName === 'Not shown'))
const names = new Intl.DisplayNames('en-GB', { type: 'language' })
function nameOf(language: string): string {
  try {
    return language === '' ? 'no language' : (names.of(language) ?? language)
  } catch {
    return language
  }
}
onMounted(async () => {
  languages.value = (await desk.engine?.ask('languages', {})) ?? []
})
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1">Languages</h1>
    <p class="text-soft">
      What the text says it is in. One language can be shown alone, or taken out of its frames into frames of its own
      that lie in the same place.
    </p>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <button v-if="hidden" type="button" class="act mt-3" @click="styles.propose([{ type: 'show', language: null }])">
      Show all languages again
    </button>
    <table class="mt-3 table-fixed">
      <colgroup>
        <col />
        <col class="w-[86px]" />
        <col class="w-[240px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Language</th>
          <th scope="col" class="number">Characters</th>
          <th scope="col"><span class="sr-only">What to do</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in languages" :key="each.language">
          <td class="truncate">
            {{ nameOf(each.language) }} <span class="text-[12px] text-soft">{{ each.language }}</span>
          </td>
          <td class="number">{{ grouped(each.characters) }}</td>
          <td>
            <template v-if="each.language !== '' && languages.length > 1"
              ><button
                type="button"
                class="link"
                :aria-label="`Show ${nameOf(each.language)} alone`"
                @click="styles.propose([{ type: 'show', language: each.language }])"
              >
                Show alone</button
              ><button
                type="button"
                class="link ml-4"
                :aria-label="`Split ${nameOf(each.language)} into frames of its own`"
                @click="styles.propose([{ type: 'split', apart: { kind: 'language', language: each.language } }])"
              >
                Split into frames
              </button></template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="characters.length > 0" class="mt-4 flex items-center gap-2">
      Text in the character style
      <Choice v-model="style" aria-label="Character style to split by">
        <option value="">choose one</option>
        <option v-for="each in characters" :key="each.name" :value="each.name">{{ each.displayName }}</option>
      </Choice>
      <button
        type="button"
        class="plain"
        :disabled="style === ''"
        @click="styles.propose([{ type: 'split', apart: { kind: 'style', name: style } }])"
      >
        Split into frames
      </button>
    </p>
  </div>
</template>
