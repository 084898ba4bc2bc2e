import { defineStore } from 'pinia'
import type { AbsentPlace } from '~~/core/census/absent-model'
import type { FaceMeasures, FaceRecord } from '~~/core/font/face'
import { isFamily, type FamilyCheck } from '~~/core/font/file-check'
import type { StandIn } from '~~/core/font/library'
import type { Offer } from '~~/shared/api'
import type { AbsentEntry } from '../workers/messages'
import { sentenceOf, useDesk } from './desk'
import { useLibrary } from './library'
import { useStyles } from './styles'
import { useWords } from './words'

/** A font file that came with the document. */
export interface CarriedFont {
  readonly path: string
  readonly from: 'package' | 'zip'
  readonly problem: string
  readonly face: FaceRecord | null
}

/** Documents with more pages count as long. */
const longPages = 60

/** The absent faces of the document on the desk, and what is done about them. */
export const useAbsent = defineStore('absent', () => {
  const desk = useDesk()
  const library = useLibrary()
  const faces = shallowRef<readonly AbsentEntry[]>([])
  const places = shallowRef<readonly AbsentPlace[]>([])
  const carried = shallowRef<readonly CarriedFont[]>([])
  /** The family that is laid open. */
  const open = ref<string | null>(null)
  const busy = ref('')
  const message = ref('')
  const done = ref('')
  /** Lines more or fewer with a family in place of the open one. */
  const lines = ref<Record<string, number | null>>({})

  const entry = computed(() => faces.value.find(face => face.family === open.value) ?? null)
  const own = computed(() => places.value.filter(place => place.family === open.value))
  const current = computed(
    () =>
      (desk.current &&
        own.value.find(
          place =>
            place.part === desk.current!.part &&
            place.node === desk.current!.node &&
            place.start === desk.current!.start,
        )) ||
      null,
  )

  /** Measures of font files that came along, by the family that they are. */
  const known = computed((): Record<string, FaceMeasures> =>
    Object.fromEntries(
      faces.value.flatMap(face => {
        const own = carried.value.find(font => font.face !== null && isFamily(font.face, face.family).same)
        return own ? [[face.family, own.face!.measures]] : []
      }),
    ),
  )

  async function refresh(): Promise<void> {
    if (!desk.engine || desk.state !== 'open') return
    const list = await desk.engine
      .ask('absent', { known: JSON.parse(JSON.stringify(known.value)) as typeof known.value })
      .catch(() => null)
    if (!list) return
    faces.value = list.faces
    places.value = list.places
    if (open.value !== null && !entry.value) open.value = null
    if (open.value === null && faces.value.length === 1) choose(faces.value[0]!.family)
  }

  async function fetchCarried(): Promise<void> {
    if (desk.info)
      carried.value = await $fetch<CarriedFont[]>(`/api/documents/${desk.info.document.id}/fonts`).catch(() => [])
    if (Object.keys(known.value).length > 0) await refresh()
  }

  function choose(family: string | null): void {
    open.value = family
    message.value = ''
    lines.value = {}
    desk.walkThrough([])
    if (family !== null && !isLong.value) void countLines(family)
  }

  /** Of a long document lines are counted when they are asked for: each suggestion sets all of its pages. */
  const isLong = computed(() => desk.sheets.length > longPages)

  /** Works out, one after the other, what each suggestion does to the lines. */
  async function countLines(family: string): Promise<void> {
    for (const suggestion of faces.value.find(face => face.family === family)?.suggestions ?? []) {
      if (open.value !== family || !desk.engine) return
      const difference = await desk.engine.ask('linesWith', { family, to: suggestion.family }).catch(() => null)
      if (open.value === family) lines.value = { ...lines.value, [suggestion.family]: difference }
    }
  }

  function walk(step: 1 | -1): void {
    if (own.value.length > 0 && desk.occurrences.length !== own.value.length) desk.walkThrough(own.value)
    else desk.walk(step)
  }

  /** Does something that may change what is absent, and shows what came of it. */
  async function act(what: string, action: () => Promise<string>, faces = false): Promise<boolean> {
    busy.value = what
    message.value = ''
    done.value = ''
    let fine = true
    try {
      await useWords().flush()
      const said = await action()
      if (faces) await library.reload()
      if (desk.info) await desk.load(desk.info.document.id)
      await refresh()
      done.value = said
    } catch (error) {
      fine = false
      message.value = sentenceOf(error)
    }
    busy.value = ''
    return fine
  }

  const takeCarried = (paths: readonly string[]) =>
    act(
      'package',
      async () => {
        const { added } = await $fetch<{ added: number }>(`/api/documents/${desk.info!.document.id}/fonts`, {
          method: 'POST',
          body: { paths },
        })
        return `${added} ${added === 1 ? 'face is' : 'faces are'} in the library now. The file was not changed.`
      },
      true,
    )

  const checkFile = async (file: File, family: string) =>
    $fetch<{ face: FaceRecord; family: FamilyCheck | null }>(
      `/api/faces?check=yes&name=${encodeURIComponent(file.name)}&for=${encodeURIComponent(family)}`,
      { method: 'POST', body: file },
    )
  const addFile = (file: File) =>
    act(
      'file',
      async () => {
        const { face } = await $fetch<{ face: FaceRecord }>(`/api/faces?name=${encodeURIComponent(file.name)}`, {
          method: 'POST',
          body: file,
        })
        return `${face.family} ${face.style} is in the library now. The document was not changed.`
      },
      true,
    )

  const askSupplier = (query: string) =>
    $fetch<{ supplier: string; offers: Offer[] }>(`/api/supplier?query=${encodeURIComponent(query)}`)
  const order = (offer: Offer) =>
    act(
      'supplier',
      async () => {
        const { added } = await $fetch<{ added: number }>(`/api/supplier/${offer.id}`, { method: 'POST' })
        return `${offer.family} was delivered: ${added} ${added === 1 ? 'face' : 'faces'}. The document was not changed.`
      },
      true,
    )

  const setStandIn = (
    level: 'document' | 'folder' | 'desk',
    family: string,
    script: StandIn['script'],
    to: string | null,
  ) =>
    act('stand-in', async () => {
      await $fetch(`/api/documents/${desk.info!.document.id}/stand-ins`, {
        method: 'PUT',
        body: { level, family, script, to },
      })
      return to === null
        ? 'The stand-in is taken away. The file was not changed.'
        : `${to} stands in. The file still says what it said.`
    })

  /** Takes away what stands at a place: the text, or the empty paragraph. Typed letters and this go one way. */
  const remove = (place: AbsentPlace) =>
    act('place', async () => {
      const { part, node } = place
      const words = useWords()
      const gone = place.empty
        ? { type: 'remove' as const, part, node }
        : { type: 'text' as const, part, node, from: place.start, to: place.end, text: '' }
      if (!(await words.edit([gone], () => null))) throw new Error(words.message)
      await words.flush()
      if (desk.failure !== '') throw new Error(desk.failure)
      return place.empty ? 'The empty paragraph is gone.' : 'It is gone.'
    })

  /** Takes local formatting away at a place, so that its style shows through. */
  const settle = (place: AbsentPlace) =>
    act('place', async () => {
      const styles = useStyles()
      const stored = await styles.carryOut([
        {
          type: 'settle',
          scope: {
            kind: 'ranges',
            ranges: [{ part: place.part, node: place.node, from: place.start, to: Math.max(place.end, place.start) }],
          },
          groups: [...styles.groups],
          keep: [],
          idleOnly: false,
        },
      ])
      if (!stored) throw new Error(styles.message)
      return 'It looks as its style says now.'
    })

  function clear(): void {
    faces.value = []
    places.value = []
    carried.value = []
    open.value = null
    message.value = ''
    done.value = ''
  }

  return {
    faces,
    places,
    carried,
    open,
    entry,
    own,
    current,
    busy,
    message,
    done,
    lines,
    isLong,
    countLines,
    refresh,
    fetchCarried,
    choose,
    walk,
    takeCarried,
    checkFile,
    addFile,
    askSupplier,
    order,
    setStandIn,
    remove,
    settle,
    clear,
  }
})
