/**
 * The commonest short words of some languages, by which a text of a few lines tells its language. Words that two of them
 * share say little, but a text has many more of its own.
 */
const lists: Readonly<Record<string, string>> = {
  en: `
    the of and to in is that it was for on are with as his they at be this have from or had by but not what all were
    we when your can said there use an each which she do how their if will up other about out many then them these
    so some her would make like him into has look two more`,
  de: `
    der die und in den von zu das mit sich des auf für ist im dem nicht ein eine als auch es an werden aus er hat
    dass sie nach wird bei einer um am sind noch wie einem über einen so zum war haben nur oder aber vor zur bis
    mehr durch man sein wurde sei wenn ihre`,
  fr: `
    le de la les et des en un une du est que dans qui par pour au il sur se pas plus ne ce son avec sont aux ou
    cette mais comme on tout nous sa fait été leur bien elle même ces sans deux peut vous entre aussi être`,
  es: `
    de la que el en y los se del las un por con no una su para es al lo como más pero sus le ya fue este ha sí
    porque esta son entre está cuando muy sin sobre también me hasta hay donde`,
  it: `
    di e che la il un a per in una mi sono ho non ma lo ha le si ti con cosa se io come da ci no questo qui hai sei
    del bene tu sì al della gli nel alla dei delle più anche dal o era essere`,
  pt: `
    de a o que e do da em um para com não uma os no se na por mais as dos como mas ao ele das à seu sua ou quando
    muito nos já eu também só pelo pela até isso ela entre depois sem mesmo são`,
  nl: `
    de van het een en in is dat op te zijn met voor niet aan er om ook als dan maar bij uit nog naar wel door ze of
    over tot je hij deze worden wordt zo kan geen werd veel meer onder`,
  sv: `
    och i att det som en på är av för med till den har de inte om ett han men var jag från så kan vi hon när också
    efter år vid sin nu sig mot kommer ska än blir mycket två`,
  da: `
    og i at det er en til af på den for med der som de ikke et har jeg vi om var så men hun han fra kan vil blev
    havde eller nu efter ved over skal bliver sig meget også`,
  nb: `
    og i det er på som en til å av for at den med de ikke et har jeg om var så men han fra kan vi ble hun seg eller
    nå etter ved over skal blir svært også være`,
  fi: `
    ja on ei että se oli hän mutta ovat kun niin myös joka sen tai jos ole voi kuin sitä mukaan ennen jälkeen vain
    nyt ollut hänen tämä mitä kanssa vielä`,
  pl: `
    i w na z się do nie że to jest o jak za od po co dla przez ma ale czy tak być są już może tego tym jego oraz
    jednak który która które`,
  cs: `
    a v na se je že s z o do i to k ve pro za ale jsou jako by po tak jeho od nebo byl být už která který které při
    jen však podle má až`,
  hu: `
    a az és hogy nem is egy ez meg csak de már volt van mint ha el még ki aki vagy lesz én te ő minden fel azt ezt
    után között kell lehet`,
}

/** Of each word the languages that it is among the commonest of. */
const languagesOf = new Map<string, string[]>()
for (const [language, words] of Object.entries(lists))
  for (const word of new Set(words.trim().split(/\s+/)))
    languagesOf.set(word, [...(languagesOf.get(word) ?? []), language])

/** Languages that are known by their words. */
export const knownLanguages: readonly string[] = Object.keys(lists)

// Single letters are initials and names of things in all languages.
const words = /\p{L}{2,}/gu
/** Eight words have more letters. */
const shortest = 24
/** So many letters tell a language as well as more do. */
const enoughText = 800
const addresses = /\S*(?:[:/@\\_=]|\.\w)\S*/g

/** A share of its commonest words that a text has in its own language, and hardly in another. */
const ownShare = 0.22

/** Whether a text is plainly in a language: enough of its first words are among the commonest of it. */
export function speaks(text: string, language: string): boolean {
  let [all, own] = [0, 0]
  for (const [word] of text.slice(0, enoughText).toLowerCase().matchAll(words)) {
    all++
    if (languagesOf.get(word)?.includes(language)) own++
  }
  return all >= 8 && own / all >= ownShare
}

/**
 * Which language a text seems to be in, by the share of its words that are among the commonest of each; null where it is
 * too short, or where no language has clearly more than all others.
 */
export function languageOf(
  text: string,
  tagged: string,
): { readonly language: string; readonly clear: boolean } | null {
  if (text.length < shortest) return null
  const all = [...text.slice(0, enoughText).replace(addresses, ' ').toLowerCase().matchAll(words)].map(
    match => match[0],
  )
  if (all.length < 8) return null
  const counts = new Map(knownLanguages.map(language => [language, { count: 0, words: new Set<string>() }]))
  for (const word of all)
    for (const language of languagesOf.get(word) ?? []) {
      const own = counts.get(language)!
      own.count++
      own.words.add(word)
    }
  const shares = [...counts]
    .map(([language, { count, words: own }]) => ({ language, share: own.size < 3 ? 0 : count / all.length }))
    .sort((a, b) => b.share - a.share)
  const [best] = shares
  const own = shares.find(each => each.language === tagged)?.share ?? 0
  if (!best || best.share < 0.2) return null
  const next = shares.find(each => each.language !== best.language)?.share ?? 0
  return { language: best.language, clear: best.share > next * 1.25 && best.share > own * 1.8 + 0.08 }
}
