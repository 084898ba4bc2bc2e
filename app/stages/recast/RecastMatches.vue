<script setup lang="ts">
import { useDesk } from '../../stores/desk'
import { useRecast } from '../../stores/recast'
import { counted, grouped } from '../../desk/words'

/** What was found, place by place: walked, struck, and what the change does to the pages. */
const desk = useDesk()
const recast = useRecast()
const plan = computed(() => recast.plan!)
const effects = computed(() => plan.value.effects)
const shown = ref(100)
const over = computed(() => (effects.value?.overset ?? []).filter(frame => frame.lines > frame.linesBefore).length)
const heading = ref<HTMLElement | null>(null)
// What was looked for comes into sight when it is found.
// Only the tray scrolls: scrollIntoView would move the desk around it, too.
onMounted(() => {
  const tray = heading.value?.closest('.overflow-y-auto')
  if (tray && heading.value)
    tray.scrollTop += heading.value.getBoundingClientRect().top - tray.getBoundingClientRect().top - 16
})
const isCurrent = (row: (typeof plan.value.rows)[number]) =>
  desk.current !== null && row.places[0]?.node === desk.current.node && row.places[0]?.from === desk.current.start
</script>

<template>
  <section aria-label="What was found">
    <h2 ref="heading" class="mt-5">
      {{
        plan.matches > 0
          ? counted(plan.matches, 'match', 'matches')
          : plan.rows.length > 0
            ? 'Colours'
            : 'Nothing found'
      }}
    </h2>
    <p class="text-soft">
      <template v-if="plan.places > 0 && effects"
        >{{ counted(plan.places, 'place') }} would change;
        {{
          effects.pagesBefore === effects.pagesAfter
            ? `${counted(effects.pagesAfter, 'page')} before and after`
            : `${effects.pagesBefore} pages before, ${effects.pagesAfter} after`
        }};
        {{
          effects.paragraphsChanged === 0
            ? 'no line changes'
            : `${counted(effects.paragraphsChanged, 'paragraph')} with other lines`
        }}{{ over > 0 ? `; ${counted(over, 'frame')} would run over` : '' }}.</template
      >
      <template v-else-if="plan.matches === 0 && plan.rows.length === 0"
        >No text and no colour of this document answers to the wish.</template
      >
      <template v-else>Nothing is asked to change.</template>
    </p>
    <div v-if="plan.rows.length > 0" class="mt-1 flex flex-wrap items-center gap-3">
      <button type="button" class="plain" @click="desk.walk(-1)">Match before</button
      ><button type="button" class="plain" @click="desk.walk(1)">Next match</button>
      <span class="text-soft tabular-nums" role="status">{{
        desk.at < 0 ? '' : `${desk.at + 1} of ${grouped(desk.occurrences.length)}`
      }}</span>
      <label v-if="plan.places > 0" class="ml-auto flex items-center gap-1.5"
        ><input
          type="checkbox"
          class="size-[15px] accent-verdigris"
          :checked="recast.showsAfter"
          @change="recast.showAfter(($event.target as HTMLInputElement).checked)"
        />show the pages as they would be</label
      >
    </div>
    <table v-if="plan.rows.length > 0" class="mt-1 table-fixed">
      <colgroup>
        <col class="w-[26px]" />
        <col class="w-[48px]" />
        <col class="w-[110px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">In the plan</span></th>
          <th scope="col">Page</th>
          <th scope="col">Style</th>
          <th scope="col">Before → after</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in plan.rows.slice(0, shown)"
          :key="row.id"
          :class="{ 'text-soft': !row.included, 'bg-wash': isCurrent(row) }"
        >
          <td>
            <input
              type="checkbox"
              class="mt-1 size-[15px] accent-verdigris"
              :checked="row.included"
              :disabled="row.leftOut !== null"
              :aria-label="`${row.before}: in the plan`"
              @change="recast.toggle(row.id)"
            />
          </td>
          <td>
            <button
              v-if="row.places.length > 0"
              type="button"
              class="link"
              :aria-label="`Walk to ${row.before}`"
              @click="recast.goTo(row)"
            >
              {{ row.page < 0 ? '–' : row.page + 1 }}</button><span v-else>{{ row.count }} ×</span>
          </td>
          <td class="truncate" :title="row.title">{{ row.title }}</td>
          <td class="py-1">
            <span class="line-clamp-2" :title="`${row.before} → ${row.after}`"
              ><span class="text-soft">{{ row.before }}</span> →
              {{ row.leftOut ?? (row.included ? row.after : 'stays') }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="plan.rows.length > shown" type="button" class="link mt-2" @click="shown += 400">
      Show more of {{ grouped(plan.rows.length) }}
    </button>
    <p v-for="each in plan.left" :key="each.what + each.reason" class="mt-1">
      <strong>{{ each.what }}</strong>: {{ each.reason }}
    </p>
  </section>
</template>
