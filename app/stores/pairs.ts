import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { candidates, nearestTo, placeOf, usualPlace, type PairRole } from '~~/core/pairing/candidates'
import type { KeptPair } from '~~/core/pairing/kept-pair'
import { reasonsFor } from '~~/core/pairing/reasons'
import { equalSize, scaleRatios, typeScale, type ScaleStep } from '~~/core/pairing/type-scale'
import { coveredScripts, type CoveredScript } from '~~/core/font/measure/covered-scripts'
import { useType } from './type'

/** Steps in which keys walk the plane. */
export const planeStep = 0.04

/** A face is given for one role; faces for the other are looked for in the plane around it. */
export const usePairs = defineStore('pairs', () => {
  const type = useType()
  const given = useLocalStorage('pair given', 'Spectral')
  /** What the face that is looked for is for. */
  const role = useLocalStorage<PairRole>('pair role', 'heading')
  const script = useLocalStorage<CoveredScript>('pair script', 'Latin')
  const at = ref<{ proportions: number; detail: number }>({ ...usualPlace })
  /** Chosen by name, where it is not what lies nearest to the place. */
  const picked = ref<string | null>(null)
  const body = useLocalStorage('pair body size', 10)
  const ratio = useLocalStorage('pair ratio', 1.25)
  /** A third face, for labels and figures; null where they are set in the body's. */
  const label = ref<string | null>(null)
  /** Both faces look as large at one size. */
  const equal = useLocalStorage('pair equal', true)
  const entry = computed(() => type.entries.find(each => each.family === given.value) ?? type.entries[0] ?? null)
  const scripts = computed(() => coveredScripts.filter(each => type.entries.some(one => one.scripts.includes(each))))
  const all = computed(() =>
    entry.value
      ? candidates(type.entries, entry.value, { role: role.value, scripts: [script.value], uses: ['print', 'PDF'] })
      : [],
  )
  const ranked = computed(() => nearestTo(all.value, at.value))
  /** What was picked by name counts though it would not be proposed: it is what somebody kept. */
  const pickedOne = computed(() => {
    const found = picked.value === null ? undefined : type.all.find(each => each.family === picked.value)
    return found && entry.value ? placeOf(entry.value, found) : null
  })
  const chosen = computed(
    () => all.value.find(each => each.entry.family === picked.value) ?? pickedOne.value ?? ranked.value[0] ?? null,
  )
  /** Both faces by what they are for. */
  const pair = computed(() =>
    entry.value && chosen.value
      ? role.value === 'heading'
        ? { heading: chosen.value.entry, body: entry.value }
        : { heading: entry.value, body: chosen.value.entry }
      : null,
  )
  const scale = computed(() => typeScale(body.value, ratio.value))
  const sizeOf = (step: ScaleStep['role']): number => scale.value.find(each => each.role === step)!.size
  /** The size of a heading step: as it is on the scale, or as large as the body's face would look there. */
  function headingSize(step: ScaleStep['role']): number {
    const own = sizeOf(step)
    return equal.value && pair.value
      ? equalSize(own, pair.value.body.plain.measures.xHeight, pair.value.heading.plain.measures.xHeight)
      : own
  }
  const reasons = computed(() =>
    pair.value
      ? reasonsFor(pair.value.heading, pair.value.body, { heading: headingSize('heading'), body: sizeOf('body') })
      : [],
  )
  const within = (value: number) => Math.round(Math.max(0, Math.min(1, value)) * 1000) / 1000
  function go(proportions: number, detail: number): void {
    at.value = { proportions: within(proportions), detail: within(detail) }
    picked.value = null
  }
  function pick(family: string): void {
    const found = all.value.find(each => each.entry.family === family)
    if (!found) return
    at.value = { proportions: found.proportions, detail: found.detail }
    picked.value = family
  }
  /** The pair as it would be kept. */
  const data = computed((): KeptPair | null =>
    pair.value
      ? {
          heading: pair.value.heading.family,
          body: pair.value.body.family,
          ...(label.value === null ? {} : { label: label.value }),
          size: body.value,
          ratio: ratio.value,
        }
      : null,
  )
  /** A kept pair is looked at again: its body is what is given, its heading what is chosen. */
  function take(own: KeptPair): void {
    role.value = 'heading'
    given.value = own.body
    picked.value = own.heading
    label.value = own.label ?? null
    body.value = own.size
    ratio.value = own.ratio
  }
  function give(family: string): void {
    given.value = family
    picked.value = null
  }
  return {
    given,
    role,
    script,
    scripts,
    at,
    entry,
    all,
    ranked,
    chosen,
    pair,
    body,
    ratio,
    ratios: scaleRatios,
    equal,
    label,
    data,
    take,
    reasons,
    sizeOf,
    headingSize,
    go,
    pick,
    give,
  }
})
