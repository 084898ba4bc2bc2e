<script setup lang="ts">
import type { Slot } from '~~/core/document/font-attributes'
import { isTextFamily, type StyleFamily } from '~~/core/style/families'
import type { StyleChanges } from '~~/core/style/style-changes'
import type { Wish } from '~~/core/change/registry'
import { points } from '~~/core/document/lengths'
import type { StyleGround } from '~~/core/proof/style-grounds'
import { percent, weightNumber } from '~~/core/style/properties'
import Choice from '../../kit/Choice.vue'
import { useDesk } from '../../stores/desk'
import { useStyles, type OpenStyle } from '../../stores/styles'
import { useType, type FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'
import { cellFields, frameFields, paragraphFields, slotFields, typeFields, type Field } from './fields'
import FeatureFields from './editor/FeatureFields.vue'
import DropCapField from './editor/DropCapField.vue'
import StyleSample from './editor/StyleSample.vue'
import { useContrast } from './editor/use-contrast'
import LeadingField from './editor/LeadingField.vue'
import ListFields from './editor/ListFields.vue'
import TabStopsField from './editor/TabStopsField.vue'
import ValueField from './ValueField.vue'

/** Sets a style up: every change shows on the sheets at once, and nothing is stored until it is kept. */
const desk = useDesk()
const styles = useStyles()
const making = computed(() => styles.panel === 'make')
const family = ref<StyleFamily>(styles.selected?.family ?? 'paragraph')
const detail = shallowRef<OpenStyle | null>(null)
const changes = ref<StyleChanges>({})
const name = ref('')
const sample = ref('')
const heading = ref<HTMLElement | null>(null)

async function open(): Promise<void> {
  const of = making.value ? parentOf.value : styles.selected
  detail.value = of && desk.engine ? await desk.engine.ask('style', of) : null
  sample.value = of && desk.engine ? await desk.engine.ask('styleSample', of) : ''
  grounds.value = of && desk.engine && !making.value ? await desk.engine.ask('styleGrounds', of) : []
}
const parentOf = computed(() => (changes.value.parent ? { family: family.value, name: changes.value.parent } : null))
onMounted(async () => {
  if (making.value) {
    const parent = styles.selected && isTextFamily(styles.selected.family) ? styles.selected.name : undefined
    changes.value = parent === undefined ? {} : { parent }
    if (parent === undefined) family.value = 'paragraph'
  }
  await open()
  name.value = making.value ? '' : (detail.value?.displayName ?? '')
  heading.value?.focus()
})
watch(
  () => [making.value && changes.value.parent, family.value],
  () => {
    if (making.value) void open()
  },
)

/**
 * What the style says itself, with what is being changed. When a style is made, its parent's own values are
 * inherited.
 */
function own(field: Field): string | null {
  const set = changes.value[field.on]?.[field.attribute]
  if (set !== undefined) return set
  return making.value ? null : (detail.value?.[field.on][field.attribute] ?? null)
}
function inherited(field: Field): { value: string; from: string } | null {
  const from = { text: 'inheritedText', paragraph: 'inheritedParagraph', holder: 'inheritedHolder' } as const
  const above = detail.value?.[from[field.on]][field.attribute] ?? null
  const parents = making.value ? detail.value?.[field.on][field.attribute] : undefined
  return parents !== undefined && detail.value ? { value: parents, from: detail.value.displayName } : above
}
function set(field: Field, value: string | null): void {
  const values = { ...changes.value[field.on], [field.attribute]: value }
  for (const also of field.also ?? []) values[also] = value
  changes.value = { ...changes.value, [field.on]: values }
}

const sizeField: Field = { id: 'size', title: 'Size', on: 'text', attribute: 'fo:font-size', kind: 'length', step: 0.5 }
const size = computed(() => {
  const stated = own(sizeField) ?? inherited(sizeField)?.value
  return (
    points(stated ?? '') ??
    (percent(stated ?? '') ?? 1) * (points(inherited(sizeField)?.value ?? '') ?? detail.value?.size ?? 12)
  )
})

const lineHeight: Field = {
  id: 'leading',
  title: 'Leading',
  on: 'paragraph',
  attribute: 'fo:line-height',
  kind: 'length',
  step: 0.5,
}
const leading = computed(() => own(lineHeight) ?? inherited(lineHeight)?.value ?? 'normal')
const choices = computed((): FamilyChoice[] => useType().choices)
const fontOf = (slot: Slot): string => {
  const wish = changes.value.fonts?.[slot]
  if (wish !== undefined) return wish?.family ?? detail.value?.fonts[slot].inherited?.value ?? ''
  return detail.value?.fonts[slot].own ?? detail.value?.fonts[slot].inherited?.value ?? ''
}
function fontSaid(slot: Slot): string {
  const wish = changes.value.fonts?.[slot]
  if (wish ?? (wish === undefined && !making.value && detail.value?.fonts[slot].own)) return 'set here'
  const from =
    making.value && detail.value?.fonts[slot].own ? detail.value.displayName : detail.value?.fonts[slot].inherited?.from
  return from ? `from ${from}` : 'not said'
}
function setFont(slot: Slot, chosen: string | null): void {
  changes.value = {
    ...changes.value,
    fonts: { ...changes.value.fonts, [slot]: chosen === null || chosen === '' ? null : { family: chosen } },
  }
}

const weight = computed(() => weightNumber(own(typeFields[0]!) ?? inherited(typeFields[0]!)?.value))
/** What its text stands on: asked for when the style is opened, since all pages are looked at for it. */
const grounds = shallowRef<readonly StyleGround[]>([])
const fieldOf = (id: string) => [...typeFields, ...paragraphFields, ...holderFields.value].find(each => each.id === id)
const { color, ground, contrasted } = useContrast({
  valueOf: id => {
    const field = fieldOf(id)
    return field && (own(field) ?? inherited(field)?.value)
  },
  isChanged: id => {
    const field = fieldOf(id)
    return field !== undefined && changes.value[field.on]?.[field.attribute] !== undefined
  },
  size,
  weight,
  grounds,
})
const tracked = computed(() => {
  const field = typeFields.find(each => each.id === 'tracking')!
  const length = points(own(field) ?? inherited(field)?.value ?? '')
  return length === null ? '' : `${Math.round((length / size.value) * 1000)} thousandths of an em`
})

const features = computed(() => changes.value.features ?? detail.value?.features ?? {})

/** A value of the style itself as it will be: changed here, or its own; those of a parent are not a new style's. */
function stated<Key extends 'parent' | 'next' | 'tabs' | 'dropCap' | 'listStyle' | 'listLabel' | 'outlineLevel'>(
  key: Key,
): NonNullable<StyleChanges[Key]> | null {
  const changed = changes.value[key]
  if (changed !== undefined) return changed as NonNullable<StyleChanges[Key]> | null
  return making.value ? null : ((detail.value?.[key] ?? null) as NonNullable<StyleChanges[Key]> | null)
}
const change = (made: Partial<StyleChanges>): void => {
  changes.value = { ...changes.value, ...made }
}
const characterStyles = computed(() => styles.list.filter(each => each.family === 'text'))

const touched = computed(
  () => Object.keys(changes.value).length > 0 || (!making.value && name.value.trim() !== detail.value?.displayName),
)
const wishes = computed((): Wish[] => {
  const { parent, ...rest } = changes.value
  if (making.value)
    return [
      {
        type: 'make',
        family: isTextFamily(family.value) ? family.value : 'paragraph',
        displayName: name.value.trim() || 'Unnamed style',
        changes: { ...rest, ...(parent ? { parent } : {}) },
      },
    ]
  const renamed =
    name.value.trim() !== '' && name.value.trim() !== detail.value?.displayName
      ? { displayName: name.value.trim() }
      : {}
  return [
    { type: 'edit', family: family.value, name: styles.selected!.name, changes: { ...changes.value, ...renamed } },
  ]
})
// The real pages follow while one edits.
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  changes,
  () => {
    clearTimeout(timer)
    if (!making.value && touched.value)
      timer = setTimeout(() => {
        void styles.preview(wishes.value)
      }, 60)
  },
  { deep: true },
)
onBeforeUnmount(() => clearTimeout(timer))

async function keepIt(): Promise<void> {
  clearTimeout(timer)
  if (await styles.carryOut(wishes.value)) styles.leave()
}
/** Whether it speaks of whole paragraphs: all do but those of characters. */
const ofParagraphs = computed(() => family.value !== 'text')
const holderFields = computed(() =>
  isTextFamily(family.value) ? [] : family.value === 'table-cell' ? cellFields : frameFields,
)
const otherStyles = computed(() =>
  styles.list.filter(each => each.family === family.value && (making.value || each.name !== styles.selected?.name)),
)
const italic = computed(() => (own(typeFields[1]!) ?? inherited(typeFields[1]!)?.value ?? 'normal') !== 'normal')
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 ref="heading" tabindex="-1" class="mt-1 outline-none">
      {{ making ? 'New style' : (detail?.displayName ?? 'Style') }}
    </h1>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <div class="sticky top-0 z-10 mt-2 flex gap-2 border-b border-rule bg-paper py-2">
      <button
        type="button"
        class="act"
        :disabled="styles.busy || !touched || (making && name.trim() === '')"
        @click="keepIt"
      >
        {{ styles.busy ? 'Storing …' : making ? 'Make it' : 'Keep it' }}
      </button>
      <button
        v-if="!making"
        type="button"
        class="plain"
        :disabled="!touched || styles.busy"
        @click="styles.propose(wishes)"
      >
        Show what it does
      </button>
      <button type="button" class="plain" @click="styles.leave()">Leave it</button>
    </div>
    <StyleSample
      :text="sample"
      :family="fontOf('western')"
      :size="size"
      :leading="leading"
      :weight="weight"
      :italic="italic"
      :color="color"
      :ground="ground"
      :features="features"
      class="mt-3"
    />

    <div class="mt-3 grid grid-cols-2 gap-3">
      <label class="text-[13px] text-soft"
        >Name<input v-model="name" class="field mt-[2px] w-full text-[14px] text-ink" maxlength="200"
      /></label>
      <label v-if="making" class="text-[13px] text-soft"
        >Kind<Choice v-model="family" class="mt-[2px] w-full text-[14px] text-ink" @update:model-value="changes = {}">
          <option value="paragraph">paragraph style</option>
          <option value="text">character style</option>
        </Choice></label
      >
      <label v-else-if="isTextFamily(family)" class="text-[13px] text-soft"
        >Author<input
          v-typed="changes.author ?? detail?.author ?? ''"
          class="field mt-[2px] w-full text-[14px] text-ink"
          maxlength="100"
          @change="change({ author: ($event.target as HTMLInputElement).value })"
      /></label>
      <label class="text-[13px] text-soft"
        >Parent<Choice
          class="mt-[2px] w-full text-[14px] text-ink"
          :model-value="stated('parent') ?? ''"
          @update:model-value="change({ parent: $event || null })"
        >
          <option value="">none</option>
          <option v-for="each in otherStyles" :key="each.name" :value="each.name">{{ each.displayName }}</option>
        </Choice></label
      >
      <label v-if="family === 'paragraph'" class="text-[13px] text-soft"
        >Followed by<Choice
          class="mt-[2px] w-full text-[14px] text-ink"
          :model-value="stated('next') ?? ''"
          @update:model-value="change({ next: $event || null })"
        >
          <option value="">itself</option>
          <option v-for="each in otherStyles" :key="each.name" :value="each.name">{{ each.displayName }}</option>
        </Choice></label
      >
    </div>

    <h2 class="mt-4">Type</h2>
    <div class="mb-1.5 flex items-end gap-3">
      <FamilyPicker
        :model-value="fontOf('western')"
        :choices="choices"
        label="Family"
        placeholder="Search the library"
        @update:model-value="setFont('western', $event)"
      /><span class="w-[230px] pb-1.5 text-[13px] text-soft"
        >{{ fontSaid('western') }}
        <button v-if="fontSaid('western') === 'set here'" type="button" class="link" @click="setFont('western', null)">
          Let go
        </button></span
      >
    </div>
    <ValueField
      :field="sizeField"
      :own="own(sizeField)"
      :inherited="inherited(sizeField)"
      @set="set(sizeField, $event)"
    />
    <LeadingField
      v-if="ofParagraphs"
      :own="own(lineHeight)"
      :inherited="inherited(lineHeight)"
      :size="size"
      @set="set(lineHeight, $event)"
    />
    <ValueField
      v-for="field in typeFields"
      :key="field.id"
      :field="field"
      :own="own(field)"
      :inherited="inherited(field)"
      @set="set(field, $event)"
    >
      <span
        v-if="field.id === 'color' && contrasted"
        class="ml-2"
        :class="contrasted.enough ? 'text-soft' : 'text-rubric'"
        >{{ contrasted.words }}</span
      >
      <span v-if="field.id === 'tracking' && tracked" class="ml-2 text-soft">{{ tracked }}</span>
    </ValueField>
    <details class="mt-2">
      <summary class="cursor-pointer font-medium">Asian and complex text</summary>
      <div v-for="slot in ['asian', 'complex'] as const" :key="slot" class="mt-1 flex items-end gap-3">
        <FamilyPicker
          :model-value="fontOf(slot)"
          :choices="choices"
          :label="`Family of ${slot} text`"
          placeholder="Search the library"
          @update:model-value="setFont(slot, $event)"
        /><span class="w-[230px] pb-1.5 text-[13px] text-soft"
          >{{ fontSaid(slot) }}
          <button v-if="fontSaid(slot) === 'set here'" type="button" class="link" @click="setFont(slot, null)">
            Let go
          </button></span
        >
      </div>
      <ValueField
        v-for="field in slotFields"
        :key="field.id"
        :field="field"
        :own="own(field)"
        :inherited="inherited(field)"
        @set="set(field, $event)"
      />
    </details>
    <FeatureFields
      v-if="isTextFamily(family)"
      :offered="detail?.faceFeatures ?? []"
      :features="features"
      :family="fontOf('western')"
      @set="change({ features: $event })"
    />
    <template v-if="holderFields.length > 0">
      <h2 class="mt-4">{{ family === 'table-cell' ? 'Cell' : 'Frame' }}</h2>
      <ValueField
        v-for="field in holderFields"
        :key="field.id"
        :field="field"
        :own="own(field)"
        :inherited="inherited(field)"
        @set="set(field, $event)"
      />
    </template>
    <template v-if="ofParagraphs">
      <h2 class="mt-4">Paragraph</h2>
      <ValueField
        v-for="field in paragraphFields"
        :key="field.id"
        :field="field"
        :own="own(field)"
        :inherited="inherited(field)"
        @set="set(field, $event)"
      />
    </template>
    <template v-if="family === 'paragraph'">
      <TabStopsField :tabs="stated('tabs') ?? []" @set="change({ tabs: $event })" />
      <DropCapField
        :drop-cap="stated('dropCap')"
        :character-styles="characterStyles"
        @set="change({ dropCap: $event })"
      />
      <ListFields
        :list-style="stated('listStyle')"
        :list-label="stated('listLabel')"
        :outline-level="stated('outlineLevel')"
        :lists="detail?.lists ?? []"
        :character-styles="characterStyles"
        @set="change"
      />
    </template>
  </div>
</template>
