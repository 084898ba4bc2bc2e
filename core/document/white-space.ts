import { escapeText } from '../xml/edit'

/** What text is written as: character data, or an element for what it cannot hold (ODF 1.4 part 3, 6.1.2 ff.). */
export type Token =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'spaces'; readonly count: number }
  | { readonly kind: 'tab' | 'break' }

/**
 * Text as tokens. A first space behind anything but a space is a character; every other one would collapse and is an
 * element. `opens`: what stands before it swallows a space; `closes`: what stands behind it does.
 */
export function tokens(text: string, opens: boolean, closes: boolean): Token[] {
  const list: Token[] = []
  const put = (more: string) => {
    const last = list.at(-1)
    if (last?.kind === 'text') list[list.length - 1] = { kind: 'text', text: last.text + more }
    else if (more !== '') list.push({ kind: 'text', text: more })
  }
  for (const match of text.matchAll(/ +|\t|\n|[^ \t\n]+/g)) {
    const [piece] = match
    if (piece === '\t') list.push({ kind: 'tab' })
    else if (piece === '\n') list.push({ kind: 'break' })
    else if (!piece.startsWith(' ')) put(piece)
    else {
      const swallowed =
        (match.index === 0 && opens) || (match.index + piece.length === text.length && closes && piece.length === 1)
      if (!swallowed) put(' ')
      const count = piece.length - (swallowed ? 0 : 1)
      if (count > 0) list.push({ kind: 'spaces', count })
    }
  }
  return list
}

/**
 * A paragraph's whole text, or a part of it, as XML of a new part. `before` and `after` are what stands beside it,
 * '' at the ends.
 */
export function writtenText(text: string, before = '', after = ''): string {
  return tokens(text, before === '' || before.endsWith(' '), after === '' || after.startsWith(' '))
    .map(token => {
      switch (token.kind) {
        case 'text':
          return escapeText(token.text)
        case 'spaces':
          return token.count === 1 ? '<text:s/>' : `<text:s text:c="${token.count}"/>`
        case 'tab':
          return '<text:tab/>'
        case 'break':
          return '<text:line-break/>'
      }
    })
    .join('')
}
