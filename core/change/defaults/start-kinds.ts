import type { StartKind } from '../../document/rules'

/** What kinds of objects a document can begin new text in. */
export function startKindsOf(kind: string): readonly StartKind[] {
  if (kind === 'text') return ['body', 'frame', 'shape', 'cell', 'note', 'header']
  return kind === 'presentation'
    ? ['frame', 'shape', 'title', 'outline1', 'outline2', 'outline3', 'outline4', 'outline5', 'cell']
    : ['frame', 'shape', 'cell']
}

/** Whether a kind is a placeholder of a presentation's masters. */
export const isPlaceholder = (kind: StartKind): boolean => kind === 'title' || kind.startsWith('outline')

/**
 * Whether a kind begins with what OpenDocument's own default says; all others begin with a style that the rules
 * part names.
 */
export function isLive(documentKind: string, kind: StartKind): boolean {
  return documentKind === 'text'
    ? kind === 'body' || kind === 'shape'
    : kind === 'frame' || kind === 'shape' || isPlaceholder(kind)
}
