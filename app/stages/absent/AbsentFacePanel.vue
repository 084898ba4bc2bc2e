<script setup lang="ts">
import Choice from '../../kit/Choice.vue'
import { useStages } from '../../desk/stages'
import { useSwap } from '../../stores/swap'
import { useStyles } from '../../stores/styles'
import type { AbsentLayer } from '~~/core/census/absent-model'
import { useAbsent } from '../../stores/absent'
import { useDesk } from '../../stores/desk'
import { useLibrary } from '../../stores/library'
import type { AbsentEntry } from '../../workers/messages'
import { counted, grouped, pageWords } from '../../desk/words'
import FaceSources from './FaceSources.vue'

const props = defineProps<{ face: AbsentEntry }>()
const stages = useStages()
function swapFamily(family: string, to = ''): void {
  useSwap().begin(family, to)
  stages.go('swap')
}
/** From an absent face to the style that causes it. */
function goToStyle(title: string): void {
  const styles = useStyles()
  const style = styles.list.find(each => each.displayName === title)
  if (style) styles.selected = { family: style.family, name: style.name }
  stages.go('styles')
}
const desk = useDesk()
const absent = useAbsent()
const library = useLibrary()

const layerWords: Readonly<Record<AbsentLayer, string>> = {
  style: 'In styles',
  stray: 'Set by hand',
  default: 'What new text begins with',
  chart: 'In charts',
  note: 'In notes',
  master: 'On masters',
  header: 'In headers and footers',
  'off-page': 'Off the page',
  bullet: 'Bullets and list numbers',
  formula: 'In formulas',
  declaration: 'Declared',
  other: 'Elsewhere',
}
const at = computed(() => absent.own.findIndex(place => place === absent.current))
const shown = (text: string) =>
  text.trim() === ''
    ? text
        .replace(/ /g, '␣')
        .replace(/\u00A0/g, '⍽')
        .replace(/\t/g, '⇥')
    : text
/** A style of the document that causes the place: where mending helps every other place, too. */
const cause = computed(() =>
  absent.current && absent.current.layer === 'style'
    ? (props.face.layers.find(layer => layer.layer === 'style')?.owners[0] ?? null)
    : null,
)
const linesWords = (family: string) => {
  const count = absent.lines[family]
  return count === undefined
    ? absent.isLong && Object.keys(absent.lines).length === 0
      ? 'lines not counted'
      : 'counting lines …'
    : count === null
      ? 'lines not counted'
      : count === 0
        ? 'the same lines'
        : count > 0
          ? `${counted(count, 'line')} more`
          : `${counted(-count, 'line')} fewer`
}
const level = ref<'document' | 'folder' | 'desk'>('document')
</script>

<template>
  <div class="pb-4 pl-6">
    <table class="table-fixed">
      <colgroup>
        <col class="w-[186px]" />
        <col class="w-[86px]" />
        <col class="w-[70px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Layer</th>
          <th scope="col" class="number">Characters</th>
          <th scope="col" class="number">Mentions</th>
          <th scope="col">In</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="layer in face.layers" :key="layer.layer">
          <td>{{ layerWords[layer.layer] }}</td>
          <td class="number">{{ layer.characters > 0 ? grouped(layer.characters) : '–' }}</td>
          <td class="number">{{ layer.references > 0 ? layer.references : '–' }}</td>
          <td class="truncate text-soft" :title="layer.owners.join(', ')">
            {{ layer.owners.join(', ') || 'font declarations only' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="face.pages.length > 0" class="mt-1 text-soft">
      {{
        face.pages.length === desk.sheets.length
          ? 'On all pages'
          : `On page${face.pages.length === 1 ? '' : 's'} ${pageWords(face.pages, desk.sheets.length)}`
      }}. {{ face.reason }}.
    </p>

    <div v-if="absent.own.length > 0" class="mt-3 border border-rule bg-sheet px-3 py-2">
      <div class="flex flex-wrap items-center gap-2">
        <button type="button" class="plain" @click="absent.walk(-1)">Place before</button>
        <button type="button" class="plain" @click="absent.walk(1)">Next place</button>
        <span class="tabular-nums text-soft" role="status">{{
          at < 0 ? counted(absent.own.length, 'place') : `${at + 1} of ${absent.own.length}`
        }}</span>
        <button
          type="button"
          class="link ml-auto"
          :aria-pressed="desk.arrangement === 'plain'"
          @click="desk.arrangement = desk.arrangement === 'plain' ? 'column' : 'plain'"
        >
          {{ desk.arrangement === 'plain' ? 'Back to the pages' : 'Plain reading' }}
        </button>
      </div>
      <div v-if="absent.current" class="mt-2">
        <p class="truncate">
          <strong>{{
            absent.current.empty ? 'An empty line' : `“${shown(absent.current.text.slice(0, 70))}”`
          }}</strong><span class="text-soft"
            >, {{ layerWords[absent.current.layer].toLowerCase()
            }}{{ absent.current.page >= 0 ? `, page ${absent.current.page + 1}` : '' }}</span
          >
        </p>
        <div class="mt-1 flex flex-wrap gap-3">
          <button type="button" class="link" :disabled="absent.busy !== ''" @click="absent.remove(absent.current)">
            {{ absent.current.empty ? 'Take the empty line away' : 'Delete it' }}
          </button>
          <button type="button" class="link" :disabled="absent.busy !== ''" @click="absent.settle(absent.current)">
            Settle it
          </button>
          <button v-if="cause" type="button" class="link" @click="goToStyle(cause)">
            Repair it in the style {{ cause }}
          </button>
        </div>
      </div>
    </div>

    <template v-if="face.symbols"
      ><p class="notice mt-3">
        A font of signs: its characters are not letters, so no face of letters is suggested. A swap takes it along only
        when it is asked to.
      </p></template
    >
    <template v-else>
      <h2 class="mt-4">In its place</h2>
      <p class="text-soft">
        A swap writes the new face into the file for good. A stand-in only shows it here: the file goes on to say
        {{ face.family }}.
      </p>
      <label class="mt-2 flex items-center gap-2 text-[13px] text-soft"
        >Stand-ins are for
        <Choice v-model="level" class="text-ink">
          <option value="document">this document</option>
          <option value="folder" :disabled="!desk.info?.folder">
            its folder{{ desk.info?.folder ? ` ${desk.info.folder.name}` : ' (it lies in none)' }}
          </option>
          <option value="desk">the whole desk</option>
        </Choice>
      </label>
      <p v-if="absent.isLong && Object.keys(absent.lines).length === 0 && face.suggestions.length > 0" class="mt-2">
        <button type="button" class="link" @click="absent.countLines(face.family)">
          Count the lines that each would add or take</button
        ><span class="text-soft">: it sets all {{ desk.sheets.length }} pages once for each.</span>
      </p>
      <ul class="mt-2">
        <li v-for="suggestion in face.suggestions" :key="suggestion.family" class="border-b border-rule py-2">
          <p class="truncate text-[18px] leading-7" :style="{ fontFamily: library.cssFamily(suggestion.hash) }">
            {{ face.sample || suggestion.family }}
          </p>
          <div class="flex items-baseline gap-3">
            <span class="min-w-0 flex-1"
              ><strong>{{ suggestion.family }}</strong
              ><span class="text-soft"
                >, {{ suggestion.reason }}; {{ linesWords(suggestion.family)
                }}{{ suggestion.lacks > 0 ? `; lacks ${counted(suggestion.lacks, 'sign')}` : '' }}</span
              ></span
            >
            <button
              type="button"
              class="link shrink-0"
              :aria-label="`Swap ${face.family} for ${suggestion.family}`"
              @click="swapFamily(face.family, suggestion.family)"
            >
              Swap
            </button>
            <button
              type="button"
              class="link shrink-0"
              :aria-label="`Let ${suggestion.family} stand in for ${face.family}`"
              :disabled="absent.busy !== ''"
              @click="absent.setStandIn(level, face.family, 'any', suggestion.family)"
            >
              Stand in
            </button>
          </div>
        </li>
        <li v-if="face.suggestions.length === 0" class="py-2 text-soft">
          Nothing is known of it but its name. Choose a face by eye:
          <button type="button" class="link" @click="swapFamily(face.family)">swap it</button>.
        </li>
      </ul>
      <FaceSources :family="face.family" :files="face.files" />
    </template>
  </div>
</template>
