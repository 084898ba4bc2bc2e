<script setup lang="ts">
import { RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'
import type { PageView } from '~~/core/typeset/drawing-pages'
import Choice from '../../kit/Choice.vue'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { usePasting } from '../../stores/pasting'
import CleanUpPanel from './CleanUpPanel.vue'
import AddPanel from './AddPanel.vue'
import FramePanel from './FramePanel.vue'
import KeptFrames from './KeptFrames.vue'
import PagePanel from './PagePanel.vue'

const desk = useDesk()
const pasting = usePasting()
const isDrawn = computed(() => desk.info?.document.kind !== 'text')
const views = computed((): { id: PageView; title: string; count: number }[] =>
  [
    { id: 'pages' as const, title: 'Pages', count: desk.all.pages.length },
    { id: 'notes' as const, title: 'Speaker notes', count: desk.all.notes.length },
    { id: 'masters' as const, title: 'Masters', count: desk.all.masters.length },
  ].filter(view => view.count > 0),
)
const arrangements = [
  { id: 'column', title: 'One below the other' },
  { id: 'spreads', title: 'Spreads' },
  { id: 'contact', title: 'Contact sheet' },
  { id: 'plain', title: 'Plain reading' },
] as const

interface Finding {
  readonly key: string
  readonly view: PageView
  readonly page: number
  readonly words: string
  readonly sign: string
  readonly tone: string
}
const named = (view: PageView, page: number) =>
  `${view === 'notes' ? 'Notes ' : view === 'masters' ? '' : 'Page '}${desk.all[view][page]?.number.replace(', notes', '') ?? page + 1}`
/** What the pages that were drawn so far show that is not as it should be. */
const findings = computed((): Finding[] => {
  const list: Finding[] = []
  for (const [key, count] of Object.entries(desk.offPage)) {
    const [view, page] = key.split('/') as [PageView, string]
    if (count > 0)
      list.push({
        key: `off${key}`,
        view,
        page: Number(page),
        sign: '↔',
        tone: 'text-ochre',
        words: `${count} ${count === 1 ? 'thing lies' : 'things lie'} off the page`,
      })
  }
  for (const [key, pictures] of Object.entries(desk.absentPictures)) {
    const [view, page] = key.split('/') as [PageView, string]
    for (const picture of pictures)
      list.push({
        key: `picture${key}${picture}`,
        view,
        page: Number(page),
        sign: '▧',
        tone: 'text-iris',
        words: `Absent picture: ${picture}`,
      })
  }
  for (const frame of desk.census?.frames ?? [])
    if (frame.lines > 0 && frame.page !== null)
      list.push({
        key: `over${frame.name}${frame.page}`,
        view: 'pages',
        page: frame.page,
        sign: '▬',
        tone: 'text-rubric',
        words: `${frame.name || 'A frame'}: ${counted(frame.lines, 'line')} over`,
      })
  return list.sort((a, b) => a.page - b.page)
})
</script>

<template>
  <div class="px-[22px] pt-4 pb-10">
    <h1>Pages</h1>
    <div class="mt-2 grid grid-cols-2 gap-6">
      <RadioGroup v-if="views.length > 1" v-model="desk.view">
        <RadioGroupLabel as="span" class="text-soft">Look at</RadioGroupLabel>
        <RadioGroupOption
          v-for="view in views"
          :key="view.id"
          v-slot="{ checked, active }"
          :value="view.id"
          as="template"
        >
          <p
            class="flex cursor-pointer items-center gap-2 py-[3px]"
            :class="{ 'outline-2 outline-offset-1 outline-verdigris': active }"
          >
            <span
              class="size-[13px] rounded-full border"
              :class="checked ? 'border-[4px] border-verdigris' : 'border-soft'"
              aria-hidden="true"
            />{{ view.title }} <span class="text-soft tabular-nums">{{ view.count }}</span>
          </p>
        </RadioGroupOption>
      </RadioGroup>
      <RadioGroup v-model="desk.arrangement">
        <RadioGroupLabel as="span" class="text-soft">Laid out</RadioGroupLabel>
        <RadioGroupOption
          v-for="each in arrangements"
          :key="each.id"
          v-slot="{ checked, active }"
          :value="each.id"
          as="template"
        >
          <p
            class="flex cursor-pointer items-center gap-2 py-[3px]"
            :class="{ 'outline-2 outline-offset-1 outline-verdigris': active }"
          >
            <span
              class="size-[13px] rounded-full border"
              :class="checked ? 'border-[4px] border-verdigris' : 'border-soft'"
              aria-hidden="true"
            />{{ each.title }}
          </p>
        </RadioGroupOption>
      </RadioGroup>
      <div>
        <p class="text-soft">Show</p>
        <label class="flex items-center gap-2 py-[3px]"
          ><input v-model="desk.marks" type="checkbox" />Marks <kbd class="text-[12px] text-soft">M</kbd></label
        >
        <label class="flex items-center gap-2 py-[3px]"
          ><input v-model="desk.whiteSpace" type="checkbox" />White space
          <kbd class="text-[12px] text-soft">W</kbd></label
        >
        <label class="flex items-center gap-2 py-[3px]"
          ><input v-model="desk.grid" type="checkbox" />Baseline grid <kbd class="text-[12px] text-soft">G</kbd></label
        >
      </div>
      <div>
        <label class="block text-soft" for="paste-way">Text pasted with structure</label>
        <Choice
          id="paste-way"
          class="mt-1"
          :model-value="pasting.way"
          @update:model-value="pasting.way = $event as typeof pasting.way"
        >
          <option value="ask">ask every time</option>
          <option value="plain">words alone</option>
          <option value="structure">words and structure</option>
        </Choice>
      </div>
    </div>
    <template v-if="findings.length > 0">
      <h2 class="mt-6">Seen on the pages</h2>
      <table class="table-fixed">
        <colgroup>
          <col class="w-[110px]" />
          <col />
        </colgroup>
        <tbody>
          <tr v-for="each in findings.slice(0, 60)" :key="each.key">
            <td>
              <button type="button" class="link" @click="desk.show(each.view, each.page)">
                {{ named(each.view, each.page) }}
              </button>
            </td>
            <td class="truncate" :class="each.tone" :title="each.words">
              <span aria-hidden="true" class="mr-[6px]">{{ each.sign }}</span>{{ each.words }}
            </td>
          </tr>
        </tbody>
      </table>
    </template>
    <FramePanel />
    <AddPanel />
    <KeptFrames />
    <PagePanel v-if="isDrawn" />
    <CleanUpPanel />
  </div>
</template>
