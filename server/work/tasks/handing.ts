import { writeBundle, type BundledDocument } from '../../../core/format/handoff/bundle'
import { handOff } from '../../../core/format/handoff/hand-off'
import { isPdf } from '../../../core/format/finished/sections'
import { recordPdf } from '../../../core/format/pdf/record'
import { begin } from './begin'
import { reportWorks, works } from './kept'
import type { Carriers } from './task'

/** What goes out: documents as something else, with what they need, and the record of what was changed. */
export const handingTasks: Carriers<'handoff' | 'bundle' | 'record'> = {
  handoff: async task => handOff(await begin(task), task.request, task.context, works()),
  async bundle(task) {
    const documents: BundledDocument[] = []
    for (const { fileName, records, uses, ...content } of task.documents)
      documents.push({
        fileName,
        records,
        uses,
        bytes: content.bytes,
        session: isPdf(content.bytes) ? null : await begin(content),
      })
    return writeBundle(documents, task.context, works())
  },
  async record(task) {
    const [before, after] = [await begin(task.before), await begin(task.after)]
    return recordPdf(task.recorded, task.of, before, after, reportWorks(task.made))
  },
}
