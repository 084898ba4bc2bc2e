import type { FoundPlace } from '~~/core/remarks/find-place'
import type { Remark } from '~~/shared/remarks'

/** What became of the words of a remark, where something did. */
export const stateWords: Readonly<Record<FoundPlace['state'], string>> = {
  there: '',
  moved: 'its words have moved',
  changed: 'its words were changed',
  gone: 'its words are gone',
}

/** What a remark is about, in a few words: “boats”, page 3. `page` from 0, -1 where it is not known. */
export function aboutWords({ place }: Pick<Remark, 'place'>, page: number): string {
  const where = page < 0 ? '' : `page ${page + 1}`
  if (place === null) return 'the whole document'
  if (place.kind === 'page') return `page ${place.page + 1}`
  const quote = place.text.length > 60 ? `${place.text.slice(0, 57)}…` : place.text
  return [quote.trim() === '' ? 'a place in the text' : `“${quote}”`, where].filter(Boolean).join(', ')
}
