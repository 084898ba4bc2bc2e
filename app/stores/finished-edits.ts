import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { changedStretch } from '~~/core/format/finished/wish'
import type { WishedChange } from '~~/core/format/finished/wish'
import type { PageBox } from '~~/core/format/finished/page-view'
import type { ShownLine } from '~~/core/format/finished/reader'
import { useFinished } from './finished'

/** What added text is set with; what nobody has said yet goes by the defaults. */
export interface AddedDraft {
  text: string
  family: string
  size: number
  leading: number | null
  weight: number
  italic: boolean
  color: string
}

/** So long after the last key what was meant is tried on the pages. Milliseconds. */
const rest = 350

/** What is being written on a finished PDF: text that is to be added, or a line that is to be put right. */
export const useFinishedEdits = defineStore('finished-edits', () => {
  const finished = useFinished()
  /** Where text is to be added: pages count from 1, lengths in points. */
  const frame = ref<(PageBox & { readonly page: number }) | null>(null)
  const draft = ref<AddedDraft | null>(null)
  const picked = shallowRef<{ readonly page: number; readonly line: ShownLine } | null>(null)
  /** The picked line as it shall be. */
  const words = ref('')

  const addition = computed((): WishedChange | null => {
    if (!frame.value || !draft.value || draft.value.text.trim() === '') return null
    const { page, x, y, width, height } = frame.value
    return {
      type: 'add-text',
      page,
      x,
      y,
      // A press without a drag is a place, not a frame.
      width: width >= 8 ? width : null,
      height: height >= 8 ? height : null,
      ...draft.value,
      language: '',
    }
  })
  const correction = computed((): WishedChange | null => {
    if (!picked.value) return null
    const stretch = changedStretch(picked.value.line.text, words.value)
    return stretch && { type: 'put-right', page: picked.value.page, line: picked.value.line.line, ...stretch }
  })

  const tryOut = useDebounceFn((change: WishedChange | null) => {
    if (change) void finished.look([change])
    else finished.dropTrial()
  }, rest)

  /** Begins a text with what holds for this file. */
  function begin(): void {
    const { family, size, leading, weight, italic, color } = finished.start
    draft.value = { text: draft.value?.text ?? '', family, size, leading, weight, italic, color }
  }
  function pick(page: number, line: ShownLine, becomes = line.text): void {
    finished.dropTrial()
    picked.value = { page, line }
    words.value = becomes
  }
  function leave(): void {
    frame.value = null
    picked.value = null
    words.value = ''
    if (draft.value) draft.value.text = ''
    finished.dropTrial()
  }
  async function make(change: WishedChange): Promise<void> {
    if (await finished.make([change])) leave()
  }
  return { frame, draft, picked, words, addition, correction, tryOut, begin, pick, leave, make }
})
