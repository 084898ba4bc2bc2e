import type { HandoffWorks } from '../../core/format/handoff/hand-off'
import type { Subsetter } from '../../core/format/pdf/subset'
import { packFace } from './font-file'
import { printingIntent, screenProfile } from './printing'

/** What handing on works with here: font files by their hashes, and the printing conditions of this machine. */
export const handoffWorks = (load: (hash: string) => Uint8Array | undefined, subsetter: Subsetter): HandoffWorks => ({
  load,
  subsetter,
  pack: packFace,
  condition: printingIntent,
  screen: screenProfile,
})
