import { PackageError } from '../package/errors'
import type { ReadText } from './blocks'
import { readHtml } from './html/read'
import { readMarkdown } from './markdown/read'
import { readText } from './text/read'

/** Formats that become OpenDocument texts, by the ends of file names. */
const formats: Readonly<Record<string, (source: string) => ReadText>> = {
  txt: readText,
  text: readText,
  md: readMarkdown,
  markdown: readMarkdown,
  html: readHtml,
  htm: readHtml,
  xhtml: readHtml,
}

/** Texts larger than this are not converted, in bytes. */
export const textLimit = 20 * 1024 * 1024

export const isConvertible = (fileName: string): boolean =>
  (/\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase() ?? '') in formats

/** What Windows-1252 has from 0x80 to 0x9F; some runtimes decode it as Latin-1. */
const upper = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008DŽ\u008F\u0090‘’“”•–—˜™š›œ\u009DžŸ'

function windows1252(bytes: Uint8Array): string {
  let text = ''
  for (let from = 0; from < bytes.length; from += 0x8000)
    text += String.fromCharCode(...bytes.subarray(from, from + 0x8000))
  return text.replace(/[\u0080-\u009F]/g, sign => upper[sign.charCodeAt(0) - 0x80]!)
}

/** Text as the encodings that occur write it: UTF-8, UTF-16 with its mark, else Windows-1252 (WHATWG Encoding, 9.1). */
function decode(bytes: Uint8Array): { readonly text: string; readonly guessed: boolean } {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), guessed: false }
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), guessed: false }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), guessed: false }
  } catch {
    return { text: windows1252(bytes), guessed: true }
  }
}

/**
 * Reads a plain text, Markdown or HTML file by the end of its name.
 * @throws PackageError where it is empty, too large or no text
 */
export function readForeign(fileName: string, bytes: Uint8Array): ReadText {
  const format = formats[/\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase() ?? '']
  if (!format)
    throw new PackageError(
      'unsupported',
      'Files of this kind are not read here: texts, Markdown, HTML and OpenDocument are. Nothing was kept.',
    )
  if (bytes.length === 0) throw new PackageError('empty', 'This file is empty. Nothing was kept.')
  if (bytes.length > textLimit)
    throw new PackageError(
      'too-large',
      `This text is larger than ${textLimit / 1048576} MB, the most that is converted. Nothing was kept.`,
    )
  const { text, guessed } = decode(bytes)
  if (text.includes('\u0000'))
    throw new PackageError('not-text', 'This file has a text’s name, but it is no text. Nothing was kept.')
  const read = format(text)
  return guessed
    ? { ...read, left: [...read.left, { what: 'the encoding was not told: it was read as Windows-1252', count: 1 }] }
    : read
}
