import type { StartKind } from '../document/rules'

/** What kinds of things that text begins in are called. */
export const kindTitles: Readonly<Record<StartKind, string>> = {
  body: 'Body text',
  frame: 'Frame text',
  shape: 'Shape label',
  title: 'Title',
  outline1: 'Outline level 1',
  outline2: 'Outline level 2',
  outline3: 'Outline level 3',
  outline4: 'Outline level 4',
  outline5: 'Outline level 5',
  cell: 'Table text',
  note: 'Note text',
  header: 'Header and footer text',
}
