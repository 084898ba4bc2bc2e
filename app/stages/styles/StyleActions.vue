<script setup lang="ts">
import { roles } from '~~/core/document/rules'
import { roleTitle } from '~~/core/style/roles'
import Choice from '../../kit/Choice.vue'
import { counted, pageWords } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { isTextFamily } from '~~/core/style/families'
import type { StyleSummary } from '~~/core/change/styles/style-list'
import Term from '../../kit/Term.vue'

/** What can be done with the chosen style. */
const desk = useDesk()
const styles = useStyles()
const style = computed(() => styles.summary!)
/** Its family, where it is a style of text by itself: those of placeholders, frames and cells are edited alone. */
const ofText = computed(() => (isTextFamily(style.value.family) ? style.value.family : null))
const others = computed(() =>
  styles.list.filter(each => each.family === style.value.family && each.name !== style.value.name),
)
const placesOf = ({ family, paragraphs }: StyleSummary) =>
  family === 'text' ? counted(paragraphs, 'stretch', 'stretches') : counted(paragraphs, 'paragraph')
const pagesOf = ({ pages }: StyleSummary) =>
  pages.length === desk.sheets.length ? 'all pages' : `page ${pageWords(pages, desk.sheets.length)}`
const into = ref('')
watch(
  () => styles.selected,
  () => {
    into.value = ''
  },
)

async function walk(): Promise<void> {
  const places =
    (await desk.engine?.ask('styleOccurrences', { family: style.value.family, name: style.value.name })) ?? []
  desk.walkThrough(places)
}
const role = (value: string) => {
  void styles.carryOut([
    {
      type: 'edit',
      family: style.value.family,
      name: style.value.name,
      changes: { role: value === '' ? null : (value as 'body') },
    },
  ])
}
</script>

<template>
  <section class="mt-3 border border-ink bg-sheet px-3 py-2.5" aria-label="The chosen style">
    <p>
      <strong>{{ style.displayName }}</strong><span v-if="style.author" class="text-soft">, by {{ style.author }}</span
      >. {{ style.sentence }}
    </p>
    <p v-if="style.templateParts.length > 0" class="text-[13px]">
      Table templates: {{ style.templateParts.join(', ') }}.
    </p>
    <p class="text-[13px] text-soft">
      {{
        style.paragraphs === 0
          ? 'Unused.'
          : `${placesOf(style)}, ${counted(style.characters, 'character')}, on ${pagesOf(style)}.`
      }}<template v-if="style.hint"> Its name {{ style.hint }}.</template>
    </p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button
        v-if="ofText"
        type="button"
        class="act"
        :disabled="!styles.target || styles.busy"
        @click="styles.applyStyle({ family: ofText, name: style.name })"
      >
        Apply{{ styles.target ? ` to ${styles.target.words}` : '' }}
      </button>
      <button type="button" class="plain" @click="styles.panel = 'edit'">Edit</button>
      <button v-if="style.family === 'paragraph'" type="button" class="plain" @click="styles.panel = 'rules'">
        Rules{{ style.rules > 0 ? ` (${style.rules})` : '' }}
      </button>
      <button type="button" class="plain" :disabled="style.paragraphs === 0" @click="walk">Walk its places</button>
      <button
        v-if="ofText"
        type="button"
        class="plain"
        :disabled="style.settledCharacters >= style.characters"
        @click="
          styles.propose([
            {
              type: 'settle',
              scope: { kind: 'style', family: ofText, name: style.name },
              groups: [...styles.groups],
              keep: [...styles.keep],
              idleOnly: false,
            },
          ])
        "
      >
        Settle its text
      </button>
    </div>
    <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[13px] text-soft">
      <label class="flex items-center gap-1.5"
        >Role
        <Choice
          class="text-ink"
          aria-label="Role"
          :model-value="style.proposed ? '' : (style.role ?? '')"
          @update:model-value="role"
        >
          <option value="">{{ style.role && style.proposed ? `${roleTitle(style.role)}, proposed` : 'none' }}</option>
          <option v-for="each in roles" :key="each" :value="each">{{ roleTitle(each) }}</option>
        </Choice>
      </label>
      <button
        v-if="style.proposed && style.role"
        type="button"
        class="link"
        @click="
          styles.carryOut([{ type: 'edit', family: style.family, name: style.name, changes: { role: style.role } }])
        "
      >
        Confirm {{ roleTitle(style.role) }}
      </button>
      <label v-if="ofText" class="flex items-center gap-1.5"
        >Key
        <Choice
          class="text-ink"
          aria-label="Key"
          :model-value="styles.pinOf(style)"
          @update:model-value="ofText && styles.pin($event, { family: ofText, name: style.name })"
        >
          <option value="">none</option>
          <option v-for="figure in 9" :key="figure" :value="String(figure)">Alt {{ figure }}</option>
        </Choice>
      </label>
      <label v-if="ofText" class="flex items-center gap-1.5"
        >Applying
        <Choice v-model="styles.strays" class="text-ink" aria-label="What applying does to local formatting">
          <option value="settle">settles what was set by hand</option>
          <option value="keep">keeps what was set by hand</option>
        </Choice>
      </label>
    </div>
    <div v-if="ofText" class="mt-2 flex flex-wrap items-center gap-2 text-[13px]">
      <span class="flex items-center gap-1.5 text-soft"
        ><span><Term word="fold">Fold</Term> into</span>
        <Choice v-model="into" class="max-w-[180px] text-ink" aria-label="Fold into">
          <option value="">choose a style</option>
          <option v-for="other in others" :key="other.name" :value="other.name">{{ other.displayName }}</option>
        </Choice>
      </span>
      <button
        type="button"
        class="plain"
        :disabled="into === ''"
        @click="styles.propose([{ type: 'fold', family: ofText, from: style.name, to: into }])"
      >
        Plan the fold
      </button>
      <button
        type="button"
        class="plain"
        @click="styles.propose([{ type: 'fold', family: ofText, from: style.name, to: null }])"
      >
        Delete{{ style.parent ? ', its parent takes over' : '' }}
      </button>
      <button
        v-if="style.family === 'paragraph'"
        type="button"
        class="plain"
        title="Text frames and shapes that follow no placeholder"
        @click="
          styles.propose([
            {
              type: 'apply',
              style: { family: 'paragraph', name: style.name },
              scope: { kind: 'loose-frames' },
              strays: styles.strays,
              keep: [...styles.keep],
            },
          ])
        "
      >
        Give it to all loose frames
      </button>
      <button
        v-if="styles.target && style.family === 'text'"
        type="button"
        class="link"
        @click="styles.applyStyle({ family: 'text', name: null })"
      >
        Take the character style off {{ styles.target.words }}
      </button>
    </div>
  </section>
</template>
