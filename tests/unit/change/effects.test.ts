import { describe, expect, it } from 'vitest'
import type { Edit } from '../../../core/document/edits'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { makeEdit } from '../../../core/change/make-edits'
import { recordCsv } from '../../../core/change/record-csv'
import { paragraphRuns } from '../../../core/style/runs'
import { paragraphExtents } from '../../../core/typeset/compose'
import { demoDocuments } from '../../../demo/documents'
import type { DocumentSession } from '../../../core/session'
import { library, session } from '../../support/fixtures'
import { planned, swap } from '../../support/planning'

/** The pages of a file, read and set anew: lines by paragraph, what runs over, pages. */
const shownBy = (of: DocumentSession) => ({
  pages: of.composition.pages.length,
  overset: of.composition.overset.map(frame => [frame.page, frame.name, frame.lines]),
  lines: [...paragraphExtents(of.composition).values()].reduce((sum, extent) => sum + extent.lines, 0),
})

describe.each(demoDocuments.filter(({ fileName }) => !fileName.startsWith('Crew')))(
  '$fileName: what a plan says is what the pages show, to the line',
  ({ make }) => {
    const bytes = make()
    const of = session(bytes)
    const families = [
      ...new Set(of.detail.census.faces.filter(face => face.status !== 'unnamed').map(face => face.family)),
    ]
    const sizes = [undefined, { mode: 'x-height' as const }, { mode: 'lines' as const }]
    it.each(families.slice(0, 3).flatMap((family, index) => [[family, sizes[index % 3]] as const]))(
      '%s gives way, size %j',
      (family, size) => {
        const { plan, after } = planned(of, [
          swap(family, family === 'Literata' ? 'Work Sans' : 'Literata', {
            size,
            leading: size ? 'follow' : undefined,
          }),
        ])
        const shown = shownBy(session(saveDocument(after.document)))
        expect(shown.pages).toBe(plan.effects!.pagesAfter)
        expect(shown.lines).toBe(plan.effects!.linesAfter)
        expect(shown.overset).toEqual(plan.effects!.overset.map(frame => [frame.page, frame.name, frame.lines]))
        // The room of frames is that of the pages, to a tenth of a point.
        const roomIn = ({ composition }: DocumentSession, frame: { part: string; node: number }) =>
          composition.fills.find(fill => fill.part === frame.part && fill.node === frame.node)!.room.toFixed(1)
        for (const frame of plan.effects!.frames)
          expect([frame.roomBefore.toFixed(1), frame.roomAfter.toFixed(1)]).toEqual([
            roomIn(of, frame),
            roomIn(after, frame),
          ])
        // Each is told on the page where it lies, and not here where its text runs over.
        const pageOf = (node: number, view: 'pages' | 'notes') =>
          of.composition[view].find(page => page.fragments.some(each => each.kind === 'frame' && each.node === node))
            ?.index
        for (const { node, page, notes } of plan.effects!.frames)
          expect([page, notes]).toEqual([pageOf(node, notes ? 'notes' : 'pages'), pageOf(node, 'pages') === undefined])
        const over = new Set(after.composition.fills.filter(fill => fill.over).map(fill => fill.node))
        expect(plan.effects!.frames.filter(frame => over.has(frame.node))).toEqual([])
        // Every paragraph that is told changes as it is told.
        const [was, is] = [paragraphExtents(of.composition), paragraphExtents(after.composition)]
        for (const each of plan.effects!.paragraphs.filter(effect => !effect.notes))
          expect([was.get(each.node)!.lines, is.get(each.node)!.lines]).toEqual([each.linesBefore, each.linesAfter])
      },
    )
    it('a recast of look and words', () => {
      const { plan, after } = planned(of, [
        {
          type: 'recast',
          find: { look: { family: families[0] } },
          change: { size: { percent: 108 }, tracking: 10 },
        },
      ])
      const shown = shownBy(session(saveDocument(after.document)))
      expect([shown.pages, shown.lines]).toEqual([plan.effects!.pagesAfter, plan.effects!.linesAfter])
    })
  },
)

describe('records and wishes', () => {
  const of = session(demoDocuments.find(({ fileName }) => fileName.startsWith('Season'))!.make())
  it('speaker notes that change their lines are told as such', () => {
    const { plan, after } = planned(of, [swap('Skerrow', 'Space Mono')])
    const notes = plan.effects!.paragraphs.filter(each => each.notes)
    expect(notes.length).toBeGreaterThan(0)
    expect(notes.every(each => !each.title && each.page >= 0)).toBe(true)
    // A page of notes stays the page of its slide.
    for (const each of notes) expect(each.pageAfter).toBe(each.page)
    // Each is told on the pages where it stands before and after.
    const pagesOf = ({ composition }: DocumentSession) => paragraphExtents(composition, 'notes')
    const [were, are] = [pagesOf(of), pagesOf(after)]
    for (const each of notes)
      expect([each.page, each.pageAfter]).toEqual([were.get(each.node)!.pages[0], are.get(each.node)!.pages[0]])
    expect(plan.groups.filter(group => group.style.startsWith('Chart')).length).toBeGreaterThan(0)
    const csv = recordCsv(plan, { fileName: 'review.odp', version: 2, made: new Date(0) })
    const rows = csv.trim().split('\r\n')
    expect(rows.filter(row => row.startsWith('place,'))).toHaveLength(plan.rows.length)
    expect(rows.filter(row => row.startsWith('face,'))).toHaveLength(plan.mappings.length)
    expect(rows[1]).toContain('"review.odp, version 2"')
  })
  it('after the retired face is gone a new shape and a new text frame come up in faces that are here', () => {
    const { after } = planned(of, [swap('Skerrow', 'Work Sans')])
    const part = after.document.parts.get('content.xml')!
    const page = [...part.descendants()].find(element => element.name === 'draw:page')!.id
    const place = { x: 40, y: 40, width: 160, height: 60 }
    for (const edit of [
      { type: 'add-shape', part: 'content.xml', node: page, place },
      { type: 'add-frame', part: 'content.xml', node: page, place, text: { columns: 1, gap: 0, inset: 0 } },
    ] satisfies Edit[]) {
      const made = makeEdit(after.document, edit, part.nextId)
      const inside = made.document.parts.get('content.xml')!
      const paragraph = [...inside.descendants(inside.element(made.made!))].find(
        element => element.name === 'text:p',
      )!.id
      const written = makeEdit(
        made.document,
        { type: 'text', part: 'content.xml', node: paragraph, from: 0, to: 0, text: 'new' },
        inside.nextId,
      )
      const again = session(saveDocument(written.document))
      const faces = again.reading.stories.flatMap(story =>
        paragraphsOf(story.blocks).flatMap(each => {
          const { text, runs } = paragraphRuns(each, again.reading.cascade, story.role)
          return text === 'new' ? runs.map(run => run.style.effective.slots.western.font.family) : []
        }),
      )
      expect(faces.length, edit.type).toBe(1)
      expect(faces[0], edit.type).not.toBe('Skerrow')
      expect(library.family(faces[0]!).length, edit.type).toBeGreaterThan(0)
      expect(again.absent.faces.some(face => face.family === 'Skerrow')).toBe(false)
    }
  })
  it('of many documents each is asked what it can be', () => {
    const wishes = [swap('Skerrow', 'Inter'), swap('Nobody', 'Jost')]
    const partly = { effects: false, partly: true }
    expect(planned(of, wishes, [], partly).plan.request.wishes).toHaveLength(1)
    expect(() => planned(of, wishes.slice(1), [], partly)).toThrow('nothing that any of the wishes is about')
    expect(() => planned(of, wishes)).toThrow('not named anywhere')
  })
})
