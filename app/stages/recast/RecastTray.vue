<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useRecast } from '../../stores/recast'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'
import { counted } from '../../desk/words'
import NoticeLine from '../../kit/NoticeLine.vue'
import ColorChanges from './ColorChanges.vue'
import RecastChanges from './RecastChanges.vue'
import RecastCriteria from './RecastCriteria.vue'
import RecastMatches from './RecastMatches.vue'
import Term from '../../kit/Term.vue'

const desk = useDesk()
const recast = useRecast()
const words = useWords()
const styles = useStyles()
const name = ref('')
const form = computed(() => recast.form)
const ready = computed(() => recast.parsed.success)
async function keep(): Promise<void> {
  await recast.keep(name.value.trim())
  name.value = ''
}
onMounted(() => {
  void recast.fetchWishes()
  void styles.refresh()
})
onBeforeUnmount(() => recast.drop())
</script>

<template>
  <div class="flex h-full min-h-0 flex-col">
    <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-6">
      <div class="flex items-baseline gap-3">
        <h1 class="flex-1"><Term word="recast">Recast</Term> text</h1>
        <button type="button" class="link" @click="recast.clear()">Clear it all</button>
      </div>
      <p class="text-soft">
        Find text by its words and its look, and change either. What is empty does not matter, or is left alone.
      </p>
      <NoticeLine v-if="recast.done" kind="done">{{ recast.done }}</NoticeLine>
      <NoticeLine v-if="recast.message" kind="failed">{{ recast.message }}</NoticeLine>
      <div v-if="recast.wishes.length > 0" class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-[13px]">
        <span class="text-soft">Kept:</span>
        <span v-for="wish in recast.wishes" :key="wish.id" class="border border-rule bg-sheet px-2 py-[2px]"
          ><button type="button" class="link" @click="recast.run(wish)">{{ wish.name }}</button>
          <button type="button" class="text-soft" :aria-label="`Forget ${wish.name}`" @click="recast.forget(wish.id)">
            ×
          </button></span
        >
      </div>

      <h2 class="mt-4">Where</h2>
      <div class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <label class="flex items-center gap-1.5"
          ><input v-model="form.scope" type="radio" value="document" name="scope" />the whole document</label
        >
        <label class="flex items-center gap-1.5" :class="words.spot ? '' : 'text-soft'"
          ><input v-model="form.scope" type="radio" value="story" name="scope" :disabled="!words.spot" />this
          text</label
        >
        <label class="flex items-center gap-1.5" :class="words.hasSelection ? '' : 'text-soft'"
          ><input v-model="form.scope" type="radio" value="ranges" name="scope" :disabled="!words.hasSelection" />what
          is selected</label
        >
        <label class="flex items-center gap-1.5"
          ><input v-model="form.scope" type="radio" value="pages" name="scope" />pages</label
        >
        <template v-if="form.scope === 'pages'"
          ><input
            v-model.number="form.from"
            type="number"
            min="1"
            :max="desk.sheets.length"
            class="field w-[70px]"
            aria-label="First page" />
          to
          <input
            v-model.number="form.to"
            type="number"
            min="1"
            :max="desk.sheets.length"
            class="field w-[70px]"
            aria-label="Last page"
        /></template>
        <span class="text-soft">Several documents: from the shelf, All documents.</span>
      </div>

      <RecastCriteria />
      <RecastChanges />
      <ColorChanges />

      <p
        class="mt-4 border-l-2 border-verdigris pl-3 text-[16px] leading-6"
        :class="{ 'text-rubric': !ready }"
        aria-live="polite"
        aria-label="The wish"
      >
        {{ recast.sentence }}
      </p>
      <form class="mt-2 flex gap-2" @submit.prevent="keep">
        <input
          v-model="name"
          class="field w-[200px]"
          placeholder="Keep this wish as"
          maxlength="200"
          aria-label="Name to keep this wish under"
        /><button type="submit" class="plain" :disabled="name.trim() === '' || !ready">Keep</button>
      </form>
      <RecastMatches v-if="recast.plan" />
    </div>
    <div class="flex h-[50px] shrink-0 items-center gap-3 border-t border-ink px-[22px]">
      <button
        type="button"
        :class="recast.plan ? 'plain' : 'act'"
        :disabled="recast.busy || !ready"
        @click="recast.look()"
      >
        {{ recast.busy ? 'Looking …' : recast.plan ? 'Look again' : 'Look' }}
      </button>
      <button
        v-if="recast.plan"
        type="button"
        class="act"
        :disabled="recast.busy || recast.plan.places === 0"
        @click="recast.apply()"
      >
        Recast {{ counted(recast.plan.places, 'place') }}
      </button>
      <button v-if="recast.plan" type="button" class="plain" @click="recast.drop()">Leave it</button>
      <button
        v-if="recast.plan && recast.plan.places > 0"
        type="button"
        class="plain"
        @click="recast.change.walking = true"
      >
        Walk the pages
      </button>
      <span class="ml-auto text-[13px] text-soft">one version, one undo</span>
    </div>
  </div>
</template>
