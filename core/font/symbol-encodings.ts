/*
 * What the codes of symbol faces mean in Unicode: texts set in them hold letters or private-use codes (U+F020 to U+F0FF, the
 * way TrueType symbol faces number their glyphs; OpenType 1.9, cmap, platform 3, encoding 0) that mean other signs.
 *
 * Symbol and Zapf Dingbats: the mappings that their maker published with Unicode (unicode.org, Public/MAPPINGS/VENDORS,
 * symbol.txt and zdingbat.txt). Wingdings: those of its signs that documents use as bullets, ticks and arrows, by the names that Unicode 7
 * gave them when it took them in (ISO/IEC JTC1/SC2/WG2 N4384).
 */

/** Signs of a run of codes; U+FFFD where a code has none of its own in Unicode. */
interface Run {
  readonly from: number
  readonly signs: string
}

const symbol: readonly Run[] = [
  {
    from: 0x21,
    signs: '!∀#∃%&∋()∗+,−./0123456789:;<=>?≅ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ[∴]⊥_�αβχδεφγηιϕκλµνοπθρστυϖωξψζ{|}∼',
  },
  {
    from: 0xa1,
    signs: 'ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…��↵ℵℑℜ℘⊗⊕∅∩∪⊃⊇⊄⊂⊆∈∉∠∇���∏√⋅¬∧∨⇔⇐⇑⇒⇓◊〈���∑�����������〉∫⌠�⌡���������',
  },
]
const dingbats: readonly Run[] = [
  {
    from: 0x21,
    signs: '✁✂✃✄☎✆✇✈✉☛☞✌✍✎✏✐✑✒✓✔✕✖✗✘✙✚✛✜✝✞✟✠✡✢✣✤✥✦✧★✩✪✫✬✭✮✯✰✱✲✳✴✵✶✷✸✹✺✻✼✽✾✿❀❁❂❃❄❅❆❇❈❉❊❋●❍■❏❐❑❒▲▼◆❖◗❘❙❚❛❜❝❞',
  },
  {
    from: 0xa1,
    signs: '❡❢❣❤❥❦❧♣♦♥♠①②③④⑤⑥⑦⑧⑨⑩❶❷❸❹❺❻❼❽❾❿➀➁➂➃➄➅➆➇➈➉➊➋➌➍➎➏➐➑➒➓➔→↔↕➘➙➚➛➜➝➞➟➠➡➢➣➤➥➦➧➨➩➪➫➬➭➮➯�➱➲➳➴➵➶➷➸➹➺➻➼➽➾',
  },
]
const wingdings: readonly Run[] = [
  { from: 0x22, signs: '✂✁' },
  { from: 0x28, signs: '☎✆✉' },
  { from: 0x36, signs: '⌛⌨' },
  { from: 0x41, signs: '✌' },
  { from: 0x45, signs: '☜☞☝☟' },
  { from: 0x4a, signs: '☺\uFFFD☹' },
  { from: 0x6c, signs: '●\uFFFD■□\uFFFD❑❒⬧⧫◆❖⬥⌧\uFFFD⌘' },
  { from: 0x9e, signs: '·•⬝⭘' },
  { from: 0xa4, signs: '◉◎\uFFFD▪◻' },
  { from: 0xaa, signs: '✦★✶✴✹✵' },
  { from: 0xd8, signs: '➢' },
  { from: 0xdf, signs: '←→↑↓↖↗↙↘' },
  { from: 0xe8, signs: '➔' },
  { from: 0xef, signs: '⇦⇨⇧⇩⬄⇳' },
  { from: 0xfb, signs: '✗✔☒☑' },
]

/** Families by their names in lower case: those that files name for signs. */
const families: Readonly<Record<string, readonly Run[]>> = {
  symbol,
  'symbol mt': symbol,
  'standard symbols l': symbol,
  'standard symbols ps': symbol,
  dingbats,
  'zapf dingbats': dingbats,
  'itc zapf dingbats': dingbats,
  zapfdingbats: dingbats,
  d050000l: dingbats,
  wingdings,
}

const known = new Map<readonly Run[], ReadonlyMap<number, string>>()
function tableOf(runs: readonly Run[]): ReadonlyMap<number, string> {
  let table = known.get(runs)
  if (!table) {
    const made = new Map<number, string>()
    for (const { from, signs } of runs)
      [...signs].forEach((sign, at) => {
        if (sign !== '\uFFFD') made.set(from + at, sign)
      })
    known.set(runs, (table = made))
  }
  return table
}

/** Whether a family's codes are known to mean other signs than they would elsewhere. */
export const isSymbolFamily = (family: string): boolean => Object.hasOwn(families, family.trim().toLowerCase())

/** Whether a code has no meaning but what a face gives it (Unicode, Private Use Area). */
export const isPrivateUse = (code: number): boolean => code >= 0xe000 && code <= 0xf8ff

/**
 * What a code of a symbol family means, one UTF-16 unit as the code is; null where that is not known.
 * @param code a letter, or a private-use code that stands for one
 */
export function symbolMeaning(family: string, code: number): string | null {
  const runs = families[family.trim().toLowerCase()]
  if (!runs) return null
  const own = code >= 0xf020 && code <= 0xf0ff ? code - 0xf000 : code
  return tableOf(runs).get(own) ?? null
}
