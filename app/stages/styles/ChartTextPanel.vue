<script setup lang="ts">
import type { ListedChartText } from '~~/core/change/chart-text/chart-list'
import { chartTextWords } from '~~/core/change/chart-text/kind'
import type { ChartTextSetting, ChartTextWish } from '~~/core/change/chart-text/wish'
import { chartTexts, type ChartTextOf } from '~~/core/document/chart-texts'
import { roles } from '~~/core/document/rules'
import { roleTitle } from '~~/core/style/roles'
import Choice from '../../kit/Choice.vue'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useType } from '../../stores/type'
import { useSettingTable } from './setting-table'

/** Text of charts at once: family, weight, size and colour of titles, axes, legends and values, for one chart or all. */
const desk = useDesk()
const styles = useStyles()
const type = useType()
const all = shallowRef<readonly ListedChartText[]>([])
const chart = ref('')
const ready = ref(false)
watch(chart, goTo)
onMounted(async () => {
  void type.load().catch(() => null)
  all.value = await desk.engine!.ask('chartText', {}).catch(() => [])
  ready.value = true
  goTo()
})
/** The sheets go to what is set. */
function goTo(): void {
  const at = all.value.find(each => each.page >= 0 && (chart.value === '' || each.chart === chart.value))
  if (at) desk.show('pages', at.page)
}

const charts = computed(() => [...new Map(all.value.map(each => [each.chart, each.title])).entries()])
/** One row for each sort of text: of several charts what the first has. */
const rows = computed(() =>
  chartTexts.flatMap(of =>
    all.value.filter(each => each.of === of && (chart.value === '' || each.chart === chart.value)).slice(0, 1),
  ),
)
type Change = ChartTextSetting['setting'] & Pick<ChartTextSetting, 'color' | 'role'>
const { wish, changed, set, number, show } = useSettingTable<Change>((changes): ChartTextWish | null => {
  const texts = Object.entries(changes).flatMap(([of, { color, role, ...setting }]) => {
    // What text does, it does in all charts: it is asked where all are.
    const said = role === undefined || chart.value ? {} : { role }
    const own = { setting, ...(color === undefined ? {} : { color }), ...said }
    const isAsked = Object.keys(setting).length > 0 || Object.keys(own).length > 1
    return isAsked ? [{ of: of as ChartTextOf, ...own }] : []
  })
  return texts.length === 0 ? null : { type: 'chart-text', chart: chart.value || null, texts }
})
/** What text does, '' for what is proposed; and what may be chosen, a role of the document's own among it. */
const roleOf = (row: ListedChartText): string => {
  const { role = row.role } = changed(row.of)
  return role === null || role === row.proposed ? '' : role
}
const rolesOf = ({ role }: ListedChartText) => [...new Set<string>([...roles, ...(role === null ? [] : [role])])]
const weights = [300, 400, 500, 600, 700, 800]
const weightsOf = (row: ListedChartText) => [...new Set([...weights, row.weight])].sort((a, b) => a - b)
const round = (value: number) => String(Math.round(value * 100) / 100)
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1">Text of charts</h1>
    <p class="text-soft">
      Charts know no named styles: what is set here is set in each chart itself, numbers that it works out included. The
      sheets follow as you change it. By its role a house says how text is set.
    </p>
    <p v-if="ready && all.length === 0" class="mt-3">This document has no charts.</p>
    <template v-else-if="ready">
      <label class="mt-3 flex items-center gap-2"
        ><span class="text-soft">Of</span>
        <Choice v-model="chart" aria-label="Which chart">
          <option value="">{{ charts.length === 1 ? 'the one chart there is' : `all ${charts.length} charts` }}</option>
          <option v-for="([part, title], at) in charts" :key="part" :value="part">
            {{ title || `chart ${at + 1}, without a title` }}
          </option>
        </Choice></label
      >
      <table class="mt-3" aria-label="Text of charts">
        <thead>
          <tr>
            <th scope="col">Text</th>
            <th scope="col">Family</th>
            <th scope="col">Weight</th>
            <th scope="col">Size</th>
            <th scope="col">Colour</th>
            <th v-if="!chart" scope="col">Role</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.of" :class="{ 'bg-wash': Object.keys(changed(row.of)).length > 0 }">
            <th scope="row" class="!border-rule !font-normal whitespace-nowrap">{{ chartTextWords[row.of] }}</th>
            <td>
              <input
                v-typed="changed(row.of).family ?? row.family"
                class="field w-full min-w-[104px]"
                list="families-for-charts"
                :aria-label="`Family of ${chartTextWords[row.of]}`"
                @change="set(row.of, { family: ($event.target as HTMLInputElement).value.trim() || row.family })"
              />
            </td>
            <td>
              <Choice
                :model-value="String(changed(row.of).weight ?? row.weight)"
                :aria-label="`Weight of ${chartTextWords[row.of]}`"
                @update:model-value="set(row.of, { weight: Number($event) })"
              >
                <option v-for="weight in weightsOf(row)" :key="weight" :value="String(weight)">{{ weight }}</option>
              </Choice>
            </td>
            <td>
              <input
                v-typed="round(changed(row.of).size ?? row.size)"
                class="field w-[56px]"
                inputmode="decimal"
                :aria-label="`Size of ${chartTextWords[row.of]}, in points`"
                @change="number(row.of, $event, size => ({ size }))"
              />
            </td>
            <td>
              <input
                type="color"
                class="h-[26px] w-[40px]"
                :value="(changed(row.of).color ?? row.color) || '#000000'"
                :aria-label="`Colour of ${chartTextWords[row.of]}`"
                @change="set(row.of, { color: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td v-if="!chart">
              <Choice
                :model-value="roleOf(row)"
                :aria-label="`Role of ${chartTextWords[row.of]}`"
                @update:model-value="set(row.of, { role: $event || null })"
              >
                <option v-for="role in rolesOf(row)" :key="role" :value="role === row.proposed ? '' : role">
                  {{ roleTitle(role) }}
                </option>
              </Choice>
            </td>
          </tr>
        </tbody>
      </table>
      <datalist id="families-for-charts">
        <option v-for="each in type.choices" :key="each.family" :value="each.family" />
      </datalist>
      <div class="mt-4">
        <button type="button" class="act" :disabled="!wish || styles.busy" @click="show">
          {{ styles.busy ? 'Planning …' : `Show the plan for ${counted(chart ? 1 : charts.length, 'chart')}` }}
        </button>
      </div>
    </template>
  </div>
</template>
