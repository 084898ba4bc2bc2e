import { describe, expect, it } from 'vitest'
import { isMuchText, nameHint, proposeRole, roleByName, type RoleSigns } from '../../../core/style/roles'

const plain: RoleSigns = {
  name: 'Style 7',
  size: 10,
  bodySize: 10,
  bold: false,
  characters: 2000,
  paragraphs: 10,
  most: false,
  share: 0.02,
  fixed: false,
  level: null,
  topLevel: 1,
  opens: false,
  entries: 0,
  place: 'body',
}
/** Paragraphs of so many letters. */
const long = (letters: number) => ({ characters: letters * 10, paragraphs: 10 })

describe('the role of a style without a name that says it', () => {
  it.each<[Partial<RoleSigns>, string | null]>([
    [{}, 'body'],
    [{ characters: 0 }, null],
    [{ paragraphs: 0 }, null],
    // Levels.
    [{ level: 1 }, 'heading'],
    [{ level: 2 }, 'subheading'],
    [{ level: 2, topLevel: 2 }, 'heading'],
    [{ level: 2, opens: true }, 'display'],
    [{ level: 1, characters: 0 }, 'heading'],
    [{ level: 3, characters: 0 }, 'subheading'],
    [{ level: 1, name: 'Caption' }, 'heading'],
    [{ level: 2, name: 'Caption' }, 'caption'],
    // Places.
    [{ place: 'note', size: 40 }, 'note'],
    [{ place: 'header', size: 40 }, 'label'],
    [{ place: 'chart', size: 40 }, 'label'],
    [{ place: 'table', size: 40 }, 'data'],
    [{ entries: 0.5 }, 'label'],
    [{ entries: 0.49 }, 'body'],
    [{ place: 'note', entries: 1 }, 'note'],
    // What most is, and what is set in one width.
    [{ most: true, size: 40, bodySize: 10 }, 'body'],
    [{ most: true, fixed: true }, 'body'],
    [{ fixed: true, size: 40 }, 'code'],
    // Sizes against the body's.
    [{ size: 22, ...long(89) }, 'display'],
    [{ size: 22, ...long(90) }, 'heading'],
    [{ size: 21.9, ...long(20) }, 'heading'],
    [{ size: 14, ...long(119) }, 'heading'],
    [{ size: 14, ...long(120) }, 'lead'],
    [{ size: 13.9, ...long(89) }, 'subheading'],
    [{ size: 13.9, ...long(90) }, 'lead'],
    [{ size: 11.2, ...long(20) }, 'subheading'],
    [{ size: 12.32, bodySize: 11, ...long(20) }, 'subheading'],
    [{ size: 11.1, ...long(89) }, 'body'],
    [{ size: 9, ...long(159) }, 'caption'],
    [{ size: 9, ...long(160) }, 'note'],
    [{ size: 9.1, ...long(20) }, 'body'],
    [{ size: 9, ...long(400), share: 0.04 }, 'body'],
    [{ size: 9, ...long(400), share: 0.039 }, 'note'],
    [{ size: 9, ...long(400), share: 0.04, place: 'frame' }, 'note'],
    // Weight and frames.
    [{ bold: true, ...long(89) }, 'subheading'],
    [{ bold: true, ...long(90) }, 'body'],
    [{ place: 'frame', ...long(39) }, 'label'],
    [{ place: 'frame', ...long(40) }, 'body'],
    [{ ...long(39) }, 'body'],
  ])('%j: %s', (signs, role) => {
    expect(proposeRole({ ...plain, ...signs })).toBe(role)
  })

  it('is that of text where there is much of it: a share and so many letters', () => {
    expect([isMuchText(0.04, 3000), isMuchText(0.039, 3000), isMuchText(0.04, 2999)]).toEqual([true, false, false])
  })
})

describe('the role that a name says', () => {
  it.each([
    ['Source code', 'code'],
    ['Codex', null],
    ['Table heading', 'label'],
    ['Contents 2', 'label'],
    ['Contents', null],
    ['Introduction', 'lead'],
    ['Bildunterschrift', 'caption'],
    ['Footnote', 'note'],
    ['Fußnote', 'note'],
    ['Subtitle', 'subheading'],
    ['Heading 2', 'subheading'],
    ['Heading 1', 'heading'],
    ['Title', 'display'],
    ['Timetable', 'data'],
    ['Kopfzeile', 'label'],
    ['Sail', null],
  ])('%s: %s', (name, role) => {
    expect(roleByName(name)).toBe(role)
  })
})

describe('roles', () => {
  const role = (more: Partial<RoleSigns>) => proposeRole({ ...plain, ...more })
  it('need text, and one letter in one paragraph is some', () => {
    expect(role({ characters: 0, paragraphs: 1 })).toBeNull()
    expect(role({ characters: 1, paragraphs: 0 })).toBeNull()
    expect(role({ characters: 1, paragraphs: 1 })).toBe('body')
    expect(role({ characters: 1, paragraphs: 1, size: 30 })).toBe('display')
    expect(role({ characters: 0, paragraphs: 0, level: 1 })).toBe('heading')
    expect(role({ characters: 0, paragraphs: 0, level: 2 })).toBe('subheading')
  })
  it('know code by its face of one width, unless all text is set so', () => {
    expect(role({ fixed: true })).toBe('code')
    expect(role({ fixed: true, most: true })).toBe('body')
    expect(role({ fixed: true, place: 'note' })).toBe('note')
    for (const name of ['P_code', 'verbatim', 'Boxed Source', 'Preformatted Text', 'Quelltext'])
      expect([name, role({ name })]).toEqual([name, 'code'])
    for (const name of ['Encoded', 'Resources', 'Codex']) expect([name, role({ name })]).not.toEqual([name, 'code'])
  })
  it('know lists of contents by their pages, and heads of tables by their name', () => {
    expect(role({ entries: 0.8 })).toBe('label')
    expect(role({ entries: 0.2 })).toBe('body')
    expect(role({ name: 'Contents 2' })).toBe('label')
    expect(role({ name: 'Contents Heading' })).toBe('heading')
    expect(role({ name: 'Table Heading' })).toBe('label')
  })
  it('take small text for an aside only where there is little of it', () => {
    expect(role({ size: 8, characters: 500, share: 0.02 })).toBe('caption')
    expect(role({ size: 8, characters: 500, share: 0.1 })).toBe('caption')
    expect(role({ size: 8, characters: 4000, paragraphs: 50, share: 0.1 })).toBe('body')
    expect(role({ size: 8, characters: 4000, paragraphs: 50, share: 0.02 })).toBe('caption')
    expect(role({ size: 8, characters: 4000, paragraphs: 50, share: 0.1, place: 'frame' })).toBe('caption')
  })
  it('follow a name that says one', () => {
    expect(role({ name: 'Lead', characters: 100 })).toBe('lead')
    expect(role({ name: 'Picture caption' })).toBe('caption')
    expect(role({ name: 'Footnote' })).toBe('note')
  })
  it('come with a hint where a name says nothing', () => {
    for (const name of ['Style1', 'P12', 'Absatz 3', 'Untitled', 'Copy of Body', 'Arial 12 pt bold', 'WW-Standard'])
      expect([name, nameHint(name)]).not.toEqual([name, null])
    for (const name of ['Body', 'Heading 1', 'Timetable figures', 'Small print'])
      expect([name, nameHint(name)]).toEqual([name, null])
  })
})
