import { defineStore } from 'pinia'
import type { FaceRecord } from '~~/core/font/face'
import type { ShelfCensus, ShelfPage } from '~~/shared/api'
import { counted } from '../desk/words'
import { sentenceOf } from './desk'
import { useLibrary } from './library'

/** A file that was not taken, and why. */
interface Refused {
  readonly name: string
  readonly why: string
}

/** A folder may hold more files than the desk takes in a minute: so often is waited, and so long. Milliseconds. */
const patience = 60
const pause = 2000

const isFont = (name: string): boolean => /\.(ttf|otf|ttc|otc|woff2?)$/i.test(name)

/** Faces that are added to the library and taken out of it again. */
/** Documents that name a family. */
export interface Naming {
  readonly count: number
  readonly documents: readonly { readonly id: string; readonly title: string }[]
}
/** As many of them are told by their titles. */
const namesTold = 12

export const useAddedFaces = defineStore('added faces', () => {
  const library = useLibrary()
  /** How far adding has come; null while nothing is added. */
  const progress = ref<{ readonly done: number; readonly all: number } | null>(null)
  const refused = shallowRef<readonly Refused[]>([])
  const said = ref('')
  const failure = ref('')
  let stopped = false

  /** Sends a file; where the desk has too much to do just now it is sent again a little later. */
  async function send(file: File): Promise<{ readonly added: number }> {
    for (let tries = 0; ; tries++) {
      try {
        return await $fetch(`/api/faces?name=${encodeURIComponent(file.name)}`, { method: 'POST', body: file })
      } catch (error) {
        if ((error as { statusCode?: number }).statusCode !== 429 || tries >= patience || stopped) throw error
        await new Promise(resolve => setTimeout(resolve, pause))
      }
    }
  }

  /** Adds files one after the other; those that are no fonts are passed over. What one refuses harms no other. */
  async function add(files: readonly File[]): Promise<void> {
    const fonts = files.filter(file => isFont(file.name))
    said.value = ''
    failure.value = ''
    refused.value = []
    if (fonts.length === 0) {
      failure.value = 'There is no font file among what was chosen. Nothing was added.'
      return
    }
    stopped = false
    let added = 0
    const bad: Refused[] = []
    for (const [index, file] of fonts.entries()) {
      if (stopped) break
      progress.value = { done: index, all: fonts.length }
      try {
        added += (await send(file)).added
      } catch (error) {
        bad.push({ name: file.name, why: sentenceOf(error) })
        refused.value = [...bad]
      }
    }
    progress.value = null
    said.value =
      (added === 0
        ? 'No face was added: those that were read are in the library already'
        : `${counted(added, 'face')} added`) +
      (stopped ? ', then it was stopped' : '') +
      (bad.length > 0 ? `; ${counted(bad.length, 'file')} refused` : '') +
      '.'
    if (added > 0) await library.reload().catch(error => (failure.value = sentenceOf(error)))
  }
  function stop(): void {
    stopped = true
  }

  /** The documents on the shelf that name a family: how many, and the first of them. */
  async function naming(family: string): Promise<Naming> {
    const census = await $fetch<ShelfCensus>('/api/census')
    const use = census.families.find(each => each.value.toLowerCase() === family.toLowerCase())
    const ids = use?.documents.map(each => each.id) ?? []
    if (ids.length === 0) return { count: 0, documents: [] }
    const { cards } = await $fetch<ShelfPage>(`/api/shelf?ids=${ids.slice(0, namesTold).join(',')}`)
    return { count: ids.length, documents: cards.map(({ id, title }) => ({ id, title })) }
  }

  /** Takes the added faces of a family out of the library; documents that name it stay as they are. */
  async function takeOut(faces: readonly FaceRecord[]): Promise<void> {
    said.value = ''
    failure.value = ''
    const own = faces.filter(face => face.source === 'added')
    try {
      for (const face of own) await $fetch(`/api/faces/${face.hash}`, { method: 'DELETE' })
      said.value = `${counted(own.length, 'face')} of ${own[0]?.family ?? 'the family'} taken out of the library. No file was changed.`
    } catch (error) {
      failure.value = sentenceOf(error)
    }
    await library.reload().catch(error => (failure.value = sentenceOf(error)))
  }
  return { progress, refused, said, failure, add, stop, naming, takeOut }
})
