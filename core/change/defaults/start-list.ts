import type { StartKind } from '../../document/rules'
import type { StyleScope } from '../../document/styles'
import type { Library } from '../../font/library'
import type { Reading } from '../../style/reading'
import { isLive, isPlaceholder, startKindsOf } from './start-kinds'

/** What new text of a kind begins with now. */
export interface StartSummary {
  readonly kind: StartKind
  /** OpenDocument's own default says it, so that every program follows. */
  readonly live: boolean
  /** It was set here; all others begin as the document's default says. */
  readonly set: boolean
  readonly style: string | null
  readonly family: string
  readonly status: string
  readonly face: string
  /** Points. */
  readonly size: number
  readonly leading: string
  readonly tracking: string
  readonly color: string
  readonly hyphenate: boolean
  readonly inset: string
  readonly fill: string
}

/** The style that new text of a kind begins with: one that the rules name, a placeholder's, the standard one; '' for none. */
export function startStyle(
  { cascade, document }: Reading,
  scope: StyleScope,
  kind: StartKind,
): { readonly family: string; readonly name: string } {
  const own = cascade.rules.starts[kind]
  const family = document.kind === 'text' && kind !== 'shape' ? 'paragraph' : 'graphic'
  const standard = [...scope.common.values()].find(style => style.family === family && /^standard$/i.test(style.name))
  const placeholder = isPlaceholder(kind)
    ? [...scope.common.values()].find(each => each.family === 'presentation' && each.name.endsWith(`-${kind}`))
    : undefined
  if (placeholder) return { family: 'presentation', name: placeholder.name }
  if (own?.paragraph !== undefined && scope.common.has(`paragraph\n${own.paragraph}`))
    return { family: 'paragraph', name: own.paragraph }
  return { family, name: standard && isLive(document.kind, kind) ? standard.name : '' }
}

/** What new text begins with, kind by kind. */
export function listStarts(reading: Reading, library: Library): StartSummary[] {
  const { cascade, document } = reading
  const scope = [...cascade.scopes.values()].at(-1)
  if (!scope) return []
  const { starts } = cascade.rules
  return startKindsOf(document.kind).map((kind): StartSummary => {
    const live = isLive(document.kind, kind)
    const own = starts[kind]
    const style = startStyle(reading, scope, kind)
    const { effective } = cascade.named(scope.part.path, style.family, style.name)
    const values = effective.slots.western
    const resolution = library.resolve({
      family: values.font.family,
      styleName: values.font.styleName,
      weight: values.weight,
      italic: values.posture !== 'normal',
      generic: values.font.generic,
      pitch: values.font.pitch,
      charset: values.font.charset,
      slot: 'western',
    })
    const frame = own?.frame === undefined ? undefined : scope.common.get(`graphic\n${own.frame}`)?.graphic
    return {
      kind,
      live,
      set: own !== undefined,
      style:
        own?.paragraph === undefined ? null : (scope.common.get(`paragraph\n${own.paragraph}`)?.displayName ?? null),
      family: values.font.family,
      status: resolution.status,
      face: resolution.face.hash,
      size: values.size,
      leading: effective.leading['fo:line-height'] ?? 'normal',
      tracking: effective.shared['fo:letter-spacing'],
      color: effective.shared['fo:color'],
      hyphenate: effective.shared['fo:hyphenate'] === 'true',
      inset: frame?.['fo:padding'] ?? '',
      fill: frame?.['draw:fill'] === 'solid' ? (frame['draw:fill-color'] ?? '') : '',
    }
  })
}
