<script setup lang="ts">
import type { CatalogueEntry } from '~~/core/font/catalogue'
import { faceName, measuresIn } from '~~/core/font/face'
import type { CoveredScript } from '~~/core/font/measure/covered-scripts'
import { equalSizes, scriptsShared } from '~~/core/font/equal-size'
import { fluent, type Legibility } from '~~/core/house/legibility'
import { counted } from '../desk/words'
import Choice from '../kit/Choice.vue'
import Term from '../kit/Term.vue'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'
import HeldLicences from './HeldLicences.vue'
import JudgeClass from './JudgeClass.vue'
import TakeOut from './TakeOut.vue'
import FaceAnatomy from './FaceAnatomy.vue'
import FaceAxes from './FaceAxes.vue'
import FaceFeatures from './FaceFeatures.vue'
import FaceGlyphs from './FaceGlyphs.vue'
import FaceSteps from './FaceSteps.vue'
import SpecimenPdf from './SpecimenPdf.vue'
import { comparedLetters, figuresOfFace, marginWords, scriptFigures, smallestSizes } from './face-words'

/** One family from close by: anatomy, what was measured, its faces, what it is fit for, sizes, licence. */
const props = defineProps<{
  entry: CatalogueEntry
  /** How large text of a document looks in a face, where one is open. */
  seen?: (size: number, hash: string) => Legibility | null
}>()
const library = useLibrary()
const type = useType()
const face = ref(props.entry.plain)
watch(
  () => props.entry,
  entry => {
    face.value = entry.plain
  },
)
/** The variable file among its faces: the one that is shown, if it is one. */
const variable = computed(() =>
  face.value.axes.length > 0 ? face.value : (props.entry.faces.find(each => each.axes.length > 0) ?? null),
)
const figures = computed(() => figuresOfFace(face.value.measures))
const size = ref(10)
/** A line of 100 mm, in points. */
const measure = (100 * 72) / 25.4
const others = computed(() =>
  type.compared.filter(entry => entry.family !== props.entry.family).map(entry => entry.plain),
)
const scripts = computed(() => scriptsShared([face.value, ...others.value]))
const wanted = ref<CoveredScript>('Latin')
const script = computed(() => (scripts.value.includes(wanted.value) ? wanted.value : (scripts.value[0] ?? 'Latin')))
const equal = computed(() => equalSizes(face.value, size.value, others.value, { measure, script: script.value }))
/** What its letters say, script by script: the one that the figures above were measured on stands first. */
const byScript = computed(() => {
  const { measuredOn, scripts: further } = face.value.measures
  const all = [...(measuredOn === null ? [] : [measuredOn]), ...(Object.keys(further) as CoveredScript[])]
  return all.map(each => ({ script: each, figures: scriptFigures(measuresIn(face.value, each)!) }))
})
/** The size from which it is read with ease in the document that is open. */
const hereFrom = computed(() => props.seen?.(10, face.value.hash) ?? null)
const anatomyLetters = computed(() => {
  const { measuredOn } = face.value.measures
  if (measuredOn === 'Latin') return 'Hagfn'
  return measuredOn === null ? type.shown.slice(0, 5) : comparedLetters[measuredOn]
})
</script>

<template>
  <article class="pb-8" :aria-label="`Specimen of ${entry.family}`">
    <div class="flex items-baseline gap-4">
      <h1 class="min-w-0 flex-1 truncate">{{ entry.family }}</h1>
      <SpecimenPdf class="shrink-0" :faces="[face]" />
      <button
        type="button"
        class="link shrink-0"
        :aria-pressed="type.shortlist.includes(entry.family)"
        @click="type.keep(entry.family)"
      >
        {{ type.shortlist.includes(entry.family) ? 'Off the shortlist' : 'Put on the shortlist' }}
      </button>
    </div>
    <p class="text-soft">
      {{ entry.classed.kind }} {{ entry.classed.class }}, {{ marginWords(entry.classed.margin)
      }}<template v-if="entry.classed.reasons.length > 0">: {{ entry.classed.reasons.join(', ') }}</template
      >. {{ counted(entry.faces.length, 'face') }}, {{ counted(entry.weights.length, 'weight')
      }}{{ entry.hasItalic ? ', with italics' : '' }}; {{ entry.scripts.join(', ') || 'signs alone' }}.
    </p>
    <p v-for="each in type.doubles.get(entry.family) ?? []" :key="each.said" class="text-ochre">
      It is there twice: {{ each.said }}.
    </p>
    <JudgeClass :entry="entry" />
    <TakeOut :family="entry.family" :faces="entry.faces" />
    <FaceAnatomy class="mt-3" :face="face" :letters="anatomyLetters" />
    <h2 class="mt-4">Measures <span class="font-sans text-[13px] text-soft">in thousandths of an em</span></h2>
    <dl class="mt-1 grid grid-cols-2 gap-x-6">
      <div v-for="each in figures" :key="each.name" class="flex justify-between gap-3 border-b border-rule py-[3px]">
        <dt class="shrink-0 text-soft">{{ each.name }}</dt>
        <dd class="text-right">{{ each.value }}</dd>
      </div>
    </dl>
    <p v-if="face.measures.measuredOn === null" class="mt-1 text-soft">
      It has no letters that are measured: it is a face of signs.
    </p>
    <p v-else-if="face.measures.measuredOn !== 'Latin'" class="mt-1 text-soft">
      It has no Latin letters: heights, strokes and widths were measured on its {{ face.measures.measuredOn }} letters.
    </p>
    <template v-if="byScript.length > 1">
      <h2 class="mt-4">By script <span class="font-sans text-[13px] text-soft">in thousandths of an em</span></h2>
      <table class="mt-1">
        <thead>
          <tr>
            <th scope="col">Script</th>
            <th scope="col" class="number">x-height</th>
            <th scope="col" class="number">Capitals</th>
            <th scope="col" class="number">Up</th>
            <th scope="col" class="number">Down</th>
            <th scope="col" class="number">Width</th>
            <th scope="col" class="number">Thick</th>
            <th scope="col" class="number">Thin</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="each in byScript" :key="each.script">
            <td>{{ each.script }}</td>
            <td v-for="(figure, at) in each.figures" :key="at" class="number">{{ figure }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <h2 class="mt-5">Weights and styles</h2>
    <div class="mt-1" role="radiogroup" aria-label="Face that is shown">
      <div v-for="each in entry.faces" :key="each.hash" class="border-b border-rule">
        <button
          type="button"
          role="radio"
          :aria-checked="each.hash === face.hash"
          class="flex w-full items-baseline gap-3 px-1 py-[3px] text-left"
          :class="{ 'bg-wash': each.hash === face.hash }"
          @click="face = each"
        >
          <span
            class="min-w-0 flex-1 truncate text-[19px] leading-7"
            :style="{ fontFamily: library.cssFamily(each.hash) }"
            >{{ type.shown }}</span
          >
          <span class="shrink-0 text-[13px] text-soft">{{ each.style }}, {{ each.weight }}</span>
        </button>
      </div>
    </div>
    <FaceAxes v-if="variable" :key="variable.hash" :face="variable" />
    <h2 class="mt-5"><Term word="fitness">Fit for</Term></h2>
    <table class="mt-1">
      <tbody>
        <tr v-for="each in entry.fitness" :key="each.use">
          <td class="w-[150px]">
            <span aria-hidden="true" :class="each.fit ? 'text-verdigris' : 'text-soft'">{{
              each.fit ? '✓' : '–'
            }}</span>
            {{ each.use }}<span class="sr-only">: {{ each.fit ? 'fit' : 'not fit' }}</span>
          </td>
          <td class="text-soft">{{ each.reason }}</td>
        </tr>
      </tbody>
    </table>
    <h2 class="mt-5">Smallest useful sizes</h2>
    <table class="mt-1">
      <tbody>
        <tr v-for="each in smallestSizes(entry)" :key="each.use">
          <td class="w-[110px]">{{ each.use }}</td>
          <td class="number w-[70px]">{{ each.size }}</td>
          <td class="pl-4 text-soft">{{ each.reason }}</td>
        </tr>
        <tr v-if="hereFrom">
          <td class="w-[110px]">In this document</td>
          <td class="number w-[70px]">{{ hereFrom.would }} pt</td>
          <td class="pl-4 text-soft">its x-height spans {{ fluent }}° {{ hereFrom.from }}</td>
        </tr>
      </tbody>
    </table>
    <h2 class="mt-5">
      As large as {{ faceName(entry.family, face.style) }} at
      <input
        v-model.number="size"
        type="number"
        min="4"
        max="200"
        step="0.5"
        class="field w-[76px] font-sans text-[14px]"
        aria-label="Size in points"
      />
      pt
      <Choice v-if="scripts.length > 1" v-model="wanted" class="font-sans text-[14px]" aria-label="By the letters of">
        <option v-for="each in scripts" :key="each" :value="each">by {{ each }} letters</option>
      </Choice>
    </h2>
    <p v-if="equal.length === 0" class="text-soft">
      Put other families on the shortlist: at which sizes they look as large stands here.
    </p>
    <table v-else class="mt-1">
      <thead>
        <tr>
          <th scope="col">Face</th>
          <th scope="col" class="number">By x-height</th>
          <th scope="col" class="number">By capitals</th>
          <th scope="col" class="number">Letters in 100 mm</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in equal" :key="each.face.hash">
          <td class="truncate">
            <span class="text-[17px]" :style="{ fontFamily: library.cssFamily(each.face.hash) }">{{
              script === 'Latin' ? 'agR' : comparedLetters[script]
            }}</span>
            {{ each.face.family }}
          </td>
          <td class="number">{{ each.byXHeight === null ? '–' : `${each.byXHeight.toFixed(1)} pt` }}</td>
          <td class="number">{{ each.byCapitals === null ? '–' : `${each.byCapitals.toFixed(1)} pt` }}</td>
          <td class="number">{{ each.lettersInLine ?? '–' }}</td>
        </tr>
      </tbody>
    </table>
    <h2 class="mt-5"><Term word="licenceByUse">Licence</Term></h2>
    <p class="text-soft">{{ entry.licence.name || 'No licence that is known is named in the file.' }}</p>
    <HeldLicences :entry="entry" />
    <table class="mt-1">
      <tbody>
        <tr v-for="each in entry.licence.uses" :key="each.use">
          <td class="w-[130px]">{{ each.use }}</td>
          <td
            class="w-[110px]"
            :class="{ 'text-rubric': each.right === 'not allowed', 'text-soft': each.right === 'not stated' }"
          >
            {{ each.right }}
          </td>
          <td class="text-soft">{{ each.from }}</td>
        </tr>
      </tbody>
    </table>
    <h2 class="mt-5">Steps</h2>
    <FaceSteps class="mt-1" :face="face" />
    <h2 class="mt-5">OpenType features</h2>
    <FaceFeatures :face="face" />
    <h2 class="mt-5">Characters</h2>
    <FaceGlyphs class="mt-1" :face="face" />
  </article>
</template>
