/**
 * What text of twenty documents out of Debian packages does, judged by hand, paragraph by paragraph, before the roles that are
 * found were looked at. A paragraph is told by a line of what is seen of it:
 *
 *     style | h and its level | place | L in a list | family, size, B bold of most of it | text
 *
 * The first pattern that fits says what it does.
 */
export interface RoleLabels {
  /** As `scripts/fetch-corpus.sh` names it. */
  readonly file: string
  readonly labels: readonly (readonly [RegExp, string])[]
}

/** What holds in every one of them: what stands in notes, heads, feet and tables, and headings that are named so. */
const notes = [/^[^|]*\|[^|]*\|note\|/, 'note'] as const
const heads = [/^[^|]*\|[^|]*\|header\|/, 'label'] as const
const cells = [/^[^|]*\|[^|]*\|table\|/, 'data'] as const
const contents = [/^(Contents|Index|Illustration Index) \d/, 'label'] as const
const contentsHeading = [/^Contents Heading/, 'heading'] as const
const first = [/^[^|]*\|h1\|/, 'heading'] as const
const deeper = [/^[^|]*\|h[2-9]\|/, 'subheading'] as const
/** Contents and headings, where they are named as what they are. */
const headed = [contentsHeading, contents, first, deeper] as const
const rest = [/^/, 'body'] as const

export const roleLabels: readonly RoleLabels[] = [
  {
    file: 'aprx__aprx-manual.odt',
    labels: [
      notes,
      heads,
      [/^Table Heading/, 'label'],
      cells,
      ...headed,
      [/^verbatim/, 'code'],
      [/Liberation Sans36/, 'display'],
      [/^Standard\|\|body\|\|Liberation Sans16/, 'lead'],
      [/^Standard.*Liberation Mono/, 'code'],
      [/^Standard\|\|frame/, 'label'],
      rest,
    ],
  },
  {
    file: 'aprx__aprx-requirement-specification.odt',
    labels: [
      notes,
      heads,
      [/^Table Heading/, 'label'],
      cells,
      ...headed,
      [/^Konekirjoitusteksti|Liberation Mono10/, 'code'],
      [/^Text body.*Liberation Sans22/, 'display'],
      rest,
    ],
  },
  {
    // Its title is three headings of the first level; those of the second are the first of its text.
    file: 'davical-doc__davical_en_user_guide.odt',
    labels: [
      heads,
      contentsHeading,
      contents,
      [/\|h1\|.*Cambria18/, 'display'],
      [/\|h1\|.*Cambria9/, 'label'],
      [/\|h2\|/, 'heading'],
      deeper,
      [/^Standard.*Calibri9/, 'note'],
      [/^Standard.*Calibri12/, 'lead'],
      [/\|Legend:/, 'label'],
      rest,
    ],
  },
  {
    file: 'discosnp__discoSnp_user_guide.odt',
    labels: [
      contentsHeading,
      contents,
      [/\|h2\|/, 'heading'],
      deeper,
      [/^Heading\|.*Cambria16B/, 'display'],
      [/^Heading\|/, 'lead'],
      [/^Text body\|\|body\|\|Liberation Serif(10|8)/, 'code'],
      [/Liberation Serif11/, 'code'],
      [/\|[A-Z -]{12,}$|Liberation Serif12B/, 'subheading'],
      [/Cambria(8|10)\|/, 'note'],
      rest,
    ],
  },
  {
    file: 'discosnp__vcf_creator_user_guide.odt',
    labels: [
      notes,
      ...headed,
      [/^Heading\|.*Cambria16B/, 'display'],
      [/^Heading\|/, 'lead'],
      [/Courier 10 Pitch9B/, 'label'],
      cells,
      rest,
    ],
  },
  {
    // No style says anything: all is set by hand.
    file: 'examl__ExaML.odt',
    labels: [
      [/DejaVu Sans16B/, 'display'],
      [/DejaVu Sans10B|DejaVu Sans13B/, 'lead'],
      [/DejaVu Sans14B|Liberation Sans11B/, 'heading'],
      [/DejaVu Sans13\|/, 'subheading'],
      [/Courier|DejaVu Sans6/, 'code'],
      // Twelve points and bold: the contents, remarks in the text, and headings of the second level.
      [/DejaVu Sans12B.*\|(Introduction|Usage|Production|Running ExaML|Frequently)/, 'label'],
      [/DejaVu Sans12B.*\|(WARNING|Comment|Q:|A:)/, 'body'],
      [/DejaVu Sans12B/, 'subheading'],
      rest,
    ],
  },
  {
    file: 'fonts-sil-charis-compact__CharisSIL-features.odt',
    labels: [
      notes,
      [/^sdfootnote/, 'note'],
      heads,
      first,
      [/\|table\|.*Arial( Narrow)?(6|9|10)B/, 'label'],
      cells,
      rest,
    ],
  },
  {
    file: 'gtkwave__gtkwave.odt',
    labels: [
      notes,
      heads,
      [/^table (col sub)?head/i, 'label'],
      [/^(table head|figure caption|Figure)\b/i, 'caption'],
      cells,
      contents,
      // Paragraphs of a paper that have a level because they are counted: they are its text.
      [/^Heading 3.*Serif9B.{90}/, 'body'],
      first,
      deeper,
      [/^Default Text\|\|body\|\|Bitstream Vera Serif14B/, 'label'],
      [/Mono|Courier/, 'code'],
      [/^references/, 'note'],
      [/^Abstract/, 'lead'],
      rest,
    ],
  },
  {
    file: 'hspell__niqqudless.odt',
    labels: [
      notes,
      heads,
      ...headed,
      [/Nachlieli CLM32/, 'display'],
      [/Nachlieli/, 'lead'],
      [/^Nadav Bibliography/, 'note'],
      rest,
    ],
  },
  {
    // All of its headings say numbers of paragraphs in brackets; parts and chapters are both of the first level.
    file: 'live-manual-odf__live-manual.en.odt',
    labels: [
      [/^-\|h1\|/, 'display'],
      first,
      deeper,
      [/^P_code|^Paragraph indent 0.*DejaVu Sans Mono/, 'code'],
      [/^P_group/, 'label'],
      rest,
    ],
  },
  {
    file: 'python3-relatorio__basic.odt',
    labels: [
      [/\|Invoice #/, 'heading'],
      [/\|table\|.*Roman1[24]B?.*\|(Article|Reference|Quantity|Unit Price|Amount|Total)/, 'label'],
      cells,
      rest,
    ],
  },
  {
    file: 'python3-relatorio__columns.odt',
    labels: [[/^Table Heading/, 'label'], cells, rest],
  },
  {
    file: 'python3-relatorio__complicated.odt',
    labels: [heads, [/Vera Sans18B/, 'heading'], [/\|table\|.*Vera Sans14B/, 'label'], cells, rest],
  },
  {
    file: 'python3-relatorio__test.odt',
    labels: [heads, [/^Table Heading/, 'label'], cells, rest],
  },
  {
    // Its code stands in boxes, much of it in a proportional face.
    file: 'w1retap-doc__w1retap.odt',
    labels: [
      notes,
      heads,
      [/^Table Heading/, 'label'],
      cells,
      first,
      deeper,
      [/^Heading 3/, 'subheading'],
      [/^Title/, 'display'],
      [/^Subtitle/, 'lead'],
      [/^BlockHighLight\|.*\|e\.g\.$/, 'body'],
      [/^(Boxed (Source|Text)|BlockHighLight)/, 'code'],
      rest,
    ],
  },
  {
    file: 'whitedune-docs__animation_3dmodelling_workshop_description.odt',
    labels: [[/Arial12B/, 'display'], [/\|table\|.*Arial10B/, 'label'], cells, rest],
  },
  {
    file: 'whitedune-docs__animation_kinematic_workshop_description.odt',
    labels: [[/Arial12B/, 'display'], [/\|table\|.*Arial10B/, 'label'], cells, rest],
  },
  {
    // Headings are bold lines, within columns as frames.
    file: 'whitedune-docs__animation_workshops_background_teacher.odt',
    labels: [[/Arial12B/, 'heading'], [/A(R|r)eal10B|Arial10B/, 'subheading'], rest],
  },
  {
    file: 'yoshimi-doc__The_Short_Yoshimi_Guide.odt',
    labels: [[/Serif16B/, 'display'], [/Serif1[34]B/, 'heading'], [/Courier/, 'code'], [/Serif10/, 'note'], rest],
  },
  {
    // Two sheets of code and what it does: boxes with their titles.
    file: 'libtrompeloeil-cpp-dev__trompeloeil_cheat_sheet.odp',
    labels: [heads, [/Liberation Sans22/, 'display'], [/Sans18B/, 'heading'], [/Mono/, 'code'], rest],
  },
]
