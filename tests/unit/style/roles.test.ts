import { describe, expect, it } from 'vitest'
import { isMuchText, proposeRole, roleByName, type RoleSigns } from '../../../core/style/roles'

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
