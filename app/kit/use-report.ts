import { sentenceOf, useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import { saveAnswer } from './save-file'

/** Reports that the server makes of the document on the desk, with what was typed a moment ago. */
export function useReport() {
  const desk = useDesk()
  const words = useWords()
  const busy = ref(false)
  const failed = ref('')

  /** @param path behind the address of the document */
  async function make(path: string): Promise<void> {
    busy.value = true
    failed.value = ''
    try {
      await words.flush()
      const response = await fetch(`/api/documents/${desk.info!.document.id}/${path}`)
      if (!response.ok) throw Object.assign(new Error(), { data: await response.json() })
      await saveAnswer(response)
    } catch (error) {
      failed.value = sentenceOf(error)
    }
    busy.value = false
  }
  return { make, busy, failed }
}
