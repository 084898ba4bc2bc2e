/** Whether keys belong to whatever has the focus: a field, or a list that is looked through by its letters. */
export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null
  return (
    /^(INPUT|SELECT|TEXTAREA)$/.test(element?.tagName ?? '') ||
    element?.isContentEditable === true ||
    element?.getAttribute?.('role') === 'listbox'
  )
}
