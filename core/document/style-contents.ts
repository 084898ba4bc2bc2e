import type { DropCapValues, TabStopValues } from './style-verbs'
import type { Properties, Style, StyleScope } from './styles'

/*
 * What stands in elements inside a style: the other side of style-verbs.ts, with lengths as the file has them.
 */

/** As many tab stops of a style are read. */
const stopLimit = 60

/** The tab stops that a style sets itself (ODF 1.4 part 3, 17.8); null where its parent's hold. */
export function readTabStops(scope: StyleScope, style: Style): TabStopValues[] | null {
  const stops = inParagraph(scope, style, 'style:tab-stops')
  return (
    stops &&
    [...scope.part.elements(stops, 'style:tab-stop')].slice(0, stopLimit).map(({ attributes }) => {
      const type = attributes['style:type']
      const leader = attributes['style:leader-text']
      return {
        position: attributes['style:position'] ?? '',
        type: type === 'center' || type === 'right' || type === 'char' ? type : 'left',
        ...(attributes['style:char'] ? { char: attributes['style:char'] } : {}),
        ...(leader && leader !== ' ' ? { leader } : {}),
      }
    })
  )
}

/** The drop cap that a style sets itself (17.9); null where it sets none. */
export function readDropCap(scope: StyleScope, style: Style): DropCapValues | null {
  const drop = inParagraph(scope, style, 'style:drop-cap')
  if (!drop) return null
  const length = drop.attributes['style:length']
  return {
    lines: Number.parseInt(drop.attributes['style:lines'] ?? '1', 10) || 1,
    length: length === 'word' ? 'word' : Number.parseInt(length ?? '1', 10) || 1,
    distance: drop.attributes['style:distance'] ?? '',
    style: drop.attributes['style:style-name'] ?? null,
  }
}

function inParagraph({ part }: StyleScope, { propertyNodes }: Style, name: string) {
  const holder = propertyNodes['style:paragraph-properties']
  return holder === undefined ? null : (part.first(part.element(holder), name) ?? null)
}

/** The character style of a list's labels: that of its first level; null where none is named. */
export function readLabelStyle(scope: StyleScope, list: string): string | null {
  const found = scope.lists.get(list)
  if (!found) return null
  const level = [...found.part.elements(found.element)].find(each => each.name.startsWith('text:list-level-style'))
  return level?.attributes['text:style-name'] ?? null
}

/** The character styles of a part with what their elements say: as the part is now, not as it was read. */
export function* textStylesIn({ part }: Pick<StyleScope, 'part'>): Generator<{
  readonly name: string
  readonly displayName: string
  readonly parent: string | null
  /** What it says, where that is all: null where its properties hold more than values. */
  readonly text: Properties | null
}> {
  const holder = part.first(part.rootElement, 'office:styles')
  for (const element of holder ? part.elements(holder, 'style:style') : []) {
    if (element.attributes['style:family'] !== 'text') continue
    const name = element.attributes['style:name'] ?? ''
    const text = part.first(element, 'style:text-properties')
    yield {
      name,
      displayName: element.attributes['style:display-name'] ?? name,
      parent: element.attributes['style:parent-style-name'] || null,
      text: text && text.children.length === 0 ? text.attributes : null,
    }
  }
}
