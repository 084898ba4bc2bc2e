/**
 * The fields of the style editor: which attribute each sets, and how it is typed. Names: OpenDocument 1.4 part 3,
 * 20.
 */
export interface Field {
  readonly id: string
  readonly title: string
  /** What of the style it is said to: its text, its paragraphs, or the frame or cell around them. */
  readonly on: 'text' | 'paragraph' | 'holder'
  readonly attribute: string
  /** Set to the same value with it, so that all slots agree. */
  readonly also?: readonly string[]
  readonly kind: 'length' | 'percent' | 'number' | 'choice' | 'color'
  readonly choices?: readonly (readonly [value: string, title: string])[]
  readonly step?: number
  readonly paragraphOnly?: boolean
}
const yes = (value: string, on: string, off: string): readonly (readonly [string, string])[] => [
  [value, on],
  [value === 'true' ? 'false' : value === 'always' ? 'auto' : 'none', off],
]
const border = [
  ['0.25pt solid #1b2430', 'hairline'],
  ['0.5pt solid #1b2430', '0.5 pt'],
  ['1pt solid #1b2430', '1 pt'],
  ['2pt solid #1b2430', '2 pt'],
  ['1pt dotted #1b2430', '1 pt dotted'],
  ['none', 'none'],
] as const

export const typeFields: readonly Field[] = [
  {
    id: 'weight',
    title: 'Weight',
    on: 'text',
    attribute: 'fo:font-weight',
    also: ['style:font-weight-asian', 'style:font-weight-complex'],
    kind: 'choice',
    choices: [
      ['100', 'thin'],
      ['200', 'extra light'],
      ['300', 'light'],
      ['normal', 'regular'],
      ['500', 'medium'],
      ['600', 'semibold'],
      ['bold', 'bold'],
      ['800', 'extra bold'],
      ['900', 'black'],
    ],
  },
  {
    id: 'posture',
    title: 'Posture',
    on: 'text',
    attribute: 'fo:font-style',
    also: ['style:font-style-asian', 'style:font-style-complex'],
    kind: 'choice',
    choices: [
      ['normal', 'upright'],
      ['italic', 'italic'],
      ['oblique', 'oblique'],
    ],
  },
  {
    id: 'case',
    title: 'Case',
    on: 'text',
    attribute: 'fo:text-transform',
    kind: 'choice',
    choices: [
      ['none', 'as written'],
      ['uppercase', 'capitals'],
      ['lowercase', 'lower case'],
      ['capitalize', 'initial capitals'],
    ],
  },
  {
    id: 'smallcaps',
    title: 'Small capitals',
    on: 'text',
    attribute: 'fo:font-variant',
    kind: 'choice',
    choices: [
      ['normal', 'no'],
      ['small-caps', 'yes'],
    ],
  },
  { id: 'tracking', title: 'Tracking', on: 'text', attribute: 'fo:letter-spacing', kind: 'length', step: 0.05 },
  {
    id: 'kerning',
    title: 'Kerning',
    on: 'text',
    attribute: 'style:letter-kerning',
    kind: 'choice',
    choices: yes('true', 'on', 'off'),
  },
  { id: 'scale', title: 'Width of letters', on: 'text', attribute: 'style:text-scale', kind: 'percent', step: 1 },
  { id: 'color', title: 'Colour', on: 'text', attribute: 'fo:color', kind: 'color' },
  { id: 'background', title: 'Behind the words', on: 'text', attribute: 'fo:background-color', kind: 'color' },
  {
    id: 'outline',
    title: 'Outline',
    on: 'text',
    attribute: 'style:text-outline',
    kind: 'choice',
    choices: yes('true', 'yes', 'no'),
  },
  {
    id: 'shadow',
    title: 'Shadow',
    on: 'text',
    attribute: 'fo:text-shadow',
    kind: 'choice',
    choices: [
      ['1pt 1pt', 'yes'],
      ['none', 'no'],
    ],
  },
  {
    id: 'position',
    title: 'Baseline',
    on: 'text',
    attribute: 'style:text-position',
    kind: 'choice',
    choices: [
      ['0% 100%', 'on it'],
      ['super 58%', 'raised, small'],
      ['sub 58%', 'lowered, small'],
      ['20% 100%', 'raised by a fifth'],
      ['-20% 100%', 'lowered by a fifth'],
    ],
  },
  {
    id: 'underline',
    title: 'Underline',
    on: 'text',
    attribute: 'style:text-underline-style',
    kind: 'choice',
    choices: [
      ['none', 'none'],
      ['solid', 'solid'],
      ['dotted', 'dotted'],
      ['dash', 'dashed'],
      ['wave', 'wave'],
    ],
  },
  {
    id: 'strike',
    title: 'Struck through',
    on: 'text',
    attribute: 'style:text-line-through-style',
    kind: 'choice',
    choices: [
      ['none', 'no'],
      ['solid', 'yes'],
    ],
  },
  {
    id: 'language',
    title: 'Language',
    on: 'text',
    attribute: 'fo:language',
    kind: 'choice',
    choices: [
      ['en', 'English'],
      ['de', 'German'],
      ['fr', 'French'],
      ['es', 'Spanish'],
      ['it', 'Italian'],
      ['nl', 'Dutch'],
      ['sv', 'Swedish'],
      ['nb', 'Norwegian'],
      ['da', 'Danish'],
      ['fi', 'Finnish'],
      ['pt', 'Portuguese'],
      ['pl', 'Polish'],
      ['cs', 'Czech'],
      ['ru', 'Russian'],
      ['el', 'Greek'],
      ['none', 'none'],
    ],
  },
  {
    id: 'asianlanguage',
    title: 'Asian language',
    on: 'text',
    attribute: 'style:language-asian',
    kind: 'choice',
    choices: [
      ['ja', 'Japanese'],
      ['zh', 'Chinese'],
      ['ko', 'Korean'],
      ['none', 'none'],
    ],
  },
  {
    id: 'hyphenation',
    title: 'Hyphenation',
    on: 'text',
    attribute: 'fo:hyphenate',
    kind: 'choice',
    choices: yes('true', 'on', 'off'),
  },
]

export const slotFields: readonly Field[] = [
  { id: 'size-asian', title: 'Asian size', on: 'text', attribute: 'style:font-size-asian', kind: 'length', step: 0.5 },
  {
    id: 'size-complex',
    title: 'Complex size',
    on: 'text',
    attribute: 'style:font-size-complex',
    kind: 'length',
    step: 0.5,
  },
]

export const paragraphFields: readonly Field[] = [
  {
    id: 'align',
    title: 'Alignment',
    on: 'paragraph',
    attribute: 'fo:text-align',
    kind: 'choice',
    choices: [
      ['start', 'left'],
      ['center', 'centred'],
      ['end', 'right'],
      ['justify', 'justified'],
    ],
  },
  {
    id: 'lastline',
    title: 'Last line',
    on: 'paragraph',
    attribute: 'fo:text-align-last',
    kind: 'choice',
    choices: [
      ['start', 'left'],
      ['center', 'centred'],
      ['justify', 'justified'],
    ],
  },
  { id: 'indent', title: 'First line', on: 'paragraph', attribute: 'fo:text-indent', kind: 'length', step: 1 },
  { id: 'left', title: 'From the left', on: 'paragraph', attribute: 'fo:margin-left', kind: 'length', step: 1 },
  { id: 'right', title: 'From the right', on: 'paragraph', attribute: 'fo:margin-right', kind: 'length', step: 1 },
  { id: 'before', title: 'Space before', on: 'paragraph', attribute: 'fo:margin-top', kind: 'length', step: 1 },
  { id: 'after', title: 'Space after', on: 'paragraph', attribute: 'fo:margin-bottom', kind: 'length', step: 1 },
  {
    id: 'keepnext',
    title: 'With the next',
    on: 'paragraph',
    attribute: 'fo:keep-with-next',
    kind: 'choice',
    choices: yes('always', 'kept', 'free'),
  },
  {
    id: 'keepwhole',
    title: 'In one piece',
    on: 'paragraph',
    attribute: 'fo:keep-together',
    kind: 'choice',
    choices: yes('always', 'kept whole', 'may be divided'),
  },
  { id: 'orphans', title: 'Orphans, lines', on: 'paragraph', attribute: 'fo:orphans', kind: 'number', step: 1 },
  { id: 'widows', title: 'Widows, lines', on: 'paragraph', attribute: 'fo:widows', kind: 'number', step: 1 },
  {
    id: 'break',
    title: 'Begins',
    on: 'paragraph',
    attribute: 'fo:break-before',
    kind: 'choice',
    choices: [
      ['auto', 'where it comes'],
      ['page', 'on a new page'],
      ['column', 'in a new column'],
    ],
  },
  { id: 'over', title: 'Line over', on: 'paragraph', attribute: 'fo:border-top', kind: 'choice', choices: border },
  { id: 'under', title: 'Line under', on: 'paragraph', attribute: 'fo:border-bottom', kind: 'choice', choices: border },
  {
    id: 'between',
    title: 'Lines between alike',
    on: 'paragraph',
    attribute: 'style:join-border',
    kind: 'choice',
    choices: [
      ['false', 'each has its own'],
      ['true', 'one for all'],
    ],
  },
  { id: 'padding', title: 'Lines keep off', on: 'paragraph', attribute: 'fo:padding', kind: 'length', step: 0.5 },
  { id: 'ground', title: 'Ground', on: 'paragraph', attribute: 'fo:background-color', kind: 'color' },
]

const linePlaces = (attribute: string): Field => ({
  id: 'stands',
  title: 'Text stands',
  on: 'holder',
  attribute,
  kind: 'choice',
  choices: [
    ['top', 'at the top'],
    ['middle', 'in the middle'],
    ['bottom', 'at the bottom'],
  ],
})
const padding: Field = {
  id: 'inset',
  title: 'Off the edge',
  on: 'holder',
  attribute: 'fo:padding',
  kind: 'length',
  step: 0.5,
}

/** What a frame or shape has around its text. */
export const frameFields: readonly Field[] = [
  {
    id: 'fill',
    title: 'Ground',
    on: 'holder',
    attribute: 'draw:fill',
    kind: 'choice',
    choices: [
      ['solid', 'one colour'],
      ['none', 'none'],
    ],
  },
  { id: 'fillcolor', title: 'Ground colour', on: 'holder', attribute: 'draw:fill-color', kind: 'color' },
  {
    id: 'stroke',
    title: 'Line',
    on: 'holder',
    attribute: 'draw:stroke',
    kind: 'choice',
    choices: [
      ['solid', 'drawn'],
      ['none', 'none'],
    ],
  },
  { id: 'strokecolor', title: 'Line colour', on: 'holder', attribute: 'svg:stroke-color', kind: 'color' },
  {
    id: 'strokewidth',
    title: 'Line width',
    on: 'holder',
    attribute: 'svg:stroke-width',
    kind: 'length',
    step: 0.25,
  },
  padding,
  linePlaces('draw:textarea-vertical-align'),
]

/** What a cell has around its text. */
export const cellFields: readonly Field[] = [
  { id: 'cellground', title: 'Ground', on: 'holder', attribute: 'fo:background-color', kind: 'color' },
  { id: 'cellborder', title: 'Line around', on: 'holder', attribute: 'fo:border', kind: 'choice', choices: border },
  padding,
  linePlaces('style:vertical-align'),
]
