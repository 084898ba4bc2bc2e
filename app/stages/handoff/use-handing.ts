import { saveAnswer } from '../../kit/save-file'

/** What came of handing on, as the server tells it. */
export interface HandedNotes {
  readonly said: readonly string[]
  readonly left: readonly string[]
}

interface Refusal {
  readonly message?: string
  readonly data?: { readonly fault?: string }
}

/** Has something made of a document, and saves it as a file. One for each thing that can be made. */
export function useHanding() {
  const making = ref(false)
  const refused = ref('')
  /** It was a licence that stood in the way: only then is there a choice to leave faces out. */
  const mayNotEmbed = ref(false)
  const made = ref<HandedNotes | null>(null)

  async function hand(path: string, body: object): Promise<void> {
    making.value = true
    refused.value = ''
    made.value = null
    try {
      const response = await fetch(path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
      if (!response.ok) {
        const refusal = (await response.json()) as Refusal
        mayNotEmbed.value ||= refusal.data?.fault === 'may-not-embed'
        throw new Error(refusal.message ?? 'This could not be made. The document is as it was.')
      }
      await saveAnswer(response)
      made.value = JSON.parse(
        decodeURIComponent(response.headers.get('x-handoff-notes') ?? 'null'),
      ) as HandedNotes | null
    } catch (error) {
      refused.value = error instanceof Error ? error.message : String(error)
    }
    making.value = false
  }
  return { making, refused, mayNotEmbed, made, hand }
}
