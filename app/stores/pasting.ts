import { defineStore } from 'pinia'
import type { Edit } from '~~/core/document/edits'
import { pasteBlocks, pastePlain } from '~~/core/format/paste'
import { readHtml } from '~~/core/format/html/read'
import { useDesk } from './desk'
import { useWays } from './ways'
import { useWords } from './words'

/**
 * What is pasted, and how: as plain text in the style at the caret, or with its structure in the document's own
 * styles.
 */
export const usePasting = defineStore('pasting', () => {
  const desk = useDesk()
  const words = useWords()
  const way = useWays().way('paste')
  /** What waits for an answer. */
  const asked = shallowRef<{ text: string; html: string } | null>(null)

  function take(text: string, html: string): void {
    if (text === '' && html === '') return
    // A piece of one paragraph has no structure to ask about.
    const hasStructure = html !== '' && readHtml(html).blocks.length > 1
    if (!hasStructure || way.value === 'plain') {
      void words.act(() => put('plain', text, html))
      return
    }
    if (way.value === 'structure') {
      void words.act(() => put('structure', text, html))
      return
    }
    asked.value = { text, html }
  }

  async function answer(next: 'plain' | 'structure' | null, always: boolean): Promise<void> {
    const waiting = asked.value
    asked.value = null
    if (!waiting || next === null) return
    if (always) way.value = next
    await words.act(() => put(next, waiting.text, waiting.html))
  }

  async function put(how: 'plain' | 'structure', text: string, html: string): Promise<void> {
    const { engine } = desk
    const gone = words.removal()
    if (!engine || !gone) return
    const styles = await engine.ask('styles', {})
    const { edits, last } =
      how === 'plain'
        ? pastePlain(
            gone.at,
            text ||
              readHtml(html)
                .blocks.map(block => ('runs' in block ? block.runs.map(run => run.text).join('') : ''))
                .join('\n'),
          )
        : pasteBlocks(gone.at, readHtml(html).blocks, styles)
    const all: Edit[] = [...gone.edits, ...edits]
    await words.edit(all, made =>
      made === null ? { ...gone.at, offset: gone.at.offset + last } : { part: gone.at.part, node: made, offset: last },
    )
    await words.reveal()
  }

  return { way, asked, take, answer }
})
