import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import { useAnswer } from './use-answer'

/** Reports that the server makes of the document on the desk, with what was typed a moment ago. */
export function useReport() {
  const desk = useDesk()
  const words = useWords()
  const { take, busy, failed } = useAnswer()
  /** @param path behind the address of the document */
  const make = (path: string) => take(`/api/documents/${desk.info!.document.id}/${path}`, () => words.flush())
  return { make, busy, failed }
}
