import { fontAttributes, slots } from '../../document/font-attributes'
import type { StyleDetail } from './style-detail'
import { encodeStyleName } from '../../document/style-names'
import type { StyleChanges } from '../../style/style-changes'
import type { EditWish, MakeWish } from './wishes'

/**
 * A style of another document, as it is chosen: where the name is taken, mine is kept, theirs is taken, or both
 * stand side by side.
 */
export interface StyleChoice {
  readonly family: 'paragraph' | 'text'
  readonly name: string
  readonly how: 'mine' | 'theirs' | 'both'
}

/** What a document has under a name already. */
export interface OwnStyle {
  readonly family: 'paragraph' | 'text'
  readonly name: string
  readonly displayName: string
  readonly text: Readonly<Record<string, string>>
  readonly paragraph: Readonly<Record<string, string>>
}

const naming = new Set(slots.flatMap(slot => Object.values(fontAttributes[slot])))
/** Attributes as wishes take them: fonts go as families, foreign attributes stay behind. */
const plain = (values: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(values).filter(([name]) => /^[a-z]+:[a-z-]+$/.test(name) && !naming.has(name)))

/** A style of one of two lists that is called so. */
export function sameStyle<S extends { readonly family: string; readonly displayName: string }>(
  list: readonly S[],
  style: { readonly family: string; readonly displayName: string },
): S | undefined {
  return list.find(
    each => each.family === style.family && each.displayName.toLowerCase() === style.displayName.toLowerCase(),
  )
}

/**
 * The wishes that bring chosen styles of another document here, parents first. A parent that is neither chosen nor here
 * gives its values to the style itself, so that it looks as it did there.
 */
export function importWishes(
  theirs: readonly StyleDetail[],
  mine: readonly OwnStyle[],
  choices: readonly StyleChoice[],
  source: string,
): (EditWish | MakeWish)[] {
  const wishes: (EditWish | MakeWish)[] = []
  /** Names here, by family and name there. */
  const named = new Map<string, string>()
  const keyOf = (family: string, name: string) => `${family}\n${name}`
  const choiceOf = (family: string, name: string) => choices.find(each => each.family === family && each.name === name)
  const taken = new Set(mine.map(style => `${style.family}\n${style.displayName.toLowerCase()}`))
  const ordered: StyleDetail[] = []
  const visit = (style: StyleDetail, depth: number): void => {
    if (ordered.includes(style) || depth > 100) return
    const parent = theirs.find(each => each.family === style.family && each.name === style.parent)
    if (parent && choiceOf(parent.family, parent.name)) visit(parent, depth + 1)
    if (!ordered.includes(style)) ordered.push(style)
  }
  for (const style of theirs) if (choiceOf(style.family, style.name)) visit(style, 0)
  for (const style of ordered) {
    const choice = choiceOf(style.family, style.name)!
    const own = sameStyle(mine, style)
    if (own && choice.how === 'mine') {
      named.set(keyOf(style.family, style.name), own.name)
      continue
    }
    let displayName = style.displayName
    if (own && choice.how === 'both')
      for (let number = 1; taken.has(`${style.family}\n${displayName.toLowerCase()}`); number++)
        displayName = `${style.displayName}, ${source}${number === 1 ? '' : ` ${number}`}`
    taken.add(`${style.family}\n${displayName.toLowerCase()}`)
    const changes = changesOf(style, theirs, mine, named, keyOf)
    if (own && choice.how === 'theirs') {
      named.set(keyOf(style.family, style.name), own.name)
      const gone = (
        before: Readonly<Record<string, string>>,
        after: Readonly<Record<string, string | null>> | undefined,
      ) =>
        Object.fromEntries(
          Object.keys(plain(before))
            .filter(name => after?.[name] === undefined)
            .map(name => [name, null]),
        )
      const fonts = { western: null, asian: null, complex: null, ...changes.fonts }
      wishes.push({
        type: 'edit',
        family: style.family,
        name: own.name,
        changes: {
          ...changes,
          parent: changes.parent ?? null,
          fonts,
          text: { ...gone(own.text, changes.text), ...changes.text },
          ...(style.family === 'paragraph'
            ? { paragraph: { ...gone(own.paragraph, changes.paragraph), ...changes.paragraph } }
            : {}),
        },
      })
    } else {
      named.set(keyOf(style.family, style.name), encodeStyleName(displayName))
      wishes.push({ type: 'make', family: style.family, displayName, changes })
    }
  }
  return wishes
}

function changesOf(
  style: StyleDetail,
  theirs: readonly StyleDetail[],
  mine: readonly OwnStyle[],
  named: ReadonlyMap<string, string>,
  keyOf: (family: string, name: string) => string,
): StyleChanges {
  let text: Record<string, string> = { ...style.text }
  let paragraph: Record<string, string> = { ...style.paragraph }
  const fonts: NonNullable<StyleChanges['fonts']> = {}
  const takeFonts = (of: StyleDetail) => {
    for (const slot of slots)
      if (fonts[slot] === undefined && of.fonts[slot].own !== null) fonts[slot] = { family: of.fonts[slot].own! }
  }
  takeFonts(style)
  let parent: string | null = null
  for (
    let at = theirs.find(each => each.family === style.family && each.name === style.parent), steps = 0;
    at && steps < 100;
    at = theirs.find(each => each.family === style.family && each.name === at!.parent), steps++
  ) {
    parent = named.get(keyOf(at.family, at.name)) ?? sameStyle(mine, at)?.name ?? null
    if (parent !== null) break
    text = { ...at.text, ...text }
    paragraph = { ...at.paragraph, ...paragraph }
    takeFonts(at)
  }
  return {
    ...(parent === null ? {} : { parent }),
    ...(Object.keys(fonts).length > 0 ? { fonts } : {}),
    text: plain(text),
    ...(style.family === 'paragraph' ? { paragraph: plain(paragraph) } : {}),
    ...(style.outlineLevel === null ? {} : { outlineLevel: style.outlineLevel }),
    ...(style.tabs ? { tabs: style.tabs } : {}),
    ...(style.dropCap ? { dropCap: { ...style.dropCap, style: null } } : {}),
    ...(Object.keys(style.features).length > 0 ? { features: { ...style.features } } : {}),
    ...(style.role ? { role: style.role } : {}),
    ...(style.author ? { author: style.author } : {}),
  }
}
