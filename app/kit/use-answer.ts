import { sentenceOf } from '../stores/desk'
import { saveAnswer } from './save-file'

/** Files that the server makes when they are asked for: saved when they come, with why not where they do not. */
export function useAnswer() {
  const busy = ref(false)
  const failed = ref('')

  /** @param before what has to be done first */
  async function take(address: string, before: () => Promise<unknown> = () => Promise.resolve()): Promise<void> {
    busy.value = true
    failed.value = ''
    try {
      await before()
      const response = await fetch(address)
      if (!response.ok) throw Object.assign(new Error(), { data: await response.json() })
      await saveAnswer(response)
    } catch (error) {
      failed.value = sentenceOf(error)
    }
    busy.value = false
  }
  return { take, busy, failed }
}
