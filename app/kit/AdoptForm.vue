<script setup lang="ts">
import Choice from './Choice.vue'
import Term from './Term.vue'

/**
 * A name for the style that is made of how some text looks. Where all words of its paragraphs look so, a paragraph
 * style is offered first; which it is, and why, is said.
 */
const props = defineProps<{ kinds: readonly ('paragraph' | 'text')[]; whole: boolean }>()
const emit = defineEmits<{ adopt: [family: 'paragraph' | 'text', name: string] }>()
const name = ref('')
const family = ref<'paragraph' | 'text'>('text')
watch(
  () => [props.whole, props.kinds.join(' ')],
  () => {
    family.value = props.whole && props.kinds.includes('paragraph') ? 'paragraph' : props.kinds.at(-1)!
  },
  { immediate: true },
)
const said = computed(() =>
  family.value === 'paragraph'
    ? props.whole
      ? 'All words of its paragraphs look so: the paragraphs get a style of their own.'
      : 'Only paragraphs that look so from end to end get it; words inside others stay as they are.'
    : props.whole
      ? 'The words get a character style, though all of their paragraphs look so.'
      : 'It stands inside paragraphs: the words get a character style, the paragraphs keep theirs.',
)
function adopt(): void {
  if (name.value.trim() !== '') emit('adopt', family.value, name.value.trim())
}
</script>

<template>
  <form class="mt-2 text-[13px]" @submit.prevent="adopt">
    <div class="flex flex-wrap items-center gap-2">
      <span><Term word="adopt">Adopt</Term> this look as a</span>
      <Choice v-if="kinds.length > 1" v-model="family" aria-label="Kind of style">
        <option v-for="kind in kinds" :key="kind" :value="kind">
          {{ kind === 'paragraph' ? 'paragraph style' : 'character style' }}
        </option></Choice
      ><span v-else>{{ family === 'paragraph' ? 'paragraph style' : 'character style' }}</span>
      <input
        v-model="name"
        class="field w-[170px]"
        placeholder="Its name"
        maxlength="200"
        aria-label="Name of the new style"
      />
      <button type="submit" class="plain" :disabled="name.trim() === ''">Adopt it</button>
    </div>
    <p class="mt-1 text-soft">{{ said }}</p>
  </form>
</template>
