/*
 * Words of the desk's own and what they mean, for where they first stand on a screen and for the page of all words.
 * Words of the trade (leading, tracking, overset) are not explained: who works here knows them.
 */
export const glossary = {
  voice: {
    title: 'Voice',
    says:
      'One distinct appearance of text: family, face, size, leading, tracking, case, colour and script. What a reader ' +
      'sees, whichever style or formatting set it.',
  },
  census: {
    title: 'Census',
    says: 'All voices and faces of a document, or of all documents: how much text, where, and which style owns each.',
  },
  settled: {
    title: 'Settled',
    says:
      'Text that would look the same if everything set by hand were taken away. The settled share is how much of all ' +
      'text, by characters, is so.',
  },
  stray: { title: 'Stray', says: 'Something set by hand that departs from what the named styles say.' },
  twins: { title: 'Twins', says: 'Two voices so near to each other that a reader cannot tell them apart.' },
  absent: { title: 'Absent', says: 'A face that the document names and the library does not have.' },
  standIn: {
    title: 'Stand-in',
    says: 'The face that shows text whose own face is absent. It never changes the file.',
  },
  remark: {
    title: 'Remark',
    says:
      'What somebody says of a place in a document, or of all of it. It is kept beside the document and changes nothing ' +
      'in it.',
  },
  ownWords: {
    title: 'Own words',
    says: 'The words that every face of a list is drawn with, so that faces are chosen by what they will say.',
  },
  fitness: {
    title: 'Fit for',
    says:
      'What a face may be asked to do, proposed from its measures, with what speaks for it or against it. A judgement, ' +
      'and no rule.',
  },
  licenceByUse: {
    title: 'Licence by use',
    says:
      'What the font file says of each use: by the licence that it names, by its sentences, by its embedding bits. What it ' +
      'does not say is “not stated”.',
  },
  pair: {
    title: 'Pair',
    says: 'Faces for two roles or more, with the reasons they work: what speaks for them and against them, with figures.',
  },
  shortlist: { title: 'Shortlist', says: 'The few families that are being compared, eight at the most.' },
  adopt: { title: 'Adopt', says: 'Make a style of how some text looks, and give it to that text.' },
  teach: { title: 'Teach', says: 'Let a style take over how some text looks.' },
  house: {
    title: 'House',
    says: 'A brand’s rules as data, with versions: faces by role, sizes, colours and limits. Documents are brought to it by plan.',
  },
  palette: {
    title: 'Palette',
    says: 'Colours by what they do: ground, text, quiet text, accent, warning, chart series.',
  },
  finding: {
    title: 'Finding',
    says: 'What a check found at a place, with how much it matters: errors are wrong, warnings deserve a look, notes are told.',
  },
  putRight: {
    title: 'Put right',
    says: 'By a plan that mends what was found: in the style that says it, where one does, else at the place.',
  },
  accept: {
    title: 'Accept',
    says: 'A finding stays as it is, with a reason, and is not told again until the words of its place change.',
  },
  checklist: {
    title: 'Checklist',
    says: 'Which checks a proof runs, how much each matters, and by which limits: the desk’s own, or that of a document’s house.',
  },
  toStyle: {
    title: 'To style',
    says: 'Text is to style where it is as its house says. Text of no known role counts as not.',
  },
  dress: { title: 'Dress', says: 'Bring a document to its house, or to another, by plan.' },
  drawUp: {
    title: 'Draw up',
    says: 'Make the named styles that a document lacks, from its voices, so that it looks the same and is settled.',
  },
  settle: { title: 'Settle', says: 'Take away what was set by hand, so that the styles alone say how text looks.' },
  fold: { title: 'Fold', says: 'Replace one style by another wherever it is used, and drop it.' },
  why: {
    title: 'Why it looks so',
    says: 'For one property of one character: every layer that had a say in it, and which one won.',
  },
  swap: {
    title: 'Swap',
    says: 'One face or family gives way to another wherever it stands: text, styles, defaults, charts, notes, masters.',
  },
  recast: { title: 'Recast', says: 'Find text by its words and its look, and change either, by plan.' },
  plan: {
    title: 'Plan',
    says:
      'Everything a change would do, place by place, before it is done: what it does to the pages, and what stays and ' +
      'why. It is carried out as one version, and undone by one step.',
  },
  leaveOut: { title: 'Leave out', says: 'Keep a place of a plan as it is.' },
  repair: {
    title: 'Repair',
    says: 'A small change that puts right what a plan would do to a page, tried on the pages and gentlest first.',
  },
  defaults: { title: 'Defaults', says: 'What new text begins with, in each kind of thing that can hold text.' },
  role: {
    title: 'Role',
    says:
      'What text does: display, heading, subheading, intro, body, caption, label, data or note. Given by its style, or ' +
      'proposed from measures and confirmed.',
  },
  rule: {
    title: 'Pattern rule, lead-in rule',
    says: 'What a paragraph style gives to part of its text: to whatever answers to a pattern, or to how a paragraph begins.',
  },
  trash: {
    title: 'Trash',
    says: 'Where documents lie that were thrown away, with all their versions, until their day comes or they are put back.',
  },
  keptFrame: {
    title: 'Kept frame',
    says: 'A frame with its text and styles that is kept, to be put into any document.',
  },
  record: { title: 'Record', says: 'What a plan did, place by place, kept with the version that it made.' },
  offPage: { title: 'Off-page', says: 'Outside the edges of the page: it is in the file, and is not printed.' },
} as const satisfies Readonly<Record<string, { readonly title: string; readonly says: string }>>

export type GlossaryWord = keyof typeof glossary

/** Keys by where they act. */
export const keyGroups: readonly {
  readonly title: string
  readonly keys: readonly (readonly [key: string, does: string])[]
}[] = [
  {
    title: 'Everywhere',
    keys: [['?', 'words and keys: this page']],
  },
  {
    title: 'In a document',
    keys: [
      ['Ctrl F', 'find words'],
      ['Ctrl Z, Ctrl Y', 'undo, redo'],
      ['Ctrl +, Ctrl −, Ctrl 0', 'larger, smaller, fit the page'],
      ['N, Shift N', 'the next place of what is walked, the one before'],
      ['M', 'marks on the pages, on or off'],
      ['W', 'white space shown or not'],
      ['G', 'baseline grid shown or not'],
      ['Escape', 'let go of what is chosen'],
      ['Alt 1 to Alt 9', 'the style that has this key, on the selected words'],
      ['Alt S', 'search styles; Enter applies the first one found'],
    ],
  },
  {
    title: 'On the sheets',
    keys: [
      ['Page down, Page up', 'the next page, the one before'],
      ['Home, End', 'the first page, the last'],
      ['Enter', 'the caret goes into the text'],
      ['Alt click', 'choose the frame instead of its words'],
    ],
  },
  {
    title: 'In the text',
    keys: [
      ['Arrows', 'move the caret; with Ctrl by words, with Shift they select'],
      ['Home, End', 'the start of the line, its end; with Ctrl of the text'],
      ['Ctrl A', 'all words of this text'],
      ['Double click, triple click', 'the word, the paragraph'],
      ['Escape', 'from the words to their frame, then out'],
    ],
  },
  {
    title: 'With a frame chosen',
    keys: [
      ['Arrows', 'move it by a millimetre; with Alt by a tenth of a point'],
      ['Shift arrows', 'change its size'],
      ['Delete', 'take it away'],
    ],
  },
  {
    title: 'On a walk through the pages of a plan',
    keys: [
      ['→, ←', 'the next page, the one before'],
      ['↓, ↑', 'the next place on the page, the one before'],
      ['A', 'accept the page'],
      ['L', 'leave the place out'],
      ['R', 'look for repairs; 1 to 4 takes one'],
    ],
  },
]
