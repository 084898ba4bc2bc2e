import { Parser } from 'htmlparser2'
import type { ReadBlock, ReadRun, ReadText } from '../blocks'

const silent: ReadonlySet<string> = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'head',
  'iframe',
  'object',
  'svg',
  'math',
  'select',
  'textarea',
  'button',
  'audio',
  'video',
  'canvas',
])
const blockNames: ReadonlySet<string> = new Set([
  'p',
  'div',
  'section',
  'article',
  'main',
  'header',
  'footer',
  'aside',
  'nav',
  'figure',
  'figcaption',
  'address',
  'form',
  'fieldset',
  'dl',
  'dt',
  'dd',
  'details',
  'summary',
  'body',
  'html',
  'center',
  'legend',
  'hgroup',
])
const depthLimit = 200
const blockLimit = 100_000

interface Open {
  readonly name: string
  readonly strong: boolean
  readonly emphasis: boolean
  readonly code: boolean
  readonly href: string | null
  readonly pre: boolean
  readonly silent: boolean
}

const bold = (style: string) => /font-weight\s*:\s*(bold|[6-9]00)/i.test(style)
const italic = (style: string) => /font-style\s*:\s*(italic|oblique)/i.test(style)
const safe = (href: string | undefined) => (href !== undefined && /^(https?:|mailto:|#)/i.test(href) ? href : null)

/** Gathers blocks from the tags as they come (HTML Living Standard, 13.2: the parser mends what is broken). */
class BlockReader {
  readonly blocks: ReadBlock[] = []
  title = ''
  language = ''
  readonly left = new Map<string, number>()
  private readonly open: Open[] = [
    { name: '', strong: false, emphasis: false, code: false, href: null, pre: false, silent: false },
  ]
  private runs: ReadRun[] = []
  private readonly lists: boolean[] = []
  private heading = 0
  private quotes = 0
  private itemOpen = false
  private style: string | null = null
  private table: { head: number; rows: ReadRun[][][] } | null = null
  private cell: ReadRun[] | null = null
  private inTitle = false
  private overflow = 0

  private get at(): Open {
    return this.open[this.open.length - 1]!
  }

  private leave(what: string): void {
    this.left.set(what, (this.left.get(what) ?? 0) + 1)
  }

  private put(block: ReadBlock): void {
    if (this.blocks.length < blockLimit) this.blocks.push(block)
    else this.leave('blocks beyond 100,000')
  }

  /** Ends the block that is being read; white space at its ends goes. */
  flush(): void {
    if (this.cell) return
    const runs = trimmed(this.runs)
    this.runs = []
    if (runs.length === 0) return
    const { style } = this
    if (this.heading > 0) this.put({ kind: 'heading', level: this.heading, runs, style })
    else if (this.lists.length > 0) {
      this.put({
        kind: 'item',
        depth: Math.min(this.lists.length, 10),
        ordered: this.lists.at(-1)!,
        first: this.itemOpen,
        runs,
        style,
      })
      this.itemOpen = false
    } else this.put({ kind: this.quotes > 0 ? 'quote' : 'paragraph', runs, style })
  }

  start(name: string, attributes: Readonly<Record<string, string>>): void {
    if (this.open.length > depthLimit) {
      this.overflow++
      return
    }
    const css = attributes.style ?? ''
    const before = this.at
    // In what is left out, only the title is read.
    if (name === 'title') this.inTitle = true
    const hides = silent.has(name) || attributes.hidden !== undefined || /display\s*:\s*none/i.test(css)
    if (name === 'html' && attributes.lang) this.language = attributes.lang
    const now: Open = {
      name,
      strong: before.strong || name === 'b' || name === 'strong' || bold(css),
      emphasis: before.emphasis || name === 'i' || name === 'em' || name === 'cite' || italic(css),
      code: before.code || name === 'code' || name === 'kbd' || name === 'samp',
      href: name === 'a' ? (safe(attributes.href) ?? before.href) : before.href,
      pre: before.pre || name === 'pre',
      silent: before.silent || hides,
    }
    this.open.push(now)
    if (now.silent) {
      if (hides && !before.silent && ['iframe', 'object', 'svg', 'math', 'audio', 'video', 'canvas'].includes(name))
        this.leave('embedded content')
      return
    }
    if (name === 'br') {
      this.text('\n', true)
      return
    }
    if (name === 'img') {
      this.leave('pictures')
      return
    }
    if (name === 'hr') {
      this.flush()
      this.put({ kind: 'rule' })
      return
    }
    if (this.cell) return
    if (/^h[1-6]$/.test(name)) {
      this.flush()
      this.heading = Number(name[1])
    } else if (name === 'ul' || name === 'ol') {
      this.flush()
      this.lists.push(name === 'ol')
    } else if (name === 'li') {
      this.flush()
      this.itemOpen = true
      if (this.lists.length === 0) this.lists.push(false)
    } else if (name === 'blockquote') {
      this.flush()
      this.quotes++
    } else if (name === 'pre' || blockNames.has(name)) this.flush()
    else if (name === 'table') {
      this.flush()
      this.table ??= { head: 0, rows: [] }
    } else if (name === 'tr' && this.table) this.table.rows.push([])
    else if ((name === 'td' || name === 'th') && this.table) {
      if (this.table.rows.length === 0) this.table.rows.push([])
      this.cell = []
      if (name === 'th' && this.table.rows.length === 1) this.table.head = 1
    }
    if (attributes['data-style'] && (blockNames.has(name) || /^(h[1-6]|li|pre)$/.test(name)))
      this.style = attributes['data-style']
  }

  end(name: string): void {
    if (this.overflow > 0) {
      this.overflow--
      return
    }
    if (this.open.length > 1) this.open.pop()
    if (name === 'title') this.inTitle = false
    if (this.at.silent) return
    if (this.cell && (name === 'td' || name === 'th')) {
      this.table?.rows.at(-1)?.push(trimmed(this.cell))
      this.cell = null
      return
    }
    if (this.cell) return
    if (/^h[1-6]$/.test(name)) {
      this.flush()
      this.heading = 0
      this.style = null
    } else if (name === 'ul' || name === 'ol') {
      this.flush()
      this.lists.pop()
      this.itemOpen = false
    } else if (name === 'li') {
      this.flush()
      this.itemOpen = false
      this.style = null
    } else if (name === 'blockquote') {
      this.flush()
      this.quotes--
    } else if (name === 'pre') {
      const text = this.runs
        .map(run => run.text)
        .join('')
        .replace(/^\n|\n$/g, '')
      this.runs = []
      if (text !== '') this.put({ kind: 'code', text })
    } else if (blockNames.has(name)) {
      this.flush()
      this.style = null
    } else if (name === 'table' && this.table) {
      const rows = this.table.rows.filter(row => row.length > 0)
      if (rows.length > 0) this.put({ kind: 'table', head: this.table.head, rows })
      this.table = null
    }
  }

  text(text: string, forced = false): void {
    if (this.inTitle) {
      this.title += text
      return
    }
    const { silent: hidden, pre, strong, emphasis, code, href } = this.at
    if (hidden) return
    const runs = this.cell ?? this.runs
    let shown = forced || pre ? text : text.replace(/[ \t\n\r\f]+/g, ' ')
    const last = runs.at(-1)
    if (!pre && shown.startsWith(' ') && (last === undefined || /[ \n]$/.test(last.text))) shown = shown.slice(1)
    if (shown === '') return
    if (last && last.strong === strong && last.emphasis === emphasis && last.code === code && last.href === href)
      runs[runs.length - 1] = { ...last, text: last.text + shown }
    else runs.push({ text: shown, strong, emphasis, code, href })
  }
}

function trimmed(runs: readonly ReadRun[]): ReadRun[] {
  const list = runs.map(run => ({ ...run, text: run.text.replace(/ *\n */g, '\n') }))
  while (list.length > 0) {
    list[0]!.text = list[0]!.text.replace(/^[ \n]+/, '')
    if (list[0]!.text !== '') break
    list.shift()
  }
  while (list.length > 0) {
    const last = list[list.length - 1]!
    last.text = last.text.replace(/[ \n]+$/, '')
    if (last.text !== '') break
    list.pop()
  }
  return list
}

/** Reads HTML, whole pages or what a clipboard holds. Nothing in it is run or fetched. */
export function readHtml(source: string): ReadText {
  const reader = new BlockReader()
  const parser = new Parser(
    {
      onopentag: (name, attributes) => {
        reader.start(name, attributes)
      },
      onclosetag: name => {
        reader.end(name)
      },
      ontext: text => {
        reader.text(text)
      },
    },
    { decodeEntities: true, lowerCaseTags: true },
  )
  parser.write(source)
  parser.end()
  reader.flush()
  return {
    title: reader.title.replace(/\s+/g, ' ').trim(),
    language: reader.language,
    blocks: reader.blocks,
    left: [...reader.left].map(([what, count]) => ({ what, count })),
  }
}
