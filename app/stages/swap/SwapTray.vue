<script setup lang="ts">
import { roleTitle } from '~~/core/style/roles'
import Choice from '../../kit/Choice.vue'
import { useStages } from '../../desk/stages'
import { faceName } from '~~/core/font/face'
import { sameFamily } from '~~/core/document/font-family'
import { useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import { openWish, useSwap } from '../../stores/swap'
import PlanLeft from '../../kit/PlanLeft.vue'
import PlanRows from '../../kit/PlanRows.vue'
import Tick from '../../kit/Tick.vue'
import { keyText, type FaceMapping } from '~~/core/change/plan'
import { counted, grouped } from '../../desk/words'
import WishLimits from './WishLimits.vue'
import { useType, type FamilyChoice } from '../../stores/type'
import FamilyPicker from '../../type/FamilyPicker.vue'
import Term from '../../kit/Term.vue'

const open = useStages()
const desk = useDesk()
const library = useLibrary()
const swap = useSwap()
const plan = computed(() => swap.plan)

/** What can go: only what the document names. */
const going = computed((): FamilyChoice[] => {
  const census = desk.census
  if (!census) return []
  const families = new Map<string, { characters: number; absent: boolean; hash: string; family: string }>()
  for (const face of census.faces) {
    if (face.status === 'unnamed') continue
    const known = families.get(face.family.toLowerCase())
    families.set(face.family.toLowerCase(), {
      family: face.family,
      characters: (known?.characters ?? 0) + face.characters,
      absent: face.status === 'absent',
      hash: known?.hash ?? face.shownBy,
    })
  }
  return [
    ...[...families.values()]
      .sort((a, b) => b.characters - a.characters)
      .map(each => ({
        family: each.family,
        absent: each.absent,
        hash: each.absent ? null : each.hash,
        note: `${each.absent ? 'absent, ' : ''}${counted(each.characters, 'character')}`,
      })),
    ...census.unused.map(each => ({
      family: each.family,
      absent: each.status === 'absent',
      hash: null,
      note: 'named, not used',
    })),
  ]
})
/** What can come: the library. */
const coming = computed((): readonly FamilyChoice[] => useType().choices)
const facesOf = (family: string) => [
  ...new Set((desk.census?.faces ?? []).filter(face => sameFamily(face.family, family)).map(face => face.style)),
]
const stylesOf = (family: string) => library.library?.family(family).map(face => face.style) ?? []

/** Wishes whose limits and sizes are laid open. */
const laidOpen = ref(new Set<number>())
function lay(index: number): void {
  const next = new Set(laidOpen.value)
  if (!next.delete(index)) next.add(index)
  laidOpen.value = next
}

/** Stages of the plan that can be left out as one. */
const stages: readonly (readonly [string, string])[] = [
  ['style', 'styles'],
  ['stray', 'local formatting'],
  ['default', 'defaults'],
  ['master', 'headers and masters'],
  ['list', 'list labels'],
  ['chart', 'charts'],
  ['formula', 'formulas'],
  ['other', 'other definitions'],
  ['declaration', 'declarations and embedded fonts'],
]
const byStage = computed(() =>
  stages.flatMap(([stage, title]) => {
    const rows = (plan.value?.rows ?? []).filter(row => row.stage === stage && row.optional && row.reason === null)
    return rows.length === 0
      ? []
      : [{ stage, title, keys: rows.map(row => row.key), on: rows.some(row => row.included) }]
  }),
)
const change = () => swap.rewish()

/**
 * A family under the pointer is shown on the pages at once; when the list closes without a choice the plan comes
 * back.
 */
function point(index: number, family: string): void {
  if (family !== '') {
    void swap.preview(index, family)
    return
  }
  const looked = swap.previewing !== ''
  swap.endPreview()
  if (looked && swap.complete) void swap.makePlan()
}

const chooseFace = ({ from }: FaceMapping, to: string) => swap.chooseFace({ ...from, to })

const effects = computed(() => plan.value?.effects ?? null)
const pagesWord = computed(() => {
  if (!effects.value) return ''
  const difference = effects.value.pagesAfter - effects.value.pagesBefore
  return difference === 0
    ? `${counted(effects.value.pagesAfter, 'page')} before and after`
    : `${effects.value.pagesBefore} pages before, ${effects.value.pagesAfter} after`
})
</script>

<template>
  <div class="flex h-full min-h-0 flex-col">
    <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-6">
      <template v-if="swap.done">
        <h1>{{ swap.done.title }}</h1>
        <section class="mt-3 border border-verdigris bg-sheet p-3" role="status">
          <p v-if="swap.done.remains === 0">
            <strong>Done, as version {{ swap.done.version }}.</strong> The census finds nothing of the old font: no
            text, no style, no default and no declaration names it.
          </p>
          <p v-else>
            <strong>Done, as version {{ swap.done.version }}.</strong> The old font is still named where rows were left
            out, or cannot be changed here; the census lists it.
          </p>
          <div class="mt-3 flex gap-2">
            <button type="button" class="plain" @click="open.go('census')">See the census</button
            ><button type="button" class="plain" @click="swap.reset()">Plan another swap</button>
          </div>
        </section>
      </template>
      <template v-else>
        <h1 v-if="plan">{{ plan.title }}</h1>
        <h1 v-else><Term word="swap">Swap</Term> a face</h1>
        <p v-if="plan" class="text-soft">
          {{ counted(plan.characters, 'character') }} in {{ counted(plan.places, 'place') }}; {{ pagesWord }};
          {{
            plan.missingGlyphs.length === 0
              ? 'no glyph is missing'
              : `${counted(plan.missingGlyphs.length, 'sign')} missing`
          }}
        </p>
        <p v-else class="text-soft">
          Choose what goes and what comes. Nothing changes until you have seen the <Term word="plan">plan</Term>.
        </p>

        <p v-if="desk.signed" class="notice mt-3">
          <strong>This document is signed.</strong> Any change ends its signature; the version as it came is kept.
        </p>
        <div v-for="(wish, index) in swap.wishes" :key="index" class="mt-3">
          <div class="flex items-end gap-3">
            <FamilyPicker
              v-model="wish.from"
              :choices="going"
              label="Goes"
              placeholder="A family of this document"
              @update:model-value="
                () => {
                  wish.fromFace = null
                  change()
                }
              "
            />
            <label v-if="wish.from" class="w-[120px] text-[13px] text-soft"
              >Which faces
              <Choice v-model="wish.fromFace" class="mt-0.5 w-full text-[14px] text-ink" @update:model-value="change">
                <option :value="null">all</option>
                <option v-for="style in facesOf(wish.from)" :key="style" :value="style">{{ style }}</option>
              </Choice>
            </label>
            <FamilyPicker
              v-model="wish.to"
              :choices="coming"
              label="Comes"
              placeholder="Search the library"
              @update:model-value="change"
              @active="point(index, $event)"
            />
            <button
              type="button"
              class="link pb-1.5 whitespace-nowrap"
              :aria-expanded="laidOpen.has(index)"
              @click="lay(index)"
            >
              Size, scope
            </button>
            <button
              v-if="swap.wishes.length > 1"
              type="button"
              class="link pb-1.5"
              :aria-label="`Remove swap ${index + 1}`"
              @click="
                () => {
                  swap.wishes.splice(index, 1)
                  change()
                }
              "
            >
              Remove
            </button>
          </div>
          <WishLimits v-if="laidOpen.has(index)" :wish="wish" @change="change" />
        </div>
        <button
          v-if="swap.complete && swap.wishes.length < 12"
          type="button"
          class="link mt-2"
          @click="swap.wishes.push(openWish())"
        >
          And another at the same time
        </button>

        <p v-if="swap.change.message" role="alert" class="mt-3 border border-rubric bg-sheet p-3 text-rubric">
          {{ swap.change.message }}
        </p>
        <p v-if="swap.change.busy === 'planning' && !plan" class="mt-4 text-soft" role="status">
          Planning: setting all pages twice …
        </p>

        <template v-if="plan">
          <h2 class="mt-5">Face by face</h2>
          <table class="mt-1 table-fixed">
            <colgroup>
              <col />
              <col class="w-[190px]" />
              <col class="w-[150px]" />
            </colgroup>
            <thead>
              <tr>
                <th scope="col">Goes</th>
                <th scope="col">Comes</th>
                <th scope="col">How near</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="mapping in plan.mappings" :key="mapping.key">
                <td class="truncate">{{ faceName(mapping.from.family, mapping.from.style) }}</td>
                <td>
                  <Choice
                    class="!min-h-[26px] w-full !py-0"
                    :aria-label="`What comes for ${mapping.from.family} ${mapping.from.style}`"
                    :model-value="mapping.to.style"
                    :style="{ fontFamily: library.cssFamily(mapping.to.hash) }"
                    @update:model-value="chooseFace(mapping, $event)"
                  >
                    <option v-for="style in stylesOf(mapping.to.family)" :key="style" :value="style">
                      {{ style }}
                    </option>
                  </Choice>
                </td>
                <td class="truncate" :class="mapping.same ? 'text-soft' : 'text-ochre'" :title="mapping.note">
                  {{ mapping.note }}
                </td>
              </tr>
              <tr v-if="plan.mappings.length === 0">
                <td colspan="3" class="text-soft">No text is set in it; only styles and defaults name it.</td>
              </tr>
            </tbody>
          </table>

          <template v-if="plan.sizes.length > 0">
            <p v-for="size in plan.sizes" :key="size.wish" class="mt-2">
              <strong>Sizes go to {{ size.percent }} %</strong><span class="text-soft">, {{ size.said }}.</span>
            </p>
          </template>

          <template v-if="plan.groups.length > 0">
            <h2 class="mt-5">Text that shares the font</h2>
            <p class="text-soft">By role and style. What is left out here keeps its font, though others lose it.</p>
            <table class="mt-1 table-fixed">
              <colgroup>
                <col class="w-[26px]" />
                <col />
                <col class="w-[120px]" />
                <col class="w-[90px]" />
              </colgroup>
              <thead>
                <tr>
                  <th scope="col"><span class="sr-only">Swapped</span></th>
                  <th scope="col">Style</th>
                  <th scope="col">Role</th>
                  <th scope="col" class="number">Characters</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="group in plan.groups" :key="keyText(group.key)" :class="{ 'text-soft': group.kept }">
                  <td>
                    <Tick
                      class="mt-1"
                      :checked="!group.kept"
                      :said="`${group.style}: swapped`"
                      @change="swap.change.toggle(group.key)"
                    />
                  </td>
                  <td class="truncate">{{ group.style }}</td>
                  <td>{{ roleTitle(group.role ?? '–') }}</td>
                  <td class="number">{{ grouped(group.characters) }}</td>
                </tr>
              </tbody>
            </table>
          </template>

          <h2 class="mt-5">Places</h2>
          <p class="flex flex-wrap gap-x-4 gap-y-1">
            <label v-for="each in byStage" :key="each.stage" class="flex items-center gap-1.5"
              ><Tick
                :checked="each.on"
                :said="`All ${each.title} in the plan`"
                @change="swap.change.leave(each.keys, each.on)"
              />{{ each.title }}</label
            >
          </p>
          <PlanRows :rows="plan.rows" @toggle="swap.change.toggle($event)" />
          <label v-if="plan.rows.some(row => row.key.signs) || swap.symbols" class="mt-2 flex items-center gap-2"
            ><Tick
              :checked="swap.symbols"
              @change="
                on => {
                  swap.symbols = on
                  swap.makePlan()
                }
              "
            />
            Take fonts of signs along too</label
          >
          <PlanLeft :plan="plan" />
        </template>
      </template>
    </div>
    <div v-if="plan && !swap.done" class="flex h-[50px] shrink-0 items-center gap-3 border-t border-ink px-[22px]">
      <button type="button" class="act" :disabled="swap.change.busy !== '' || plan.places === 0" @click="swap.apply()">
        {{
          swap.change.busy === 'applying'
            ? 'Swapping …'
            : `Swap ${counted(Math.max(plan.mappings.length, 1), 'face')} in ${counted(plan.places, 'place')}`
        }}
      </button>
      <button type="button" class="plain" :disabled="swap.change.busy === 'applying'" @click="swap.reset()">
        Drop the plan
      </button>
      <span class="ml-auto text-[13px] text-soft">one version, one undo</span>
    </div>
  </div>
</template>
