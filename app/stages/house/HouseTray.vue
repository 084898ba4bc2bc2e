<script setup lang="ts">
import type { Paint } from '~~/core/change/repaint/wish'
import type { BeyondLimit } from '~~/core/house/limits'
import type { ToStyle } from '~~/core/house/to-style'
import { useChange } from '../../change/use-change'
import { useLinkedHouse } from '../../house/use-linked-house'
import PlanPanel from '../../change/PlanPanel.vue'
import Choice from '../../kit/Choice.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import Term from '../../kit/Term.vue'
import { counted, grouped, percentage } from '../../desk/words'
import { sentenceOf, useDesk } from '../../stores/desk'
import HousePaints from './HousePaints.vue'
import LimitsList from './LimitsList.vue'

/** How far the document is from its house, where and why; and the way to bring it there. */
const desk = useDesk()
const change = useChange('house')
const { houses, house, linked, row, load: loadHouses, fetchHouse: fetchIssued } = useLinkedHouse()
const measured = shallowRef<ToStyle | null>(null)
const beyond = shallowRef<readonly BeyondLimit[]>([])
const role = ref<string | null>(null)
const keep = ref<string[]>([])
const names = ref<'own' | 'house'>('own')
const strays = ref<'settle' | 'keep'>('settle')
const paints = ref<readonly Paint[]>([])
const said = ref('')
const done = ref('')

async function guarded(work: () => Promise<void>): Promise<void> {
  said.value = ''
  try {
    await work()
  } catch (error) {
    said.value = sentenceOf(error)
  }
}
const load = () =>
  guarded(async () => {
    await loadHouses()
    await measure()
  })
async function fetchHouse(): Promise<void> {
  measured.value = null
  await fetchIssued()
  await measure()
}
async function measure(): Promise<void> {
  if (!house.value || !desk.engine || desk.state !== 'open') return
  measured.value = await desk.engine.ask('toStyle', { house: house.value })
  beyond.value = await desk.engine.ask('limits', { house: house.value })
}
async function link(id: string): Promise<void> {
  await guarded(async () => {
    await $fetch(`/api/documents/${desk.info!.document.id}/house`, { method: 'PUT', body: { house: id || null } })
    desk.linkedTo(id || null)
    await fetchHouse()
  })
}
onMounted(load)
watch(
  () => [desk.state, desk.generation, desk.census] as const,
  () => {
    if (!desk.after) void guarded(measure)
  },
)

const places = computed(() =>
  (measured.value?.places ?? []).filter(each => role.value === null || (each.role ?? '') === role.value),
)
/** Why text is not to style, what comes most often first. */
const reasons = computed(() => {
  const counts = new Map<string, number>()
  for (const { why, characters } of places.value)
    counts.set(why.join('; '), (counts.get(why.join('; ')) ?? 0) + characters)
  return [...counts].sort((a, b) => b[1] - a[1]).slice(0, 30)
})
function walk(reason: string | null): void {
  desk.walkThrough(
    places.value
      .filter(each => reason === null || each.why.join('; ') === reason)
      .map(({ part, node, from, to }) => ({
        part,
        node,
        start: from,
        end: to,
        page: -1,
        face: '',
        voice: '',
        place: 'body' as const,
      })),
  )
}
function pick(id: string | null): void {
  const next = id ?? ''
  role.value = role.value === next ? null : next
  walk(null)
}
async function propose(): Promise<void> {
  if (!house.value || !row.value) return
  done.value = ''
  const wish = {
    type: 'dress',
    house: house.value,
    of: { house: row.value.id, version: row.value.issued },
    drawUp: true,
    names: names.value,
    strays: strays.value,
    keep: keep.value,
  }
  const painted = paints.value.length > 0 ? [{ type: 'repaint', paints: paints.value }] : []
  if (await change.make([wish, ...painted])) change.show()
}
async function apply(): Promise<void> {
  const changed = await change.apply()
  if (!changed) return
  change.reset()
  done.value = `Done: ${changed.version.title}`
  await guarded(measure)
}
</script>

<template>
  <div class="px-[22px] pt-4 pb-8">
    <PlanPanel
      v-if="change.plan"
      id="house"
      @apply="apply"
      @leave="change.reset()"
      @toggle="async key => (await change.toggle(key)) && change.show()"
    />
    <template v-else>
      <h1 v-if="measured">
        {{ percentage(measured.characters === 0 ? 1 : measured.toStyle / measured.characters) }}
        <Term word="toStyle">to style</Term>
      </h1>
      <h1 v-else><Term word="house">House</Term></h1>
      <NoticeLine v-if="done" kind="done">{{ done }}.</NoticeLine>
      <NoticeLine v-if="said || change.message" kind="failed">{{ said || change.message }}</NoticeLine>
      <label class="mt-2 flex flex-wrap items-center gap-2"
        ><span class="text-soft">House of this document</span>
        <Choice
          :model-value="linked ?? ''"
          aria-label="House of this document"
          @update:model-value="link(String($event))"
        >
          <option value="">none</option>
          <option v-for="each in houses" :key="each.id" :value="each.id">
            {{ each.name }}, {{ each.issued === 0 ? 'not issued yet' : `version ${each.issued}` }}
          </option>
        </Choice>
        <NuxtLink class="link" :to="linked ? `/houses?house=${linked}` : '/houses'">{{
          linked ? 'Look at it' : 'Make a house'
        }}</NuxtLink></label
      >
      <p v-if="houses.length > 0 && linked === null" class="mt-3 text-soft">
        Link the document to a house to see how far it is from it, and to bring it there.
      </p>
      <p v-if="row && row.issued === 0" class="mt-3 text-soft">This house was not issued yet: nothing follows it.</p>
      <template v-if="measured && house">
        <table class="mt-4" aria-label="To style, by role">
          <thead>
            <tr>
              <th scope="col"><Term word="role">Role</Term></th>
              <th scope="col" class="number">Characters</th>
              <th scope="col" class="number">To style</th>
              <th scope="col">Dress it</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="each in measured.roles"
              :key="each.role ?? ''"
              :class="{ 'bg-wash': role === (each.role ?? '') }"
            >
              <td>
                <button type="button" class="link" :aria-pressed="role === (each.role ?? '')" @click="pick(each.role)">
                  {{ each.title }}
                </button>
              </td>
              <td class="number">{{ grouped(each.characters) }}</td>
              <td class="number" :class="each.toStyle < each.characters ? 'text-ochre' : 'text-soft'">
                {{ percentage(each.toStyle / each.characters) }}
              </td>
              <td>
                <input
                  v-if="each.role !== null"
                  type="checkbox"
                  :checked="!keep.includes(each.role)"
                  :aria-label="`Dress ${each.title}`"
                  @change="
                    keep = ($event.target as HTMLInputElement).checked
                      ? keep.filter(other => other !== each.role)
                      : [...keep, each.role!]
                  "
                />
              </td>
            </tr>
          </tbody>
        </table>
        <HousePaints v-model="paints" :house="house" />
        <div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
          <Choice v-model="names" aria-label="Names of the styles">
            <option value="own">styles keep their names</option>
            <option value="house">styles take the names of the house</option>
          </Choice>
          <Choice v-model="strays" aria-label="What was set by hand">
            <option value="settle">what was set by hand goes, but for emphasis</option>
            <option value="keep">what was set by hand stays</option>
          </Choice>
          <button type="button" class="act" :disabled="change.busy !== ''" @click="propose">
            {{ change.busy === 'planning' ? 'Planning …' : `Dress it in ${house.name}` }}
          </button>
        </div>
        <template v-if="reasons.length > 0">
          <h2 class="mt-5">
            Not to style: {{ counted(places.length, 'place')
            }}{{ measured.morePlaces > 0 ? `, and ${grouped(measured.morePlaces)} more` : '' }}
          </h2>
          <table aria-label="Why text is not to style">
            <tbody>
              <tr v-for="[reason, characters] in reasons" :key="reason">
                <td>
                  <button type="button" class="link text-left" @click="walk(reason)">{{ reason }}</button>
                </td>
                <td class="number">{{ grouped(characters) }}</td>
              </tr>
            </tbody>
          </table>
        </template>
        <LimitsList :beyond="beyond" />
      </template>
    </template>
  </div>
</template>
