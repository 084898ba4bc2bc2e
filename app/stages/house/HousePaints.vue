<script setup lang="ts">
import { paintedWords } from '~~/core/change/repaint/kind'
import type { Paint } from '~~/core/change/repaint/wish'
import type { House } from '~~/core/house/house'
import { houseBefore, mostPaints, paintsOf, type ProposedPaint } from '~~/core/house/house-paints'
import Choice from '../../kit/Choice.vue'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'

/** What the colours of shapes, lines, grounds and charts become in the house: proposed, and changed by hand. */
const props = defineProps<{ house: House }>()
/** What is painted when the document is dressed. */
const paints = defineModel<readonly Paint[]>({ required: true })
const desk = useDesk()
const proposed = shallowRef<readonly ProposedPaint[]>([])
/** What was said by hand, by colour; '' where it stays. */
const byHand = ref<Record<string, string>>({})

async function propose(): Promise<void> {
  if (!desk.engine || desk.state !== 'open') return
  const dressed = await desk.engine.ask('dressedIn', {})
  // Documents that were dressed before they kept its palette ask for it; where the house was let go, nearness alone tells.
  const before =
    dressed && !dressed.palette && dressed.version > 0
      ? await $fetch<House>(`/api/houses/${dressed.id}/versions/${dressed.version}`).catch(() => null)
      : houseBefore({ house: dressed })
  proposed.value = await desk.engine.ask('paints', { house: props.house, before })
}
watch(
  () => [props.house, desk.state, desk.generation] as const,
  () => void propose().catch(() => null),
  { immediate: true },
)
// What was said by hand was said of the colours of another house.
watch(
  () => props.house,
  () => {
    byHand.value = {}
  },
)
const to = (each: ProposedPaint) => byHand.value[each.color] ?? each.to ?? ''
watch([proposed, byHand], () => {
  paints.value = paintsOf(proposed.value, to)
})
const words = ({ on }: ProposedPaint) =>
  on.map(each => `${paintedWords[each.on].toLowerCase()} (${each.places})`).join(', ')
/** Those that change or could, before those that stay because they are of the house. */
const shown = computed(() =>
  [...proposed.value].sort((one, other) => Number(isOwn(one)) - Number(isOwn(other))).slice(0, mostPaints),
)
/** What is proposed is no colour of the palette, but a tint or shade of one. */
const isTint = (each: ProposedPaint) => each.to !== null && !props.house.palette.some(color => color.color === each.to)
const isOwn = (each: ProposedPaint) => props.house.palette.some(color => color.color === each.color)
</script>

<template>
  <details v-if="proposed.length > 0" class="mt-4">
    <summary class="cursor-pointer font-medium">
      Colours of shapes, lines, grounds and charts: {{ counted(paints.length, 'changes', 'change') }}
    </summary>
    <table class="mt-1 table-fixed" aria-label="Colours of the document in the house">
      <colgroup>
        <col class="w-[110px]" />
        <col />
        <col class="w-[190px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Colour</th>
          <th scope="col">On</th>
          <th scope="col">Becomes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in shown" :key="each.color">
          <td>
            <span class="flex items-center gap-1.5"
              ><span
                class="size-[14px] shrink-0 border border-rule"
                :style="{ background: each.color }"
                aria-hidden="true"
              />{{ each.color }}</span
            >
          </td>
          <td>
            {{ words(each) }} <span class="block text-[13px] text-soft">{{ each.why }}</span>
          </td>
          <td>
            <span class="flex items-center gap-1.5"
              ><span
                class="size-[14px] shrink-0 border border-rule"
                :style="{ background: to(each) || each.color }"
                aria-hidden="true"
              /><Choice
                :model-value="to(each)"
                class="min-w-0 flex-1"
                :aria-label="`What ${each.color} becomes`"
                @update:model-value="byHand = { ...byHand, [each.color]: String($event) }"
              >
                <option value="">stays</option>
                <option v-if="isTint(each)" :value="each.to!">{{ each.to }}</option>
                <option v-for="color in house.palette" :key="color.id" :value="color.color">{{ color.title }}</option>
              </Choice></span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="proposed.length > shown.length" class="mt-1 text-soft">
      And {{ counted(proposed.length - shown.length, 'colour') }} more, in few places each.
    </p>
  </details>
</template>
