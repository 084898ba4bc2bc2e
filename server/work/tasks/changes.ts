import { makeEdits } from '../../../core/change/make-edits'
import { applyAll } from '../../../core/document/apply'
import { editTitle } from '../../../core/document/edits'
import { openDocument, saveDocument } from '../../../core/document/open'
import { dropStale } from '../../../core/document/stale'
import { changeFinished } from '../../../core/format/finished/change'
import { begin, documentIds, refuseFinished } from './begin'
import { faceBytes, theSubsetter, theTypesetter } from './kept'
import type { Carriers } from './task'

/** What makes another version of a document. */
export const changeTasks: Carriers<'change' | 'edit' | 'finished'> = {
  async change(task, kinds) {
    const { request, partly, effects } = task
    const { plan, after } = kinds.plan(await begin(task), request, { partly, effects })
    const { operations, ...recorded } = plan
    return {
      plan: recorded,
      bytes: saveDocument(after.document),
      ids: documentIds(after.document, task.ids),
      changes: operations.length > 0,
    }
  },
  edit(task) {
    refuseFinished(task.bytes)
    const before = openDocument(task.bytes, { ids: task.ids })
    const edited = makeEdits(before, task.edits)
    const stale = dropStale(edited.document, new Set(task.edits.map(({ edit }) => edit.part)))
    const { document } = applyAll(edited.document, stale.operations)
    return {
      bytes: saveDocument(document),
      ids: documentIds(document, task.ids),
      title: editTitle(before, task.edits),
      said: stale.said,
    }
  },
  finished: task =>
    changeFinished(task.bytes, task.changes, {
      typesetter: theTypesetter(task.setting),
      load: faceBytes,
      subsetter: theSubsetter(),
    }),
}
