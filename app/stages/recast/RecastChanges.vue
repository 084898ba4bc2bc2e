<script setup lang="ts">
import Choice from '../../kit/Choice.vue'
import { useLibrary } from '../../stores/library'
import { useRecast } from '../../stores/recast'
import { useStyles } from '../../stores/styles'
import { useType, type FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'

/** What is made of it. */
const recast = useRecast()
const library = useLibrary()
const styles = useStyles()
const form = computed(() => recast.form)
const more = ref(false)
const families = computed((): FamilyChoice[] => [
  { family: '', note: 'leave it', hash: null, absent: false },
  ...useType().choices,
])
const faces = computed(() =>
  form.value.newFamily === '' ? [] : (library.library?.family(form.value.newFamily).map(face => face.style) ?? []),
)
const paragraphStyles = computed(() => styles.list.filter(style => style.family === 'paragraph'))
const characterStyles = computed(() => styles.list.filter(style => style.family === 'text'))
const hex = (value: string) => (/^#[0-9a-f]{6}$/i.test(value) ? value : '#000000')
</script>

<template>
  <section aria-label="What is made of it">
    <h2 class="mt-4">Make of it</h2>
    <div class="mt-1 flex items-end gap-3">
      <label class="flex items-center gap-1.5 pb-1.5 whitespace-nowrap"
        ><input v-model="form.replaceWords" type="checkbox" />new words</label
      >
      <input
        v-if="form.replaceWords"
        v-model="form.newWords"
        class="field min-w-0 flex-1"
        :placeholder="form.expression ? 'empty deletes; $1 is what the first group took' : 'empty deletes'"
        aria-label="New words"
      />
    </div>
    <div class="mt-2 flex items-end gap-3">
      <FamilyPicker
        v-model="form.newFamily"
        :choices="families"
        label="Family"
        placeholder="leave it"
        @update:model-value="form.newFace = ''"
      />
      <label class="w-[130px] text-[13px] text-soft"
        >Face
        <Choice v-model="form.newFace" class="flex w-full text-[14px] text-ink" :disabled="form.newFamily === ''">
          <option value="">leave it</option>
          <option v-for="face in faces" :key="face" :value="face">{{ face }}</option>
        </Choice></label
      >
      <label class="w-[84px] text-[13px] text-soft"
        >Size
        <input
          v-model.number="form.newSize"
          type="number"
          step="0.1"
          min="0.5"
          class="field block w-full text-[14px] text-ink"
          placeholder="leave it"
      /></label>
      <Choice v-model="form.newSizeIs" class="w-[66px]" aria-label="Unit of the size">
        <option value="points">pt</option>
        <option value="percent">%</option>
      </Choice>
    </div>
    <div class="mt-2 grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] text-soft">
      <label class="col-span-2"
        >Paragraph style
        <Choice v-model="form.newParagraphStyle" class="flex w-full text-ink">
          <option value="">leave it</option>
          <option v-for="style in paragraphStyles" :key="style.name" :value="style.name">
            {{ style.displayName }}
          </option>
        </Choice></label
      >
      <label class="col-span-2"
        >Character style
        <Choice v-model="form.newCharacterStyle" class="flex w-full text-ink">
          <option value="">leave it</option>
          <option value="none">take it away</option>
          <option v-for="style in characterStyles" :key="style.name" :value="style.name">
            {{ style.displayName }}
          </option>
        </Choice></label
      >
    </div>
    <label class="mt-2 flex items-center gap-1.5"
      ><input v-model="form.settle" type="checkbox" />take away what was set by hand</label
    >
    <button type="button" class="link mt-2" :aria-expanded="more" @click="more = !more">
      {{ more ? 'Fewer changes' : 'More changes' }}
    </button>
    <div v-if="more" class="mt-1 grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] text-soft">
      <label
        >Colour
        <span class="flex gap-1"
          ><input
            v-model="form.newColor"
            class="field block w-full text-ink"
            placeholder="leave it"
            maxlength="7" /><input
            type="color"
            :value="hex(form.newColor)"
            class="h-[30px] w-[30px]"
            aria-label="Pick the new colour"
            @input="form.newColor = ($event.target as HTMLInputElement).value" /></span
      ></label>
      <label
        >Background
        <input v-model="form.newBackground" class="field block w-full text-ink" placeholder="leave it" maxlength="7"
      /></label>
      <label
        >Weight
        <input
          v-model.number="form.newWeight"
          type="number"
          step="100"
          min="1"
          max="1000"
          class="field block w-full text-ink"
          placeholder="leave it"
      /></label>
      <label
        >Tracking
        <input
          v-model.number="form.newTracking"
          type="number"
          class="field block w-full text-ink"
          placeholder="leave it"
      /></label>
      <label
        >Italics
        <Choice v-model="form.newItalic" class="flex w-full text-ink">
          <option value="">leave it</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label
        >Case
        <Choice v-model="form.newCase" class="flex w-full text-ink">
          <option value="">leave it</option>
          <option value="none">as written</option>
          <option value="uppercase">capitals</option>
          <option value="small-caps">small capitals</option>
          <option value="lowercase">lower case</option>
          <option value="capitalize">initial capitals</option>
        </Choice></label
      >
      <label
        >Underlined
        <Choice v-model="form.newUnderlined" class="flex w-full text-ink">
          <option value="">leave it</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label
        >Language <input v-model="form.newLanguage" class="field block w-full text-ink" placeholder="leave it"
      /></label>
      <label
        >Leading
        <input
          v-model.number="form.newLeading"
          type="number"
          step="0.5"
          class="field block w-full text-ink"
          placeholder="leave it"
      /></label>
      <label
        >in
        <Choice v-model="form.newLeadingIs" class="flex w-full text-ink">
          <option value="points">pt</option>
          <option value="percent">%</option>
        </Choice></label
      >
    </div>
  </section>
</template>
