import type { Subsetter } from '../../../core/format/pdf/subset'
import type { ReportWorks } from '../../../core/format/pdf/report-file'
import { Library } from '../../../core/font/library'
import { Typesetter } from '../../../core/typeset/look'
import { Shaper } from '../../../core/typeset/shaper'
import { readAddedFace, readList } from '../../library/added'
import { startHarfBuzz, startSubsetter } from '../../library/harfbuzz'
import { handoffWorks } from '../../library/handoff-works'
import { shippedLibrary } from '../../library/shipped'
import type { TypeSetting } from './task'

let shipped: ReturnType<typeof shippedLibrary> | null = null
/** Typesetters by what they set with; the last few are kept, since most documents share one. */
const typesetters = new Map<string, Typesetter>()
const keptTypesetters = 3
let subsetter: Subsetter | null = null
/** Words that a thread keeps before it begins anew: they come from every document that passes through it. */
const keptWords = 300_000

/** The bytes of a face: of one that ships, or of one that was added, which whoever gave the task laid ready. */
export function faceBytes(hash: string): Uint8Array | undefined {
  return (shipped ??= shippedLibrary()).load(hash) ?? readAddedFace(hash)
}

export const theSubsetter = () => (subsetter ??= startSubsetter())
export const works = () => handoffWorks(faceBytes, theSubsetter())
/** Reports are set in faces that ship, whatever the document is set in. */
export const reportWorks = (made: number): ReportWorks => ({
  typesetter: theTypesetter(),
  load: faceBytes,
  subsetter: theSubsetter(),
  made,
})

export function theTypesetter(setting?: TypeSetting): Typesetter {
  const key = JSON.stringify(setting ?? null)
  let own = typesetters.get(key)
  typesetters.delete(key)
  if (!own || own.words.count > keptWords) {
    const { library } = (shipped ??= shippedLibrary())
    const added = setting?.faces ? readList(setting.faces) : []
    own = new Typesetter(
      setting === undefined ? library : new Library([...library.faces, ...added], setting.standIns),
      new Shaper(startHarfBuzz(), faceBytes),
    )
  }
  typesetters.set(key, own)
  for (const old of [...typesetters.keys()].slice(0, -keptTypesetters)) typesetters.delete(old)
  return own
}
