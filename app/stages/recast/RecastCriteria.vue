<script setup lang="ts">
import { roleTitle } from '~~/core/style/roles'
import { places } from '~~/core/census/criteria'
import { roles } from '~~/core/document/rules'
import { coveredScripts } from '~~/core/font/measure/covered-scripts'
import { sameFamily } from '~~/core/document/font-family'
import Choice from '../../kit/Choice.vue'
import { useDesk } from '../../stores/desk'
import { useRecast } from '../../stores/recast'
import { useStyles } from '../../stores/styles'
import type { FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'
import { counted } from '../../desk/words'

/** What is looked for. */
const desk = useDesk()
const recast = useRecast()
const styles = useStyles()
const form = computed(() => recast.form)
const more = ref(false)
const families = computed((): FamilyChoice[] => {
  const list = new Map<string, FamilyChoice & { characters: number }>()
  for (const face of desk.census?.faces ?? []) {
    const own = list.get(face.family)
    list.set(face.family, {
      family: face.family,
      absent: face.status === 'absent',
      hash: face.status === 'absent' ? null : face.shownBy,
      characters: (own?.characters ?? 0) + face.characters,
      note: '',
    })
  }
  return [
    { family: '', note: 'any family', hash: null, absent: false },
    ...[...list.values()]
      .sort((a, b) => b.characters - a.characters)
      .map(each => ({ ...each, note: `${each.absent ? 'absent, ' : ''}${counted(each.characters, 'character')}` })),
  ]
})
const faces = computed(() => [
  ...new Set(
    (desk.census?.faces ?? []).filter(face => sameFamily(face.family, form.value.family)).map(face => face.style),
  ),
])
const paragraphStyles = computed(() => styles.list.filter(style => style.family === 'paragraph'))
const characterStyles = computed(() => styles.list.filter(style => style.family === 'text'))
const textColors = computed(() => [
  ...new Set((desk.census?.voices ?? []).map(voice => voice.color).filter(color => color !== '')),
])
const placeWords: Readonly<Record<string, string>> = {
  body: 'the body',
  frame: 'frames',
  table: 'tables',
  header: 'headers, footers, masters',
  note: 'notes',
  annotation: 'annotations',
}
</script>

<template>
  <section aria-label="What is looked for">
    <div class="mt-4 flex items-baseline gap-3">
      <h2 class="flex-1">Find</h2>
      <button type="button" class="link" @click="recast.likeSelected('words')">the selected words</button
      ><button type="button" class="link" @click="recast.likeSelected('look')">
        what looks like the selected text
      </button>
    </div>
    <label class="mt-1 block text-[13px] text-soft"
      >Words
      <input
        v-model="form.text"
        class="field block w-full text-[14px] text-ink"
        maxlength="1000"
        placeholder="any words"
        @keydown.enter.prevent="recast.look()"
    /></label>
    <div class="mt-1 flex flex-wrap gap-x-4 text-[13px]">
      <label class="flex items-center gap-1.5"
        ><input v-model="form.expression" type="checkbox" class="size-[14px]" />a regular expression</label
      >
      <label class="flex items-center gap-1.5"
        ><input v-model="form.matchCase" type="checkbox" class="size-[14px]" />match case</label
      >
      <label class="flex items-center gap-1.5"
        ><input v-model="form.wholeWords" type="checkbox" class="size-[14px]" />whole words</label
      >
    </div>
    <div class="mt-2 flex items-end gap-3">
      <FamilyPicker
        v-model="form.family"
        :choices="families"
        label="Family"
        placeholder="any family"
        @update:model-value="form.face = ''"
      />
      <label class="w-[130px] text-[13px] text-soft"
        >Face
        <Choice v-model="form.face" class="flex w-full text-[14px] text-ink">
          <option value="">any</option>
          <option v-for="face in faces" :key="face" :value="face">{{ face }}</option>
        </Choice></label
      >
      <label class="w-[116px] text-[13px] text-soft"
        >Is
        <Choice v-model="form.status" class="flex w-full text-[14px] text-ink">
          <option value="">anything</option>
          <option value="absent">absent</option>
          <option value="present">present</option>
          <option value="alias">shown by another</option>
          <option value="unnamed">not named</option>
        </Choice></label
      >
    </div>
    <div class="mt-2 grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] text-soft">
      <label
        >Size from, pt
        <input
          v-model.number="form.sizeLeast"
          type="number"
          step="0.1"
          min="0"
          class="field block w-full text-ink"
          placeholder="any"
      /></label>
      <label
        >to
        <input
          v-model.number="form.sizeMost"
          type="number"
          step="0.1"
          min="0"
          class="field block w-full text-ink"
          placeholder="any"
      /></label>
      <label
        >Colour
        <Choice v-model="form.color" class="flex w-full text-ink">
          <option value="">any</option>
          <option value="#000000">black</option>
          <option v-for="color in textColors" :key="color" :value="color">{{ color }}</option>
        </Choice></label
      >
      <label
        >Set by hand
        <Choice v-model="form.stray" class="flex w-full text-ink">
          <option value="">or not</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label class="col-span-2"
        >Paragraph style
        <Choice v-model="form.paragraphStyle" class="flex w-full text-ink">
          <option value="">any</option>
          <option v-for="style in paragraphStyles" :key="style.name" :value="style.name">
            {{ style.displayName }}
          </option>
        </Choice></label
      >
      <label
        >Role
        <Choice v-model="form.role" class="flex w-full text-ink">
          <option value="">any</option>
          <option v-for="role in roles" :key="role" :value="role">{{ roleTitle(role) }}</option>
        </Choice></label
      >
      <label>Language <input v-model="form.language" class="field block w-full text-ink" placeholder="any" /></label>
    </div>
    <button type="button" class="link mt-2" :aria-expanded="more" @click="more = !more">
      {{ more ? 'Fewer criteria' : 'More criteria' }}
    </button>
    <div v-if="more" class="mt-1 grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] text-soft">
      <label
        >Weight from
        <input
          v-model.number="form.weightLeast"
          type="number"
          step="100"
          min="1"
          max="1000"
          class="field block w-full text-ink"
          placeholder="any"
      /></label>
      <label
        >to
        <input
          v-model.number="form.weightMost"
          type="number"
          step="100"
          min="1"
          max="1000"
          class="field block w-full text-ink"
          placeholder="any"
      /></label>
      <label
        >Tracking from
        <input v-model.number="form.trackingLeast" type="number" class="field block w-full text-ink" placeholder="any"
      /></label>
      <label
        >to
        <input v-model.number="form.trackingMost" type="number" class="field block w-full text-ink" placeholder="any"
      /></label>
      <label
        >Italics
        <Choice v-model="form.italic" class="flex w-full text-ink">
          <option value="">or not</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label
        >Case
        <Choice v-model="form.case" class="flex w-full text-ink">
          <option value="">any</option>
          <option value="uppercase">capitals</option>
          <option value="small-caps">small capitals</option>
          <option value="lowercase">lower case</option>
          <option value="capitalize">initial capitals</option>
        </Choice></label
      >
      <label
        >Underlined
        <Choice v-model="form.underlined" class="flex w-full text-ink">
          <option value="">or not</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label
        >Raised or lowered
        <Choice v-model="form.raised" class="flex w-full text-ink">
          <option value="">or not</option>
          <option value="yes">yes</option>
          <option value="no">no</option>
        </Choice></label
      >
      <label class="col-span-2"
        >Character style
        <Choice v-model="form.characterStyle" class="flex w-full text-ink">
          <option value="">any</option>
          <option v-for="style in characterStyles" :key="style.name" :value="style.name">
            {{ style.displayName }}
          </option>
        </Choice></label
      >
      <label
        >Script
        <Choice v-model="form.script" class="flex w-full text-ink">
          <option value="">any</option>
          <option v-for="script in coveredScripts" :key="script" :value="script">{{ script }}</option>
        </Choice></label
      >
      <label
        >Place
        <Choice v-model="form.place" class="flex w-full text-ink">
          <option value="">any</option>
          <option v-for="place in places.filter(each => each !== 'chart')" :key="place" :value="place">
            {{ placeWords[place] }}
          </option>
        </Choice></label
      >
    </div>
  </section>
</template>
