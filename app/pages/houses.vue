<script setup lang="ts">
import { media, rolesWithout, type HouseColor, type HouseRole } from '~~/core/house/house'
import type { ListedChecks } from '~~/core/house/checks'
import DeskFrame from '../desk/DeskFrame.vue'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import { counted } from '../desk/words'
import Chips from '../kit/Chips.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import Term from '../kit/Term.vue'
import HouseChecks from '../house/HouseChecks.vue'
import HouseCompare from '../house/HouseCompare.vue'
import HouseDocuments from '../house/HouseDocuments.vue'
import HouseFrames from '../house/HouseFrames.vue'
import HouseStandIns from '../house/HouseStandIns.vue'
import HouseStarts from '../house/HouseStarts.vue'
import HouseVersions from '../house/HouseVersions.vue'
import NewHouse from '../house/NewHouse.vue'
import PaletteEditor from '../house/PaletteEditor.vue'
import RoleEditor from '../house/RoleEditor.vue'
import TypeSheet from '../house/TypeSheet.vue'
import { useHouses } from '../stores/houses'

const houses = useHouses()
const route = useRoute()
const router = useRouter()
const view = ref<
  'documents' | 'role' | 'palette' | 'defaults' | 'standIns' | 'frames' | 'checks' | 'versions' | 'compare'
>('documents')
const making = ref(false)
const mediumTitles = { text: 'Texts', deck: 'Decks', sheet: 'Sheets' } as const

async function show(id: string): Promise<void> {
  making.value = false
  await router.replace({ query: { house: id } })
  await houses.open(id)
}
onMounted(async () => {
  await houses.load()
  const asked = typeof route.query.house === 'string' ? route.query.house : (houses.list[0]?.id ?? null)
  if (asked) await houses.open(asked)
  else making.value = true
})
onBeforeUnmount(() => houses.leave())
function setRole(role: HouseRole): void {
  houses.draft!.roles = houses.draft!.roles.map(each => (each.id === role.id ? role : each))
}
function setPalette(palette: HouseColor[]): void {
  houses.draft!.palette = palette
}
function setChecks(checks: ListedChecks | null): void {
  const { checks: _, ...rest } = houses.draft!
  houses.draft = checks === null ? rest : { ...rest, checks }
}
/** Which roles have a colour. */
const usedBy = (id: string): string[] =>
  houses
    .draft!.roles.filter(role => [role.text, role.deck, role.sheet, ...role.levels].some(each => each.color === id))
    .map(role => role.title)
/** Adds a role, and goes to it. */
function addRole(role: HouseRole): void {
  houses.draft!.roles = [...houses.draft!.roles, role]
  houses.roleId = role.id
  view.value = 'role'
}
/** A role of the house's own. */
function ownRole(): HouseRole {
  const taken = new Set(houses.draft!.roles.map(each => each.id))
  let number = 1
  while (taken.has(`own-${number}`)) number++
  return { id: `own-${number}`, title: `Own role ${number}`, text: {}, deck: {}, sheet: {}, levels: [] }
}
const missing = computed(() => (houses.draft ? rolesWithout(houses.draft) : []))
useHead({ title: 'Houses, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Houses" />
    <DeskFrame left-name="type sheet" right-name="house">
      <template #left>
        <div class="min-h-0 flex-1 overflow-y-auto bg-desk px-6 pt-4 pb-8">
          <div class="flex flex-wrap items-baseline gap-3">
            <h1 class="flex-1"><Term word="house">Houses</Term></h1>
            <button type="button" class="link" :aria-expanded="making" @click="making = !making">
              {{ making ? 'No new house' : 'New house' }}
            </button>
          </div>
          <NewHouse v-if="making" class="mt-2" @made="show" />
          <p v-if="houses.list.length === 0" class="mt-2 text-soft">
            No house yet. A house says how text ought to look, by what it does; documents are brought to it by plan.
          </p>
          <ul class="mt-2 flex flex-wrap gap-2" aria-label="Houses of this desk">
            <li v-for="each in houses.list" :key="each.id">
              <button
                type="button"
                class="border px-3 py-1.5 text-left"
                :class="houses.info?.id === each.id ? 'border-ink bg-sheet' : 'border-rule bg-paper'"
                :aria-pressed="houses.info?.id === each.id"
                @click="show(each.id)"
              >
                <span class="font-medium">{{ each.name }}</span>
                <span class="block text-[12px] text-soft"
                  >{{ each.issued === 0 ? 'not issued yet' : `version ${each.issued}` }},
                  {{ counted(each.documents, 'document') }}{{ each.trialUntil ? ', a trial' : '' }}</span
                >
              </button>
            </li>
          </ul>
          <template v-if="houses.draft">
            <div class="mt-4 mb-2 flex flex-wrap items-center gap-3">
              <Chips
                v-model="houses.medium"
                label="What the type sheet is of"
                :options="media.map(id => ({ id, title: mediumTitles[id] }))"
              />
              <button type="button" class="link" @click="addRole(ownRole())">Add a role</button>
              <button v-for="role in missing" :key="role.id" type="button" class="link" @click="addRole(role)">
                Add {{ role.title }}
              </button>
            </div>
            <TypeSheet
              v-model:role="houses.roleId"
              :house="houses.draft"
              :medium="houses.medium"
              @choose="view = 'role'"
            />
          </template>
        </div>
      </template>
      <template #between><ShelfIndex open="houses" /></template>
      <template #right>
        <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-8">
          <NoticeLine v-if="houses.message" kind="failed">{{ houses.message }}</NoticeLine>
          <NoticeLine v-if="houses.done" kind="done">{{ houses.done }}</NoticeLine>
          <template v-if="houses.info && houses.draft">
            <h1 :class="{ 'mt-3': houses.done || houses.message }">{{ houses.draft.name }}</h1>
            <p class="text-soft">
              {{ houses.info.issued === 0 ? 'Not issued yet' : `Version ${houses.info.issued} is issued`
              }}{{ houses.info.pending.length > 0 || houses.changed ? '; what is worked on differs from it.' : '.' }}
            </p>
            <div v-if="houses.changed" class="mt-2 flex flex-wrap items-center gap-2 border border-verdigris p-2">
              <span class="flex-1">You changed this house.</span>
              <button type="button" class="act" :disabled="houses.busy" @click="houses.save()">Keep the changes</button>
              <button type="button" class="plain" @click="houses.undoDraft()">Leave them</button>
            </div>
            <Chips
              v-model="view"
              class="mt-3 mb-3"
              label="What of the house is shown"
              :options="[
                { id: 'documents', title: 'Documents', count: houses.documents.length },
                { id: 'role', title: `Role: ${houses.role?.title ?? 'none'}` },
                { id: 'palette', title: 'Palette', count: houses.draft.palette.length },
                { id: 'defaults', title: 'Defaults', count: Object.keys(houses.draft.defaults).length },
                { id: 'standIns', title: 'Stand-ins', count: houses.draft.standIns.length },
                { id: 'frames', title: 'Frames', count: houses.draft.frames.length },
                { id: 'checks', title: 'Checks' },
                { id: 'versions', title: 'Versions', count: houses.info.versions.length },
                { id: 'compare', title: 'Compare' },
              ]"
            />
            <HouseDocuments v-if="view === 'documents'" />
            <template v-else-if="view === 'role'">
              <RoleEditor
                v-if="houses.role"
                :house="houses.draft"
                :role="houses.role"
                :medium="houses.medium"
                @change="setRole"
                @room="houses.draft!.room = $event"
              />
            </template>
            <PaletteEditor
              v-else-if="view === 'palette'"
              :palette="houses.draft.palette"
              :used-by="usedBy"
              @change="setPalette"
            />
            <HouseStarts
              v-else-if="view === 'defaults'"
              :house="houses.draft"
              @change="houses.draft!.defaults = $event"
            />
            <HouseStandIns
              v-else-if="view === 'standIns'"
              :stand-ins="houses.draft.standIns"
              @change="houses.draft!.standIns = $event"
            />
            <HouseFrames
              v-else-if="view === 'frames'"
              :frames="houses.draft.frames"
              @change="houses.draft!.frames = $event"
            />
            <HouseChecks v-else-if="view === 'checks'" :list="houses.draft.checks ?? null" @change="setChecks" />
            <HouseCompare v-else-if="view === 'compare'" />
            <HouseVersions v-else />
          </template>
          <p v-else class="text-soft">Choose a house, or make one.</p>
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
