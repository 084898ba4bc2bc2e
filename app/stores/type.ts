import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { catalogueOf, type CatalogueEntry } from '~~/core/font/catalogue'
import { typeClasses } from '~~/core/font/classify'
import { search, withoutPart, type SearchPart } from '~~/core/font/search/search'
import { suitsDocument, type FaceUse } from '~~/core/font/suits'
import type { PairFamilies } from '~~/core/change/set-type/pair-wishes'
import { doublesOf } from '~~/core/font/doubles'
import { notAllowed } from '~~/core/font/held-licence'
import type { LicenceUse } from '~~/core/font/licence'
import type { CoveredScript } from '~~/core/font/measure/covered-scripts'
import { counted } from '~~/core/change/words'
import { useDesk } from './desk'
import { useFaceLists, useJudgements, useKeptLicences, useSetsOn } from './kept'
import { useLibrary } from './library'

/** Which faces are listed: all, those that a document has or that would suit it, the shortlist, those added here … */
export type FixedGroup = 'all' | 'on' | 'suits' | 'added' | 'shortlist' | 'document' | 'twice' | 'ended'
/** … and lists that are kept, by their ids. */
export type FaceGroup = FixedGroup | `list ${string}`

/** Under this name stands what is switched on for the whole desk. */
export const deskSets = 'desk'

/** A family that can be picked from a list of them. */
export interface FamilyChoice {
  readonly family: string
  readonly note: string
  /** The face that its name is drawn in; null where that is not known. */
  readonly hash: string | null
  readonly absent: boolean
}

/** As many families are compared; more cannot be told apart on a screen. */
export const shortlistLimit = 8

/** Looking for a face: what is asked, what answers, and the few that are being compared. */
export const useType = defineStore('type', () => {
  const library = useLibrary()
  const typed = ref('')
  const group = ref<FaceGroup>('all')
  /** Families of the document that is open. */
  const ofDocument = shallowRef<readonly string[]>([])
  /** What the document that is open has text in, and the scripts of that text. */
  const uses = shallowRef<readonly FaceUse[]>([])
  const scripts = shallowRef<ReadonlySet<CoveredScript>>(new Set())
  /** What the document that is open is made for. */
  const madeFor = computed((): readonly LicenceUse[] => useDesk().info?.document.uses ?? [])
  const chosen = ref<string | null>(null)
  /** A pair that is tried on the document that is opened next. */
  const trying = shallowRef<PairFamilies | null>(null)
  /** What was set last: the tray is made anew when the document is. */
  const done = ref('')
  /** What faces are shown with: a person's own words, else some of the document's, else the desk's. */
  const words = useLocalStorage('type own words', '')
  const sample = ref('')
  const shown = computed(() => words.value.trim() || sample.value || 'The morning boat is the Grey Plover')
  const shortlist = useLocalStorage<string[]>('type shortlist', [])
  const licences = useKeptLicences()
  const judgements = useJudgements()
  const lists = useFaceLists()
  /** All families, with what people say of them. */
  const all = computed(() =>
    library.library
      ? catalogueOf(library.library, {
          licences: licences.list.map(({ name, data }) => ({ name, ...data })),
          judgements: judgements.list.map(each => each.data),
          today: new Date().toISOString().slice(0, 10),
        })
      : [],
  )
  const setsOn = useSetsOn()
  /**
   * Lists that are switched on where somebody works: those of the folder that the document lies in, else those of the desk;
   * null where none are, and everything is on.
   */
  const switchedOn = computed((): ReadonlySet<string> | null => {
    const folder = useDesk().info?.document.folder ?? null
    // A list that was let go of switches nothing on.
    const of = (name: string | null) => {
      const ids = setsOn.list.find(each => each.name === name)?.data ?? []
      return lists.list.filter(each => ids.includes(each.id))
    }
    const found = [of(folder), of(deskSets)].find(each => each.length > 0)
    return found ? new Set(found.flatMap(each => each.data)) : null
  })
  const isOn = (family: string): boolean => switchedOn.value === null || switchedOn.value.has(family)
  /** Those that may be chosen: on, and with a licence that holds. What is off, or over, stays in documents alone. */
  const entries = computed(() => all.value.filter(entry => entry.licence.ended === null && isOn(entry.family)))
  const byFamily = computed(() => new Map(all.value.map(entry => [entry.family, entry])))
  const suited = computed(() => suitsDocument(entries.value, uses.value, scripts.value))
  const reasonOf = computed(() => new Map(suited.value.map(each => [each.entry.family, each.reason])))
  /** What is in the library twice: one design under two names, two files for one face. */
  const doubles = computed(() => doublesOf(all.value))
  const inGroup: Readonly<Record<FixedGroup, (entry: CatalogueEntry) => boolean>> = {
    all: entry => entry.licence.ended === null,
    on: entry => switchedOn.value !== null && entry.licence.ended === null && isOn(entry.family),
    ended: entry => entry.licence.ended !== null,
    twice: entry => doubles.value.has(entry.family),
    suits: entry => reasonOf.value.has(entry.family),
    added: entry => entry.faces.some(face => face.source === 'added'),
    shortlist: entry => shortlist.value.includes(entry.family),
    document: entry => ofDocument.value.includes(entry.family),
  }
  const listOf = (id: FaceGroup) => lists.list.find(each => `list ${each.id}` === id)
  const listName = (id: FaceGroup): string => listOf(id)?.name ?? ''
  const membersOf = (id: FaceGroup): readonly CatalogueEntry[] => {
    const list = listOf(id)
    if (list) return list.data.flatMap(family => byFamily.value.get(family) ?? [])
    return all.value.filter(inGroup[id as FixedGroup] ?? inGroup.all)
  }
  const groups = computed(() =>
    [
      ...(['all', 'on', 'document', 'suits', 'shortlist', 'added', 'twice', 'ended'] as const),
      ...lists.list.map((each): FaceGroup => `list ${each.id}`),
    ]
      .map(id => ({ id, count: membersOf(id).length }))
      .filter(each => each.id === 'all' || each.id === group.value || each.count > 0),
  )
  const listed = computed(() =>
    // What suits stands in the order of how near it is.
    group.value === 'suits' ? suited.value.map(each => each.entry) : membersOf(group.value),
  )
  /** Why a family is in the group that is listed, where the group has reasons. */
  const why = (family: string): string => (group.value === 'suits' ? (reasonOf.value.get(family) ?? '') : '')
  /** Uses that a family is not known to be licensed for, of those that the document is made for. */
  const lacking = (entry: CatalogueEntry): readonly LicenceUse[] =>
    notAllowed(entry.licence, madeFor.value).map(each => each.use)
  /** What pickers offer: families that may be chosen, with what they are and whether a licence is lacking. */
  const choices = computed(() =>
    entries.value.map((entry): FamilyChoice => {
      const missing = lacking(entry)
      const note = `${entry.classed.class}, ${counted(entry.faces.length, 'face')}`
      return {
        family: entry.family,
        hash: entry.plain.hash,
        absent: false,
        note: missing.length > 0 ? `not licensed for ${missing.join(', ')}` : note,
      }
    }),
  )
  /** Families that answer words for look and measure; none where no word is one. */
  function byLook(words: string): ReadonlySet<string> {
    const { parts, found } = search(all.value, words)
    return new Set(
      parts.some(part => part.kind === 'look' || part.kind === 'measure') ? found.map(each => each.family) : [],
    )
  }
  const result = computed(() => search(listed.value, typed.value))
  /** How many of what was found are of each class. */
  const facets = computed(() =>
    typeClasses
      .map(id => ({ id, count: result.value.found.filter(entry => entry.classed.class === id).length }))
      .filter(each => each.count > 0),
  )
  const entry = computed(() => (chosen.value === null ? null : (byFamily.value.get(chosen.value) ?? null)))
  const compared = computed(() => shortlist.value.flatMap(family => byFamily.value.get(family) ?? []))

  function ask(word: string): void {
    typed.value = typed.value.trim() === '' ? word : `${typed.value.trim()}, ${word}`
  }
  function take(part: SearchPart): void {
    typed.value = withoutPart(typed.value, part)
  }
  function keep(family: string): void {
    shortlist.value = shortlist.value.includes(family)
      ? shortlist.value.filter(each => each !== family)
      : [...shortlist.value, family].slice(-shortlistLimit)
  }
  /** Switches a list on or off for the desk or a folder. */
  function switchList(id: string, place: string, on: boolean): Promise<boolean> {
    const before = setsOn.list.find(each => each.name === place)?.data ?? []
    return setsOn.keep(place, on ? [...new Set([...before, id])] : before.filter(each => each !== id))
  }
  const isListOn = (id: string, place: string): boolean =>
    setsOn.list.find(each => each.name === place)?.data.includes(id) ?? false

  /** The library, and what people say of its faces. */
  async function load(): Promise<void> {
    await Promise.all([library.load(), licences.load(), judgements.load(), lists.load(), setsOn.load()])
  }
  return {
    typed,
    group,
    all,
    listName,
    switchedOn,
    switchList,
    isListOn,
    doubles,
    ofDocument,
    uses,
    scripts,
    madeFor,
    lacking,
    choices,
    byLook,
    why,
    chosen,
    words,
    sample,
    shown,
    done,
    trying,
    shortlist,
    entries,
    groups,
    result,
    facets,
    entry,
    compared,
    ask,
    take,
    keep,
    load,
  }
})
