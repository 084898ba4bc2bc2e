import { openDocument } from '../../../core/document/open'
import { openPdf } from '../../../core/format/finished/open'
import { isPdf } from '../../../core/format/finished/sections'
import { fromTemplate } from '../../../core/format/odf/from-template'
import { writeReadText } from '../../../core/format/odf/new-document'
import { readForeign } from '../../../core/format/read'
import { unzip } from '../unpacking'
import { refuseFinished } from './begin'
import type { Carriers } from './task'

/** Files as they come in: what they are, and what is made of those that are none of the desk's own. */
export const fileTasks: Carriers<'check' | 'unzip' | 'convert' | 'copy'> = {
  async check({ bytes }) {
    if (isPdf(bytes)) {
      const { signed, title } = await openPdf(bytes)
      return { kind: 'finished', signed, title }
    }
    const { kind, signed, title } = openDocument(bytes)
    return { kind, signed, title }
  },
  unzip: ({ bytes }) => unzip(bytes),
  convert({ fileName, bytes }) {
    const read = readForeign(fileName, bytes)
    return { bytes: writeReadText(read, fileName.replace(/\.\w+$/, '')), left: read.left }
  },
  copy({ bytes }) {
    refuseFinished(bytes)
    return fromTemplate(bytes)
  },
}
