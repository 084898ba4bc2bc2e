import type { DocumentSession } from '../../session'
import { styleFamilies, type StyleFamily } from '../../style/families'
import { points } from '../../document/lengths'
import { percent } from '../../style/properties'
import { namedLooks, type NamedLook } from './named'

/** A point is 4/3 px (CSS Values 4, 6.2). */
const px = (value: number) => ({ value: Math.round((value * 400) / 3) / 100, unit: 'px' })
/** Names of tokens may hold no dot, braces or leading dollar sign (Design Tokens Format Module 2025.10, 5.1.1). */
const tokenName = (title: string) => title.replace(/[.{}]/g, ' ').replace(/^\$+/, '').trim() || 'style'

/** What the styles of a family stand under. */
const groupNames: Readonly<Record<StyleFamily, string>> = {
  paragraph: 'paragraph',
  text: 'character',
  presentation: 'placeholder',
  graphic: 'frame',
  'table-cell': 'cell',
}

/**
 * The named styles of a document as design tokens (Design Tokens Format Module 2025.10): typography, and colour and spaces
 * where a style has them.
 */
export function stylesToTokens(session: DocumentSession): string {
  const groups: Partial<Record<StyleFamily, Record<string, unknown>>> = { paragraph: {}, text: {} }
  for (const each of namedLooks(session)) {
    const group = (groups[each.family] ??= {})
    let name = tokenName(each.title)
    for (let count = 2; name in group; count++) name = `${tokenName(each.title)} ${count}`
    group[name] = tokensOf(each)
  }
  return `${JSON.stringify(
    {
      $description: session.document.title || 'Styles',
      ...Object.fromEntries(
        styleFamilies.flatMap(family => (groups[family] ? [[groupNames[family], groups[family]]] : [])),
      ),
    },
    null,
    2,
  )}\n`
}

function tokensOf({ family, text, properties }: NamedLook) {
  const { slots, shared, leading } = text.effective
  const { font, size, weight, posture } = slots.western
  const height = leading['fo:line-height']
  const fixed = points(height)
  const color = shared['fo:color']
  const has = /^#[0-9a-f]{6}$/i.test(color) && shared['style:use-window-font-color'] !== 'true'
  const spaces = (['fo:margin-top', 'fo:margin-bottom'] as const).flatMap(name => {
    const length = points(properties[name])
    return length ? [[name === 'fo:margin-top' ? 'before' : 'after', { $type: 'dimension', $value: px(length) }]] : []
  })
  return {
    type: {
      $type: 'typography',
      $value: {
        fontFamily: [font.family || 'serif'],
        fontSize: px(size),
        fontWeight: weight,
        letterSpacing: px(points(shared['fo:letter-spacing']) ?? 0),
        lineHeight: fixed === null ? (percent(height) ?? 1) : Math.round((fixed / size) * 1000) / 1000,
      },
      ...(posture === 'normal' ? {} : { $extensions: { 'org.w3.css': { 'font-style': posture } } }),
    },
    ...(has
      ? {
          color: {
            $type: 'color',
            $value: {
              colorSpace: 'srgb',
              components: [1, 3, 5].map(
                at => Math.round((Number.parseInt(color.slice(at, at + 2), 16) / 255) * 1e4) / 1e4,
              ),
              hex: color.toLowerCase(),
            },
          },
        }
      : {}),
    ...(family === 'text' ? {} : Object.fromEntries(spaces)),
  }
}
