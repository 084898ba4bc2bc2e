import type { Purpose } from './purposes'

/** What tells a style from others of its purpose. */
export type Difference =
  | 'small'
  | 'large'
  | 'strong'
  | 'light'
  | 'slanted'
  | 'centred'
  | 'right'
  | 'justified'
  | 'coloured'
  | 'other face'
  | 'in tables'
  | 'in frames'

/** What words inside paragraphs are set apart by. */
export type Departing =
  | 'emphasis'
  | 'strong'
  | 'strong emphasis'
  | 'upright'
  | 'regular'
  | 'code'
  | 'superior'
  | 'inferior'
  | 'capitals'
  | 'small capitals'
  | 'underlined'
  | 'struck'
  | 'highlight'
  | 'ground'
  | 'fine'
  | 'larger'
  | 'other face'
  | 'language'
  | 'words'

/** How styles are called in one language. */
export interface Vocabulary {
  readonly purposes: Readonly<Record<Exclude<Purpose['kind'], 'heading'>, string>>
  readonly heading: string
  readonly differences: Readonly<Record<Difference, string>>
  readonly words: Readonly<Record<Departing, string>>
}

const differenceIds = [
  'small',
  'large',
  'strong',
  'light',
  'slanted',
  'centred',
  'right',
  'justified',
  'coloured',
  'other face',
  'in tables',
  'in frames',
] as const
const departingIds = [
  'emphasis',
  'strong',
  'strong emphasis',
  'upright',
  'regular',
  'code',
  'superior',
  'inferior',
  'capitals',
  'small capitals',
  'underlined',
  'struck',
  'highlight',
  'ground',
  'fine',
  'larger',
  'other face',
  'language',
  'words',
] as const
const purposeIds = [
  'title',
  'body',
  'intro',
  'list',
  'caption',
  'code',
  'table',
  'table head',
  'note',
  'header',
  'label',
  'contents',
] as const

/** A vocabulary from lists of words in the orders above. */
function vocabulary(heading: string, purposes: string, differences: string, words: string): Vocabulary {
  const zip = <K extends string>(ids: readonly K[], list: string) =>
    Object.fromEntries(list.split('|').map((word, at) => [ids[at]!, word])) as Record<K, string>
  return {
    heading,
    purposes: zip(purposeIds, purposes),
    differences: zip(differenceIds, differences),
    words: zip(departingIds, words),
  }
}

// prettier-ignore
const vocabularies: Readonly<Record<string, Vocabulary>> = {
  en: vocabulary('Heading',
    'Title|Body|Intro|List|Caption|Code|Table text|Table head|Note|Page header|Label|Contents',
    'small|large|strong|light|slanted|centred|set right|justified|coloured|other face|in tables|in frames',
    'Emphasis|Strong|Strong emphasis|Upright|Regular weight|Code in text|Superior|Inferior|Capitals|' +
      'Small capitals|Underlined|Struck out|Highlight|On a ground|Fine|Larger|Other face|Language|Words'),
  de: vocabulary('Überschrift',
    'Titel|Grundtext|Vorspann|Liste|Bildunterschrift|Code|Tabellentext|Tabellenkopf|Anmerkung|Seitenkopf|Beschriftung|Inhaltsverzeichnis',
    'klein|groß|kräftig|leicht|schräg|zentriert|rechtsbündig|Blocksatz|farbig|andere Schrift|in Tabellen|in Rahmen',
    'Hervorhebung|Stark|Starke Hervorhebung|Aufrecht|Normale Stärke|Code im Text|Hochgestellt|Tiefgestellt|' +
      'Großbuchstaben|Kapitälchen|Unterstrichen|Durchgestrichen|Auszeichnung|Hinterlegt|Fein|Größer|Andere ' +
      'Schrift|Sprache|Wörter'),
  fr: vocabulary('Titre',
    'Grand titre|Texte courant|Chapeau|Liste|Légende|Code|Texte de tableau|Tête de tableau|Note|En-tête ' +
      'de page|Étiquette|Table des matières',
    'petit|grand|fort|léger|penché|centré|à droite|justifié|en couleur|autre caractère|en tableau|en cadre',
    'Accentuation|Fort|Forte accentuation|Droit|Graisse normale|Code dans le texte|Supérieur|Inférieur|' +
      'Capitales|Petites capitales|Souligné|Barré|Mise en valeur|Sur fond|Fin|Plus grand|Autre caractère|' +
      'Langue|Mots'),
  es: vocabulary('Encabezado',
    'Título|Texto principal|Entradilla|Lista|Pie de figura|Código|Texto de tabla|Cabecera de tabla|Nota|' +
      'Cabecera de página|Etiqueta|Índice',
    'pequeño|grande|fuerte|ligero|inclinado|centrado|a la derecha|justificado|en color|otra letra|en tablas|en marcos',
    'Énfasis|Fuerte|Énfasis fuerte|Redonda|Peso normal|Código en el texto|Superior|Inferior|Mayúsculas|' +
      'Versalitas|Subrayado|Tachado|Realce|Sobre fondo|Menor|Mayor|Otra letra|Idioma|Palabras'),
  it: vocabulary('Titolo',
    'Titolo principale|Testo corrente|Sommario|Elenco|Didascalia|Codice|Testo di tabella|Testa di tabella|' +
      'Nota|Testatina|Etichetta|Indice',
    'piccolo|grande|forte|leggero|inclinato|centrato|a destra|giustificato|colorato|altro carattere|in tabelle|in riquadri',
    'Enfasi|Forte|Enfasi forte|Tondo|Peso normale|Codice nel testo|Apice|Pedice|Maiuscole|Maiuscoletto|' +
      'Sottolineato|Barrato|Evidenza|Su fondo|Minore|Maggiore|Altro carattere|Lingua|Parole'),
  pt: vocabulary('Cabeçalho',
    'Título|Texto corrido|Introdução|Lista|Legenda|Código|Texto de tabela|Cabeça de tabela|Nota|Cabeçalho de página|Etiqueta|Sumário',
    'pequeno|grande|forte|leve|inclinado|centrado|à direita|justificado|colorido|outra letra|em tabelas|em quadros',
    'Ênfase|Forte|Ênfase forte|Redondo|Peso normal|Código no texto|Superior|Inferior|Maiúsculas|Versaletes|' +
      'Sublinhado|Riscado|Realce|Sobre fundo|Menor|Maior|Outra letra|Idioma|Palavras'),
  nl: vocabulary('Kop',
    'Titel|Platte tekst|Inleiding|Lijst|Bijschrift|Code|Tabeltekst|Tabelkop|Noot|Paginakop|Label|Inhoudsopgave',
    'klein|groot|sterk|licht|schuin|gecentreerd|rechts|uitgevuld|gekleurd|ander lettertype|in tabellen|in kaders',
    'Nadruk|Sterk|Sterke nadruk|Rechtop|Normale dikte|Code in tekst|Superieur|Inferieur|Hoofdletters|' +
      'Kleinkapitalen|Onderstreept|Doorgehaald|Uitgelicht|Op een vlak|Fijn|Groter|Ander lettertype|Taal|' +
      'Woorden'),
  pl: vocabulary('Nagłówek',
    'Tytuł|Tekst podstawowy|Wstęp|Lista|Podpis|Kod|Tekst tabeli|Główka tabeli|Przypis|Pagina|Etykieta|Spis treści',
    'mały|duży|mocny|lekki|pochyły|wyśrodkowany|do prawej|justowany|kolorowy|inne pismo|w tabelach|w ramkach',
    'Wyróżnienie|Mocne|Mocne wyróżnienie|Proste|Zwykła grubość|Kod w tekście|Indeks górny|Indeks dolny|' +
      'Wersaliki|Kapitaliki|Podkreślone|Przekreślone|Zaznaczenie|Na tle|Drobne|Większe|Inne pismo|Język|' +
      'Słowa'),
  ca: vocabulary('Encapçalament',
    'Títol|Text principal|Entradeta|Llista|Peu de figura|Codi|Text de taula|Capçalera de taula|Nota|Capçalera de pàgina|Etiqueta|Índex',
    'petit|gran|fort|lleuger|inclinat|centrat|a la dreta|justificat|en color|una altra lletra|en taules|en marcs',
    'Èmfasi|Fort|Èmfasi fort|Rodona|Pes normal|Codi en el text|Superior|Inferior|Majúscules|Versaletes|' +
      'Subratllat|Ratllat|Realçament|Sobre fons|Menor|Major|Una altra lletra|Llengua|Paraules'),
  ro: vocabulary('Subtitlu',
    'Titlu|Text de bază|Introducere|Listă|Legendă|Cod|Text de tabel|Cap de tabel|Notă|Antet de pagină|Etichetă|Cuprins',
    'mic|mare|puternic|ușor|înclinat|centrat|la dreapta|aliniat|colorat|altă literă|în tabele|în cadre',
    'Accent|Puternic|Accent puternic|Drept|Grosime normală|Cod în text|Exponent|Indice|Majuscule|Capitale ' +
      'mici|Subliniat|Tăiat|Evidențiere|Pe fond|Mai mic|Mai mare|Altă literă|Limbă|Cuvinte'),
  ja: vocabulary('見出し',
    '表題|本文|リード|箇条書き|キャプション|コード|表の文字|表の見出し|注|柱|ラベル|目次',
    '小|大|太|細|斜体|中央|右揃え|両端揃え|色付き|別書体|表内|枠内',
    '強調|太字|強い強調|正体|標準の太さ|本文中のコード|上付き|下付き|大文字|小型大文字|下線|取り消し|目立たせ|地付き|小さめ|大きめ|別書体|言語|語句'),
}

/** How styles are called in a language (a tag of RFC 5646, or ''); in English where it is none of those known. */
export const vocabularyOf = (language: string): Vocabulary =>
  vocabularies[language.toLowerCase().split('-')[0]!] ?? vocabularies.en!
