import { fontAttributes, slots } from '../document/font-attributes'
import { leadingProperties, slotAttributes } from './properties'

/*
 * Type properties as a designer thinks of them: attributes that are set and taken away together. Names: OpenDocument
 * 1.4 part 3, 20.
 */

export interface PropertyGroup {
  readonly id: GroupId
  readonly title: string
  readonly text: readonly string[]
  readonly paragraph: readonly string[]
}

export const groupIds = [
  'face',
  'size',
  'weight',
  'posture',
  'color',
  'tracking',
  'kerning',
  'scale',
  'case',
  'position',
  'background',
  'lines',
  'effects',
  'language',
  'hyphenation',
  'leading',
  'hidden',
  'revision',
  'setting',
] as const
export type GroupId = (typeof groupIds)[number]

const ofSlots = (pick: (slot: (typeof slots)[number]) => readonly string[]) => slots.flatMap(pick)
const underlines = ['style', 'type', 'width', 'color', 'mode'].flatMap(part => [
  `style:text-underline-${part}`,
  `style:text-line-through-${part}`,
  `style:text-overline-${part}`,
])

export const propertyGroups: readonly PropertyGroup[] = [
  { id: 'face', title: 'face', text: ofSlots(slot => Object.values(fontAttributes[slot])), paragraph: [] },
  {
    id: 'size',
    title: 'size',
    text: ofSlots(slot => [slotAttributes[slot].size, slotAttributes[slot].sizeRelative]),
    paragraph: [],
  },
  { id: 'weight', title: 'weight', text: ofSlots(slot => [slotAttributes[slot].weight]), paragraph: [] },
  { id: 'posture', title: 'italics', text: ofSlots(slot => [slotAttributes[slot].style]), paragraph: [] },
  { id: 'color', title: 'colour', text: ['fo:color', 'style:use-window-font-color'], paragraph: [] },
  { id: 'tracking', title: 'tracking', text: ['fo:letter-spacing'], paragraph: [] },
  { id: 'kerning', title: 'kerning', text: ['style:letter-kerning'], paragraph: [] },
  { id: 'scale', title: 'width', text: ['style:text-scale'], paragraph: [] },
  { id: 'case', title: 'case', text: ['fo:text-transform', 'fo:font-variant'], paragraph: [] },
  { id: 'position', title: 'raised or lowered', text: ['style:text-position'], paragraph: [] },
  { id: 'background', title: 'background', text: ['fo:background-color'], paragraph: [] },
  {
    id: 'lines',
    title: 'underlines and strikes',
    text: [...underlines, 'style:text-line-through-text', 'style:text-line-through-text-style'],
    paragraph: [],
  },
  {
    id: 'effects',
    title: 'outline and shadow',
    text: ['style:text-outline', 'fo:text-shadow', 'style:font-relief', 'style:text-emphasize', 'style:text-blinking'],
    paragraph: [],
  },
  {
    id: 'language',
    title: 'language',
    text: [
      ...ofSlots(slot => [slotAttributes[slot].language, slotAttributes[slot].country]),
      'fo:script',
      'style:script-asian',
      'style:script-complex',
      'style:rfc-language-tag',
      'style:rfc-language-tag-asian',
      'style:rfc-language-tag-complex',
    ],
    paragraph: [],
  },
  {
    id: 'hyphenation',
    title: 'hyphenation',
    text: ['fo:hyphenate', 'fo:hyphenation-push-char-count', 'fo:hyphenation-remain-char-count'],
    paragraph: [],
  },
  { id: 'leading', title: 'leading', text: [], paragraph: leadingProperties },
  { id: 'hidden', title: 'hidden text', text: ['text:display', 'text:condition'], paragraph: [] },
  // Marks by which programs tell revisions apart: nothing of them is seen.
  {
    id: 'revision',
    title: 'revision marks',
    text: ['{http://openoffice.org/2009/office}rsid', '{http://openoffice.org/2009/office}paragraph-rsid'],
    paragraph: [],
  },
  {
    id: 'setting',
    title: 'alignment, indents and spacing',
    text: [],
    paragraph: [
      'fo:text-align',
      'fo:text-align-last',
      'style:justify-single-word',
      'fo:margin',
      'fo:margin-left',
      'fo:margin-right',
      'fo:margin-top',
      'fo:margin-bottom',
      'fo:text-indent',
      'style:auto-text-indent',
      'style:contextual-spacing',
    ],
  },
]

/** What settling takes away unless asked otherwise: everything that makes text look other than its styles say. */
export const typeGroups: readonly GroupId[] = groupIds.filter(id => id !== 'setting' && id !== 'hidden')

/** What may be meant: words set apart by it are kept as character styles. */
export const emphasisGroups = ['posture', 'weight', 'position', 'language'] as const satisfies readonly GroupId[]

/** The same where nobody asked for another face: of faces those of one width are kept, too, which say that text is code. */
export const meantGroups = [...emphasisGroups, 'face'] as const satisfies readonly GroupId[]

export const groupOf = (id: GroupId): PropertyGroup => propertyGroups.find(group => group.id === id)!

const byAttribute = new Map(
  propertyGroups.flatMap(group => [
    ...group.text.map(name => [name, group.id] as const),
    ...group.paragraph.map(name => [name, group.id] as const),
  ]),
)

/** The group an attribute belongs to; undefined for those that are no type property. */
export const groupOfAttribute = (attribute: string): GroupId | undefined => byAttribute.get(attribute)

/** Attributes of some groups, of text and of paragraphs. */
export function attributesOf(groups: readonly GroupId[]): {
  readonly text: ReadonlySet<string>
  readonly paragraph: ReadonlySet<string>
} {
  const chosen = groups.map(groupOf)
  return {
    text: new Set(chosen.flatMap(group => group.text)),
    paragraph: new Set(chosen.flatMap(group => group.paragraph)),
  }
}
