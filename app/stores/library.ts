import { defineStore } from 'pinia'
import type { FaceRecord } from '~~/core/font/face'
import { Library } from '~~/core/font/library'

/** The library's faces, fetched once. */
export const useLibrary = defineStore('library', () => {
  const library = shallowRef<Library | null>(null)
  let fetching: Promise<Library> | null = null
  const shown = new Set<string>()

  function load(): Promise<Library> {
    return (fetching ??= $fetch<FaceRecord[]>('/api/faces').then(faces => {
      library.value = markRaw(new Library(faces))
      return library.value
    }))
  }

  /** Fetches the library anew: faces were added or taken away. */
  function reload(): Promise<Library> {
    fetching = null
    return load()
  }

  /** A CSS family name that draws interface text in a face; its file is fetched when it is first drawn. */
  function cssFamily(hash: string): string {
    const name = `face-${hash.slice(0, 16)}`
    if (!shown.has(hash)) {
      shown.add(hash)
      // A variable file is drawn as heavy as its usual place is, which is what text is set in.
      const own = library.value?.faces.find(each => each.hash === hash)
      const weight = own && own.axes.length > 0 ? { weight: String(own.weight) } : {}
      document.fonts.add(new FontFace(name, `url(/api/faces/${hash})`, weight))
    }
    return name
  }

  return { library, load, reload, cssFamily }
})
