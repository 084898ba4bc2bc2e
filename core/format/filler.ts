/**
 * Text of our own to try a layout with, by script: whole sentences with the lengths of words that each language
 * has.
 */
export const filler: readonly {
  readonly script: string
  readonly language: string
  readonly paragraphs: readonly string[]
}[] = [
  {
    script: 'Latin',
    language: 'en',
    paragraphs: [
      'The morning boat leaves while the lamps are still lit. By the time she has rounded the ' +
        'outer buoy the kitchen has bread on every table, and whoever is awake stands at the ' +
        'rail to see the light on Skerrow go out.',
      'Nobody hurries on the crossing. The mate reads the water, the cook reads the mate, and ' +
        'the passengers read whatever was left on the bench the day before. Rain comes and goes ' +
        'like an aunt.',
      'At the pier there is a bell, a bench and a list of prices painted in 1931. The prices ' +
        'have changed since; the paint has not, because the harbour master is fond of its figures.',
    ],
  },
  {
    script: 'Greek',
    language: 'el',
    paragraphs: [
      'Το πρωινό πλοίο φεύγει όσο ακόμη ανάβουν τα φανάρια. Όταν περάσει την έξω σημαδούρα, ' +
        'το ψωμί είναι ήδη στα τραπέζια και όσοι ξύπνησαν στέκονται στην κουπαστή.',
      'Κανείς δεν βιάζεται στο πέρασμα. Ο ναύτης διαβάζει το νερό, ο μάγειρας διαβάζει τον ' +
        'ναύτη, και η βροχή πηγαινοέρχεται σαν επισκέπτης.',
    ],
  },
  {
    script: 'Cyrillic',
    language: 'uk',
    paragraphs: [
      'Ранковий паром відходить, поки ще горять ліхтарі. Коли він минає зовнішній буй, на столах ' +
        'уже лежить хліб, а хто не спить, стоїть біля поручнів.',
      'На переправі ніхто не поспішає. Помічник читає воду, кухар читає помічника, а дощ приходить і йде, наче сусід.',
    ],
  },
  {
    script: 'Arabic',
    language: 'ar',
    paragraphs: [
      'تغادر عبّارة الصباح والمصابيح ما تزال مضاءة. وحين تدور حول العوّامة البعيدة يكون الخبز على كل طاولة، ومن استيقظ يقف عند الحاجز.',
      'لا أحد يستعجل في العبور. يقرأ البحّار الماء، ويقرأ الطاهي البحّار، ويأتي المطر ويذهب كضيف قديم.',
    ],
  },
  {
    script: 'Hebrew',
    language: 'he',
    paragraphs: [
      'מעבורת הבוקר יוצאת כשהפנסים עוד דולקים. עד שהיא עוקפת את המצוף החיצון יש לחם על כל שולחן, ומי שהתעורר עומד ליד המעקה.',
      'איש אינו ממהר בדרך. המלח קורא את המים, הטבח קורא את המלח, והגשם בא והולך כמו דודה.',
    ],
  },
  {
    script: 'Devanagari',
    language: 'hi',
    paragraphs: [
      'सुबह की नाव तब निकलती है जब बत्तियाँ अभी जल रही होती हैं। बाहरी लंगर तक पहुँचते-पहुँचते ' +
        'हर मेज़ पर रोटी होती है, और जो जाग गए हैं वे रेलिंग के पास खड़े रहते हैं।',
      'पार जाने में किसी को जल्दी नहीं। नाविक पानी पढ़ता है, रसोइया नाविक को पढ़ता है, और बारिश मेहमान की तरह आती-जाती है।',
    ],
  },
  {
    script: 'Japanese',
    language: 'ja',
    paragraphs: [
      '朝の船は、まだ灯りがともっているうちに出る。外の浮標をまわるころには、どの卓にもパンが並び、起きている人は手すりのそばに立っている。',
      '渡るあいだ、だれも急がない。航海士は水を読み、料理人は航海士を読み、雨は叔母のように来てはまた帰っていく。',
    ],
  },
]

/** Filler of a script, about so many paragraphs. */
export function fillerText(script: string, paragraphs: number): string {
  const found = filler.find(each => each.script === script) ?? filler[0]!
  return Array.from(
    { length: Math.max(1, Math.min(paragraphs, 200)) },
    (_, at) => found.paragraphs[at % found.paragraphs.length]!,
  ).join('\n')
}
