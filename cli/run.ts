import { basename } from 'node:path'
import { DocumentSession } from '../core/session'
import { openDocument, saveDocument } from '../core/document/open'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { writeReadText } from '../core/format/odf/new-document'
import { readForeign } from '../core/format/read'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { CommandError, fine, parseCall, type Call, type Outcome } from './call'
import { read, write } from './files'
import { compare } from './compare'
import { drawUp } from './draw-up'
import { dress, house } from './house'
import { absent, plan, recastOf, swapOf, wishesOf } from './plans'
import { registry, type Registry } from '../core/change/registry'
import { bundle, handOn, handsOn } from './hand-off'
import { censusText } from './report'
import { isPdf, pdfAdd, pdfCensus, pdfRight } from './finished'
import { pairs } from './pairs'
import { proof } from './proof'
import { type } from './type'

const usage = `morphene: the typography of a document, from a terminal

  census FILE [--json]                      which faces and voices are in it, how much of each, where
  absent FILES [--json]                     which faces are absent, where, and what could take their place
  swap FILES --from FAMILY --to FAMILY      put one family in place of another, everywhere; several pairs act at once
       [--from-face STYLE --to-face STYLE]  one face of it only
       [--size keep|x-height|cap-height|width|lines] [--leading as-is|follow|stay]
       [--out FILE] [--dry-run] [--json]    without --out, or with --dry-run, nothing is written: the plan is printed
  recast FILES                              find text, and change it
       [--find TEXT] [--expression] [--match-case] [--whole-words]
       [--family FAMILY] [--face STYLE] [--status absent] [--at-size 9-10] [--style NAME] [--role ROLE]
       [--language CODE] [--color #RRGGBB] [--stray] [--pages 2-5]
       [--words TEXT] [--set-family FAMILY] [--set-face STYLE] [--set-size 10|110%] [--set-color #RRGGBB]
       [--set-style NAME] [--set-character-style NAME] [--settle] [--recolor #RRGGBB=#RRGGBB]
       [--out FILE] [--dry-run] [--json]
  draw-up FILES                             make the named styles that documents lack, from how their text looks
       [--tolerance PT]                     sizes that differ by no more are drawn up as one; without it nothing moves
       [--headings unlabelled|all|none]     which paragraphs that look like headings become headings
       [--sweep]                            drop the styles that nothing uses after it
       [--out FILE] [--dry-run] [--json]
  dress FILES --house TOKENS.json|FILE.ott  bring documents to a house: every role as it says, and the text with it
       [--names own|house]                  styles keep their names, or take those of the house
       [--paint]                            shapes, lines, grounds and charts take the nearest colours of its palette
       [--out FILE] [--dry-run] [--json]
  house FILES --out TOKENS.json|FILE.ott    draw a house up from documents: each role as most of its text is set
       [--name NAME] [--dry-run] [--json]
  proof FILES [--house TOKENS.json|FILE.ott] look documents and finished PDFs over by all checks, with what can be put right
       [--checklist FILE.json]              which checks run, how much they matter, by which limits;
                                            those of the house or the usual ones where nothing is said
       [--made-for print,PDF,…]             what their faces must be licensed for
       [--fail-on error|warning|note]       from which severity on it ends with 2; errors where nothing is said
       [--report OUT.pdf]                   what was found as a PDF, with the pages and where on them; of one file
       [--repair --out FILE] [--json|--junit]
  compare FILE FILE [--json]                in what two documents, or two versions of one, differ
       [--report OUT.pdf]                   the same as a PDF, with the pages side by side
  plan FILES --wish FILE.json               carry out wishes of any kinds, as kept wishes and records hold them
       [--out FILE] [--dry-run] [--json]
  type FILES|--library [--json]             what faces are, by the measures of their outlines: class, fitness, licence
       [--like FILE]                        in order of their likeness in proportions to one
  pairs --with FAMILY [--json]              families that could go with one, with what speaks for each and against it
       [--role heading|body]                what the face that is found is for
       [--proportions 0..1] [--detail 0..1] how near it shall be: 0 is alike, 1 wholly apart
  copy FILE OUT                             open and save unchanged
  text FILE OUT                             make an OpenDocument text of a plain text, Markdown or HTML
  pdf FILE OUT [--bleed LENGTH] [--marks]   the pages as tagged PDF, at true size; LENGTH for instance 3mm
       [--print CONDITION|--profile ICC]    for print: for a condition as FOGRA39L, or by a profile of your own
       [--house TOKENS.json|FILE.ott]       colours that have inks there are printed with those
       [--leave-out]                        do not embed faces whose licence forbids it
       [--notes]                            the pages of speaker notes too, after the pages
  census FILE.pdf [--json]                  which fonts are in a finished PDF, how much each sets, where
  pdf-add FILE.pdf OUT.pdf --at X,Y         add text to a page of a finished PDF, from the page's top left
       --text TEXT --family FAMILY [--size PT] [--page N] [--width LENGTH] [--color #RRGGBB]
  pdf-right FILE.pdf OUT.pdf                put words of a page right: in their own font where it has all letters,
       --find TEXT --words TEXT [--page N]  else the whole line in what stands for it
  epub FILE OUT                             the text as a book, with faces as their licences allow
  html FILE OUT                             the text as a page for browsers: a folder, or a zip
  css FILE OUT                              its named styles as classes
  tokens FILE OUT                           its named styles as design tokens
  template FILE OUT                         its styles alone, as a template
  bundle FILES OUT.zip [--house TOKENS.json] documents with faces as their licences allow, proofs and PDFs

FILES are files or folders (of type: font files); several need a folder after --out. It ends with 0 when it is done,
1 when it went wrong, 2 when there was nothing to do (of absent: when faces are absent; of proof: when
something is found), 3 when some of several files failed.`

let typesetter: Typesetter | null = null
/** Opens a document. All of one call are set by one typesetter: what was measured for one serves the next. */
async function open(path: string | undefined): Promise<DocumentSession> {
  const bytes = read(path)
  const { library, load } = shippedLibrary()
  return DocumentSession.start(bytes, (typesetter ??= new Typesetter(library, new Shaper(startHarfBuzz(), load))))
}

async function census(call: Call): Promise<string> {
  const session = await open(call.files[0])
  const { census: result } = session.detail
  if (!call.switches.has('--json')) return censusText(result)
  const { document, characters, settled, faces, voices, unused, frames, pictures } = result
  return JSON.stringify({ document, characters, settled, faces, voices, unused, frames, pictures }, null, 2)
}

function copy(call: Call): string {
  const [from, to] = call.files
  const bytes = read(from)
  if (to === undefined) throw new CommandError('copy needs a file to write: copy FILE OUT')
  write(to, saveDocument(openDocument(bytes)))
  return ''
}

function text(call: Call): string {
  const [from, to] = call.files
  const bytes = read(from)
  if (to === undefined) throw new CommandError('text needs a file to write: text FILE OUT')
  const converted = readForeign(basename(from!), bytes)
  write(to, writeReadText(converted, basename(from!).replace(/\.\w+$/, '')))
  return [
    `written: ${to}, ${converted.blocks.length} blocks`,
    ...converted.left.map(each => `left out or guessed: ${each.what}${each.count > 1 ? ` (${each.count})` : ''}`),
  ].join('\n')
}

/** Runs one command; the wishes of plans are of the kinds that are given. @throws CommandError and what the core throws */
export async function run(words: readonly string[], kinds: Registry = registry): Promise<Outcome> {
  const call = parseCall(words)
  if (handsOn(call.command)) return handOn(call, open)
  switch (call.command) {
    case 'census':
      return isPdf(call.files[0]) ? pdfCensus(call) : fine(await census(call))
    case 'pdf-add':
      return pdfAdd(call)
    case 'pdf-right':
      return pdfRight(call)
    case 'absent':
      return absent(call, open)
    case 'swap':
      return plan(call, open, kinds, swapOf(call))
    case 'recast':
      return plan(call, open, kinds, recastOf(call))
    case 'draw-up':
      return drawUp(call, open, kinds)
    case 'dress':
      return dress(call, open, kinds)
    case 'house':
      return house(call, open, kinds)
    case 'proof':
      return proof(call, open, kinds)
    case 'compare':
      return compare(call, open)
    case 'plan':
      return plan(call, open, kinds, wishesOf(call))
    case 'type':
      return type(call)
    case 'pairs':
      return pairs(call)
    case 'copy':
      return fine(copy(call))
    case 'text':
      return fine(text(call))
    case 'bundle':
      return bundle(call, open)
    case '':
    case 'help':
    case '--help':
      return fine(usage)
    default:
      throw new CommandError(
        `there is no command “${call.command}”; there are census, absent, swap, recast, draw-up, dress, house, proof, compare, plan, ` +
          `type, pairs, copy, text, pdf, pdf-add, pdf-right, epub, html, css, tokens, template and bundle`,
      )
  }
}
