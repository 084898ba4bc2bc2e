<script setup lang="ts">
import { counted, grouped } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'

const desk = useDesk()
const styles = useStyles()
const plan = computed(() => styles.plan!)
const effects = computed(() => plan.value.effects)
const pages = computed(() => effects.value?.pages ?? [])
const button = ref<HTMLButtonElement | null>(null)
onMounted(() => button.value?.focus())
</script>

<template>
  <div>
    <h1>{{ plan.title }}</h1>
    <p class="text-soft">
      {{ plan.characters > 0 ? `${counted(plan.characters, 'character')} in ` : '' }}{{ counted(plan.places, 'place')
      }}<template v-if="effects"
        >;
        {{
          effects.pagesBefore === effects.pagesAfter
            ? `${counted(effects.pagesAfter, 'page')} before and after`
            : `${effects.pagesBefore} pages before, ${effects.pagesAfter} after`
        }}</template
      >. The sheets show it as it would be.
    </p>
    <p v-if="styles.message" role="alert" class="mt-2 border border-rubric bg-sheet p-3 text-rubric">
      {{ styles.message }}
    </p>
    <div class="mt-3 flex gap-2">
      <button
        ref="button"
        type="button"
        class="act"
        :disabled="styles.busy || plan.rows.every(row => !row.included)"
        @click="styles.apply()"
      >
        {{ styles.busy ? 'Working …' : 'Carry it out' }}
      </button>
      <button type="button" class="plain" @click="styles.leave()">Leave it</button>
    </div>
    <h2 class="mt-5">Places</h2>
    <table class="mt-1 table-fixed">
      <colgroup>
        <col class="w-[26px]" />
        <col class="w-[196px]" />
        <col class="w-[52px]" />
        <col />
      </colgroup>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">In the plan</span></th>
          <th scope="col">What</th>
          <th scope="col" class="number">Count</th>
          <th scope="col">Before → after</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in plan.rows.slice(0, 400)" :key="row.id" :class="{ 'text-soft': !row.included }">
          <td>
            <input
              type="checkbox"
              class="mt-1 size-[15px] accent-verdigris"
              :checked="row.included"
              :disabled="row.leftOut !== null || !/^(settle|apply)/.test(row.id)"
              :aria-label="`${row.title}, ${row.before}: in the plan`"
              @change="styles.toggle(row.id)"
            />
          </td>
          <td class="truncate" :title="row.title">{{ row.title }}</td>
          <td class="number">{{ grouped(row.count) }}</td>
          <td class="py-1" :title="`${row.before} → ${row.after}`">
            <span class="line-clamp-2"
              ><span class="text-soft">{{ row.before }}</span> → {{ row.included ? row.after : 'stays' }}</span
            >
          </td>
        </tr>
        <tr v-if="plan.rows.length === 0">
          <td colspan="4" class="text-soft">There is nothing to do: everything is as you ask.</td>
        </tr>
      </tbody>
    </table>
    <template v-if="effects && (effects.paragraphsChanged > 0 || effects.overset.length > 0)">
      <h2 class="mt-5">Pages</h2>
      <table class="mt-1 table-fixed">
        <colgroup>
          <col class="w-[56px]" />
          <col />
          <col class="w-[104px]" />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Page</th>
            <th scope="col">What happens</th>
            <th scope="col" class="number">Lines</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="frame in effects.overset.filter(each => each.lines !== each.linesBefore)" :key="`o${frame.node}`">
            <td>
              <button type="button" class="link" @click="desk.show('pages', frame.page)">{{ frame.page + 1 }}</button>
            </td>
            <td class="truncate text-rubric">{{ frame.name || 'A frame' }} runs over</td>
            <td class="number">{{ frame.linesBefore }} → {{ frame.lines }} over</td>
          </tr>
          <tr v-for="each in effects.paragraphs.slice(0, 100)" :key="`${each.part}${each.node}`">
            <td>
              <button type="button" class="link" @click="desk.show('pages', each.pageAfter)">
                {{ each.pageAfter + 1 }}
              </button>
            </td>
            <td class="truncate">“{{ each.opening.trim() }}”</td>
            <td class="number">{{ each.linesBefore }} → {{ each.linesAfter }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="effects.paragraphsChanged > 100" class="mt-1 text-soft">
        {{ counted(effects.paragraphsChanged, 'paragraph') }} change in all, on {{ counted(pages.length, 'page') }}.
      </p>
    </template>
    <p v-else-if="effects && plan.rows.length > 0" class="mt-4 text-soft">
      Every paragraph of the pages keeps its number of lines.
    </p>
    <template v-if="plan.left.length > 0">
      <h2 class="mt-5">What stays</h2>
      <p v-for="each in plan.left" :key="each.what + each.reason" class="mt-1">
        <strong>{{ each.what }}</strong><span v-if="each.count > 1" class="text-soft"> ({{ grouped(each.count) }})</span
        >: {{ each.reason }}.
      </p>
    </template>
    <p v-if="plan.stale.length > 0" class="mt-4 text-[13px] text-soft">
      Dropped, as it would no longer show the document: {{ plan.stale.join(', ') }}.
    </p>
  </div>
</template>
