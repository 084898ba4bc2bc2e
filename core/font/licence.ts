import type { FaceRecord } from './face'

/** What a person may want to do with a face. */
export const licenceUses = ['print', 'PDF', 'e-book', 'web page', 'app', 'goods for sale', 'alteration'] as const
export type LicenceUse = (typeof licenceUses)[number]

/** What the file says of one use. What it does not say is “not stated”, never a guess. */
export interface UseRight {
  readonly use: LicenceUse
  readonly right: 'allowed' | 'not allowed' | 'not stated'
  /** The sentence, or the embedding bits, that it was read from. */
  readonly from: string
}

/** What was read of a face's licence. */
export interface Licence {
  /** The licence's name where it is one that is known, else ''. */
  readonly name: string
  /** Free faces, whose licences are published and alike for everybody. */
  readonly open: boolean
  readonly uses: readonly UseRight[]
}

interface KnownLicence {
  readonly name: string
  readonly known: RegExp
  /** Which uses its published text allows, in its own terms. */
  readonly allows: readonly LicenceUse[]
  readonly because: string
}

const everything = licenceUses
/**
 * Licences of faces whose texts are published. What each allows was read from its text; goods for sale means things set in
 * the face, never the font file itself.
 */
const knownLicences: readonly KnownLicence[] = [
  {
    name: 'SIL Open Font License',
    known:
      /\bSIL\s+Open\s+Font\s+Licen[cs]e\b|scripts\.sil\.org\/(?:cms\/scripts\/page\.php\?\S*)?OFL|openfontlicen[cs]e\.org/i,
    allows: everything,
    because:
      'free to use, embed and change; changed copies may have to take another name, and the files are not sold by themselves',
  },
  {
    name: 'Apache License 2.0',
    known: /\bApache\s+Licen[cs]e,?\s+(?:Version\s+)?2(?:\.0)?\b|apache\.org\/licenses\/LICENSE-2\.0/i,
    allows: everything,
    because: 'free to use, to pass on and to change',
  },
  {
    name: 'Bitstream Vera licence',
    // Its text names its maker in one sentence and grants in a later one.
    known: /\bBitstream\s+Vera\b[\s\S]*\bpermission\s+is\s+hereby\s+granted\b|dejavu-fonts\.org\/wiki\/License/i,
    allows: everything,
    because:
      'free to use, embed and change; changed copies take another name, and the files are not sold by themselves',
  },
  {
    name: 'Ubuntu Font Licence',
    known: /\bUbuntu\s+Font\s+Licen[cs]e\b/i,
    allows: everything,
    because: 'free to use, embed and change; changed copies take another name',
  },
  {
    name: 'GUST Font License',
    known: /\bGUST[\s-]+Font[\s-]+Licen[cs]e\b/i,
    allows: everything,
    because: 'free to use, embed and change; changed copies take another name',
  },
  {
    name: 'GNU GPL with font exception',
    // The licence of the Liberation faces of version 1 is this one, with the exception.
    known:
      /\bLiberation\s+Fonts\s+licen[cs]e\b|\b(?:General\s+Public\s+Licen[cs]e|GPL)\b[\s\S]*\b(?:font\s+exception|embed\s+this)\b/i,
    // A page or an app that carries the file passes it on under the licence's own terms: that is for a person to judge.
    allows: ['print', 'PDF', 'goods for sale', 'alteration'],
    because: 'a document that embeds it does not come under that licence',
  },
  {
    name: 'CC0 or public domain',
    known:
      /\bCC0\b|creativecommons\.org\/publicdomain\/zero|\b(?:released|placed|dedicated)\s+(?:in)?to\s+the\s+public\s+domain\b/i,
    allows: everything,
    because: 'given to everybody',
  },
]

/** Sentences that take rights away. Where one stands, nothing is allowed on the strength of embedding bits. */
const limiting: readonly { readonly found: RegExp; readonly forbids: readonly LicenceUse[] }[] = [
  {
    found: /[^.]*\b(?:personal|private|non[\s-]?commercial|home)\s+use\s+only\b[^.]*/i,
    forbids: ['goods for sale'],
  },
  {
    found: /[^.]*\b(?:free|licen[cs]ed)\s+for\s+(?:personal|private|non[\s-]?commercial)\b[^.]*/i,
    forbids: ['goods for sale'],
  },
  {
    found: /[^.]*\b(?:may|must|can|shall)\s*not\s+be\s+(?:modified|altered|changed)\b[^.]*/i,
    forbids: ['alteration'],
  },
  {
    found:
      /[^.]*\b(?:(?:may|must|can|shall)\s*not\s+be\s+embedded|embedding\s+(?:is\s+)?(?:not\s+allowed|prohibited))\b[^.]*/i,
    forbids: ['PDF', 'e-book', 'web page', 'app'],
  },
  { found: /[^.]*\b(?:trial|demo|evaluation)\s+(?:font|version|use|purposes?|licen[cs]e)\b[^.]*/i, forbids: [] },
  { found: /[^.]*\b(?:may|must|can|shall)\s*not\b[^.]*/i, forbids: [] },
]

const bits: Readonly<Record<FaceRecord['embedding'], UseRight['right']>> = {
  installable: 'allowed',
  editable: 'allowed',
  preview: 'allowed',
  restricted: 'not allowed',
}
const bitWords: Readonly<Record<FaceRecord['embedding'], string>> = {
  installable: 'the embedding bits say installable',
  editable: 'the embedding bits say editable',
  preview: 'the embedding bits say preview and print',
  restricted: 'the embedding bits say restricted: not without the maker’s leave',
}

/**
 * What a face's file says of each use: by the licence it names where that is a published one, else by its sentences, and of
 * PDF by its embedding bits (OpenType 1.9, OS/2 fsType). A use is never called allowed on a guess.
 */
export function licenceOf(face: Pick<FaceRecord, 'licence' | 'embedding'>): Licence {
  const { licence, embedding } = face
  const found = knownLicences.find(each => each.known.test(licence))
  const limits = limiting.flatMap(({ found: pattern, forbids }) => {
    const sentence = pattern.exec(licence)?.[0].trim()
    return sentence ? [{ sentence, forbids }] : []
  })
  // A published licence with a sentence of its own beside it that limits a use is no longer that licence.
  const contradicted = found !== undefined && limits.some(({ forbids }) => forbids.length > 0)
  const uses = licenceUses.map((use): UseRight => {
    const forbidden = limits.find(({ forbids }) => forbids.includes(use))
    if (forbidden) return { use, right: 'not allowed', from: `“${forbidden.sentence}”` }
    if (found && !contradicted)
      return found.allows.includes(use)
        ? { use, right: 'allowed', from: `${found.name}: ${found.because}` }
        : { use, right: 'not stated', from: `${found.name} leaves it to be judged` }
    if (use === 'PDF') {
      if (bits[embedding] === 'not allowed') return { use, right: 'not allowed', from: bitWords[embedding] }
      if (limits.length === 0) return { use, right: 'allowed', from: bitWords[embedding] }
      return { use, right: 'not stated', from: `${bitWords[embedding]}, but “${limits[0]!.sentence}”` }
    }
    return {
      use,
      right: 'not stated',
      from: licence === 'not stated' ? 'the file says nothing' : 'the file does not say',
    }
  })
  return { name: contradicted ? '' : (found?.name ?? ''), open: found !== undefined && !contradicted, uses }
}
