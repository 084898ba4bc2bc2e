import { oneByOne, type Kind } from '../kind'
import { setStart, valuesLike } from './plan-starts'
import { startLikeSchema, startSchema, type StartLikeWish, type StartWish } from './wishes'

/** What each kind of default is for. */
const startTitles: Readonly<Record<StartWish['kind'], string>> = {
  body: 'paragraphs',
  frame: 'text frames',
  shape: 'shape labels',
  title: 'titles',
  outline1: 'outlines at level 1',
  outline2: 'outlines at level 2',
  outline3: 'outlines at level 3',
  outline4: 'outlines at level 4',
  outline5: 'outlines at level 5',
  cell: 'table cells',
  note: 'notes',
  header: 'headers and footers',
}

export const startKind = oneByOne<StartWish>({
  type: 'start',
  schema: startSchema,
  most: 50,
  act(planner, { kind, values }) {
    setStart(planner, kind, values)
    return `Set what new ${startTitles[kind]} begin with`
  },
  sentence: ({ kind }) => `Set what new ${startTitles[kind]} begin with.`,
})

export const startLikeKind = oneByOne<StartLikeWish>({
  type: 'start-like',
  schema: startLikeSchema,
  most: 50,
  act(planner, { kind, part, node, offset }) {
    setStart(planner, kind, valuesLike(planner, part, node, offset))
    return `Set what new ${startTitles[kind]} begin with, by example`
  },
  sentence: ({ kind }) => `Set what new ${startTitles[kind]} begin with, by example.`,
  whyNotMany: () => 'The example stands in one document. Set the values themselves. Nothing was changed.',
})

export const defaultKinds: readonly Kind[] = [startKind, startLikeKind]
