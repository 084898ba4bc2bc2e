import { Fragment, type VNode } from 'vue'

/** One thing that can be chosen. */
export interface ChoiceOption {
  readonly value: string | number | null
  readonly title: string
  readonly disabled: boolean
}

function textOf(node: unknown): string {
  if (typeof node === 'string') return node
  if (Array.isArray(node)) return node.map(textOf).join('')
  return node !== null && typeof node === 'object' && 'children' in node ? textOf(node.children) : ''
}

/**
 * What can be chosen, read off `option` elements as HTML has them: a value (else the text), the text, and whether it is
 * disabled. Whatever else stands among them is passed over.
 */
export function optionsIn(nodes: readonly VNode[]): ChoiceOption[] {
  return nodes.flatMap((node): ChoiceOption[] => {
    if (node.type === Fragment) return Array.isArray(node.children) ? optionsIn(node.children as VNode[]) : []
    if (node.type !== 'option') return []
    const title = textOf(node.children).replace(/\s+/g, ' ').trim()
    const { value = title, disabled = false } = node.props ?? {}
    return [{ value: value as ChoiceOption['value'], title, disabled: disabled !== false && disabled !== undefined }]
  })
}
