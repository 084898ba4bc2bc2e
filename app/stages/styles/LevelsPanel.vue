<script setup lang="ts">
import type { ListedLevel } from '~~/core/change/levels/level-list'
import type { LevelSetting, LevelsWish } from '~~/core/change/levels/wish'
import Choice from '../../kit/Choice.vue'
import { counted } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useType } from '../../stores/type'
import { useSettingTable } from './setting-table'

/** All placeholders of a deck at once: family, size, leading and spacing of every level, for one master or all. */
const desk = useDesk()
const styles = useStyles()
const type = useType()
const all = shallowRef<readonly ListedLevel[]>([])
const master = ref('')
const more = ref(false)
onMounted(async () => {
  void type.load().catch(() => null)
  all.value = await desk.engine!.ask('levels', {}).catch(() => [])
})

const masters = computed(() => [...new Set(all.value.map(each => each.master))])
const keyOf = (level: Pick<ListedLevel, 'placeholder' | 'level'>) => `${level.placeholder} ${level.level}`
/** One row for each placeholder and level: of several masters what the first has. */
const rows = computed(() => {
  const own = all.value.filter(each => master.value === '' || each.master === master.value)
  const found = new Map(own.toReversed().map(each => [keyOf(each), each]))
  return [...own.map(keyOf)].filter((key, at, list) => list.indexOf(key) === at).map(key => found.get(key)!)
})
const shown = computed(() => rows.value.filter(each => more.value || each.level <= 5))
const titleOf = ({ placeholder, level }: ListedLevel) =>
  ({ title: 'Title', subtitle: 'Subtitle', outline: `Level ${level}`, notes: 'Notes' })[placeholder]

const { wish, changed, set, number, show } = useSettingTable<LevelSetting['setting']>((changes): LevelsWish | null => {
  const levels = Object.entries(changes).flatMap(([key, setting]): LevelSetting[] => {
    const row = rows.value.find(each => keyOf(each) === key)
    return row && Object.keys(setting).length > 0 ? [{ placeholder: row.placeholder, level: row.level, setting }] : []
  })
  return levels.length === 0 ? null : { type: 'levels', master: master.value || null, levels }
})
const count = computed(() => (wish.value?.type === 'levels' ? (wish.value as LevelsWish).levels.length : 0))
const round = (value: number) => String(Math.round(value * 100) / 100)
const leadingOf = (row: ListedLevel) => {
  const leading = changed(keyOf(row)).leading ?? row.leading
  return leading === null || leading === undefined
    ? ''
    : leading.unit !== 'points'
      ? `${round(leading.value)} %`
      : round(leading.value)
}
/** “120 %” is of the face’s own leading, a number alone is points. */
function setLeading(row: ListedLevel, event: Event): void {
  const { value } = event.target as HTMLInputElement
  const amount = Number.parseFloat(value.replace(',', '.'))
  if (Number.isFinite(amount) && amount >= 1)
    set(keyOf(row), { leading: { value: amount, unit: value.includes('%') ? 'own' : 'points' } })
}
</script>

<template>
  <div>
    <button type="button" class="link" @click="styles.leave()">All styles</button>
    <h1 class="mt-1">Levels of the deck</h1>
    <p class="text-soft">
      Titles and outlines take these values on every slide; loose frames have styles of their own and stay. The sheets
      follow as you change them.
    </p>
    <p v-if="all.length === 0" class="mt-3">This document has no placeholders: it is no deck.</p>
    <template v-else>
      <label class="mt-3 flex items-center gap-2"
        ><span class="text-soft">Of</span>
        <Choice v-model="master" aria-label="Which master">
          <option value="">
            {{ masters.length === 1 ? 'the one master there is' : `all ${masters.length} masters` }}
          </option>
          <option v-for="each in masters" :key="each" :value="each">{{ each }}</option>
        </Choice></label
      >
      <table class="mt-3" aria-label="Placeholders by level">
        <thead>
          <tr>
            <th scope="col">Placeholder</th>
            <th scope="col">Family</th>
            <th scope="col">Size</th>
            <th scope="col">Leading</th>
            <th scope="col">Before</th>
            <th scope="col">After</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in shown"
            :key="keyOf(row)"
            :class="{ 'bg-wash': Object.keys(changed(keyOf(row))).length > 0 }"
          >
            <th scope="row" class="!border-rule !font-normal whitespace-nowrap">{{ titleOf(row) }}</th>
            <td>
              <input
                v-typed="changed(keyOf(row)).family ?? row.family"
                class="field w-full min-w-[104px]"
                list="families-of-the-library"
                :aria-label="`Family of ${titleOf(row)}`"
                @change="set(keyOf(row), { family: ($event.target as HTMLInputElement).value.trim() || row.family })"
              />
            </td>
            <td>
              <input
                v-typed="round(changed(keyOf(row)).size ?? row.size)"
                class="field w-[56px]"
                inputmode="decimal"
                :aria-label="`Size of ${titleOf(row)}, in points`"
                @change="number(keyOf(row), $event, size => ({ size }))"
              />
            </td>
            <td>
              <input
                v-typed="leadingOf(row)"
                class="field w-[64px]"
                placeholder="face"
                :aria-label="`Leading of ${titleOf(row)}, in points, or in percent of the face’s own`"
                @change="setLeading(row, $event)"
              />
            </td>
            <td>
              <input
                v-typed="round(changed(keyOf(row)).before ?? row.before)"
                class="field w-[52px]"
                inputmode="decimal"
                :aria-label="`Space before ${titleOf(row)}, in points`"
                @change="number(keyOf(row), $event, before => ({ before }))"
              />
            </td>
            <td>
              <input
                v-typed="round(changed(keyOf(row)).after ?? row.after)"
                class="field w-[52px]"
                inputmode="decimal"
                :aria-label="`Space after ${titleOf(row)}, in points`"
                @change="number(keyOf(row), $event, after => ({ after }))"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <datalist id="families-of-the-library">
        <option v-for="each in type.choices" :key="each.family" :value="each.family" />
      </datalist>
      <button v-if="rows.length > shown.length || more" type="button" class="link mt-2" @click="more = !more">
        {{ more ? 'Five levels are enough' : 'Deeper levels too' }}
      </button>
      <div class="mt-4">
        <button type="button" class="act" :disabled="!wish || styles.busy" @click="show">
          {{ styles.busy ? 'Planning …' : `Show the plan of ${counted(count, 'placeholder')}` }}
        </button>
      </div>
    </template>
  </div>
</template>
