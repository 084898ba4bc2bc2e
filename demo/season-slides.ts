import type { DemoChart } from './chart'

/** One slide of the season review: what stands on it, and what is said to it. */
export interface SeasonSlide {
  readonly title: string
  readonly cover?: boolean
  readonly subtitle?: string
  /** Level and words, as XML. */
  readonly outline?: readonly (readonly [level: number, words: string])[]
  readonly chart?: DemoChart
  readonly table?: readonly (readonly string[])[]
  /** Shapes, as XML. */
  readonly drawing?: string
  readonly notes: readonly string[]
}

const shape = (kind: string, styleName: string, place: string, words: string, more = '') =>
  `<draw:${kind} draw:style-name="${styleName}" ${place}${more}><text:p>${words}</text:p></draw:${kind}>`
const at = (x: number, y: number, width: number, height: number) =>
  `svg:x="${x}cm" svg:y="${y}cm" svg:width="${width}cm" svg:height="${height}cm"`
const arrow = (x1: number, y1: number, x2: number, y2: number) =>
  `<draw:connector draw:style-name="line" draw:type="line" svg:x1="${x1}cm" svg:y1="${y1}cm" svg:x2="${x2}cm" svg:y2="${y2}cm"/>`
const box = (name: string, words: string, x: number, y: number, width: number, height: number, styleName: string) =>
  `<draw:frame draw:name="${name}" draw:style-name="${styleName}" ${at(x, y, width, height)}>` +
  `<draw:text-box>${words}</draw:text-box></draw:frame>`
const hull =
  '<draw:enhanced-geometry svg:viewBox="0 0 21600 21600" draw:enhanced-path="M 0 6000 L ' +
  '21600 6000 18000 18000 3600 18000 Z N" draw:text-areas="2000 6000 19600 18000"/>'
const months = ['Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct']
const sizes = [13, 17, 12] as const

export const seasonSlides: readonly SeasonSlide[] = [
  {
    title: 'The season in review',
    cover: true,
    subtitle: 'What the boats did, what it cost, and what the winter needs',
    drawing:
      '<draw:rect draw:style-name="stamp" svg:width="5.4cm" svg:height="1.3cm" draw:transform="rotate ' +
      '(0.139626) translate (18.4cm 11.2cm)"><text:p>For the board</text:p></draw:rect>',
    notes: ['Good evening. Please find a seat with a back to it.', 'There are fourteen pages and I will keep to them.'],
  },
  {
    title: 'What was asked of us',
    outline: [
      [1, 'Two boats a day to every pier, thaw to lantern weeks'],
      [2, 'missed on eleven days, all in March'],
      [1, 'No fare higher than a bag of coal'],
      [2, 'kept'],
      [3, 'though coal rose and we did not'],
      [1, 'Bread on the morning boat'],
      [2, 'kept, and on the evening one from June'],
    ],
    notes: ['The three promises are those of the spring meeting, in its own words.'],
  },
  {
    title: 'Passengers by month',
    chart: {
      kind: 'bar',
      title: 'Passengers by month',
      across: 'Month',
      up: 'People',
      width: '22.6cm',
      height: '9.8cm',
      categories: months,
      series: [
        { name: 'Last year', values: [290, 500, 830, 1100, 1540, 1690, 900, 410], color: '#b9b3a3' },
        { name: 'This year', values: [310, 540, 880, 1190, 1620, 1710, 960, 430], color: '#1f6f6b' },
      ],
      legend: 'end',
      sizes,
    },
    notes: ['August is full: a third boat would have been full too.', 'The grey is last year.'],
  },
  {
    title: 'Where they went',
    outline: [
      [1, 'Half of all landings are at Great Ossay'],
      [1, 'Tern Holm doubles when the pier is open'],
      [1, 'Skerrow light has 62 visitors, all of them twice'],
    ],
    chart: {
      kind: 'circle',
      title: 'Landings',
      across: '',
      up: '',
      width: '13.6cm',
      height: '9.6cm',
      categories: ['Great Ossay', 'Tern Holm', 'Cormorant Point', 'Skerrow light'],
      series: [{ name: 'Landings', values: [3820, 1990, 1700, 124], color: '#1f6f6b' }],
      labels: 'percentage',
      legend: 'bottom',
      sizes,
    },
    notes: ['Landings are people off the boat; those who stay aboard for the bread do not count.'],
  },
  {
    title: 'Boats and days at sea',
    table: [
      ['Boat', 'Days at sea', 'In the yard', 'Age'],
      ['Grey Plover', '201', '12', '34 years'],
      ['Lady of Tern Holm', '188', '31', '52 years'],
      ['The launch', '96', '4', '9 years'],
      ['All boats', '485', '47', ''],
    ],
    notes: ['The Lady’s thirty-one days are the shaft. It is a good shaft now.'],
  },
  {
    title: 'Leaving on time',
    chart: {
      kind: 'line',
      title: 'Departures within five minutes',
      across: '',
      up: 'Per cent',
      width: '22.6cm',
      height: '9.8cm',
      categories: months,
      series: [
        { name: 'Morning boat', values: [71, 84, 93, 95, 92, 88, 95, 90], color: '#1f6f6b' },
        { name: 'Evening boat', values: [64, 75, 88, 90, 79, 72, 91, 86], color: '#b4361e' },
      ],
      legend: 'bottom',
      sizes,
    },
    notes: [
      'The dip in August is people, not engines.',
      'The evening boat waits for the mail. <text:span text:style-name="T2">It is right that it does.</text:span>',
    ],
  },
  {
    title: 'A day on the morning boat',
    drawing: [
      shape('rect', 'dark', at(1.4, 4.2, 5, 3), 'Quay, 6.40', ' draw:corner-radius="0.5cm"'),
      arrow(6.4, 5.7, 8.2, 5.7),
      shape('rect', 'box', at(8.2, 4.2, 4.6, 3), 'Tern Holm, 8.10'),
      arrow(12.8, 5.7, 14.6, 5.7),
      shape('ellipse', 'box', at(14.6, 4.2, 4.6, 3), 'Great Ossay, 10.05'),
      '<draw:connector draw:style-name="line" draw:type="line" svg:x1="16.9cm" svg:y1="7.2cm" svg:x2="6.4cm" svg:y2="10.3cm"/>',
      shape('rect', 'new', at(1.4, 9.4, 5, 1.8), 'Home for tea'),
      `<draw:custom-shape draw:style-name="dark" ${at(19.6, 8.6, 4.4, 3.6)}><text:p>Plover</text:p>${hull}</draw:custom-shape>`,
    ].join(''),
    notes: ['Home for tea is new this year; so is the shape it stands in, which nobody has given a style.'],
  },
  {
    title: 'Weather',
    chart: {
      kind: 'bar',
      title: 'Days by wind',
      across: '',
      up: '',
      width: '22.6cm',
      height: '9.8cm',
      categories: ['Spring', 'Summer', 'Autumn'],
      series: [
        { name: 'Calm', values: [31, 58, 22], color: '#8fb7b4' },
        { name: 'Fresh', values: [42, 29, 37], color: '#1f6f6b' },
        { name: 'In harbour', values: [18, 5, 31], color: '#1b2430' },
      ],
      stacked: true,
      sideways: true,
      labels: 'value',
      legend: 'end',
      sizes,
    },
    notes: ['Black is days on which nobody sailed, ourselves included.'],
  },
  {
    title: 'What passengers said',
    drawing:
      box(
        'Letter one',
        '<text:p>“The bench at the pier is cold, but it is a good bench, and one sits on it with ' +
          'the feeling that somebody meant it. I have sat on it in three coats. I would not have ' +
          'it changed for a warmer one that nobody meant, and I should like the paint to stay as ' +
          'it is, since my initials are in it.”</text:p>',
        1.4,
        3.4,
        10.6,
        5.2,
        'quote',
      ) +
      box(
        'Letter two',
        '<text:p>“Bread excellent. <text:span text:style-name="T1">More of it.</text:span>”</text:p>',
        13,
        3.4,
        10.6,
        3,
        'quote',
      ) +
      box(
        'Letter three',
        '<text:p>“My aunt was landed on the wrong island and has stayed there. She asks to be remembered to the mate.”</text:p>',
        13,
        7.4,
        10.6,
        4,
        'quote',
      ),
    notes: ['All three writers have allowed it. The aunt was asked too.'],
  },
  {
    title: 'What it cost',
    table: [
      ['', 'This year', 'Last year', 'Change'],
      ['Fares', '61,400', '58,900', '+2,500'],
      ['Mail', '12,000', '12,000', '0'],
      ['Coal and oil', '−39,700', '−33,100', '−6,600'],
      ['Yard', '−14,200', '−6,900', '−7,300'],
      ['Left over', '19,500', '30,900', '−11,400'],
    ],
    notes: ['The shaft again. See page five.'],
  },
  {
    title: 'The fleet, to one scale',
    drawing:
      `<draw:g draw:name="Fleet">${['Grey Plover', 'Lady of Tern Holm', 'Launch']
        .map((name, index) => {
          const width = [9, 7.6, 3.2][index]!
          return (
            `<draw:custom-shape draw:style-name="${index === 0 ? 'dark' : 'box'}" ${at(1.4, 3.2 + index * 3.3, width, 2.6)}>` +
            `<text:p>${name}</text:p>${hull}</draw:custom-shape>`
          )
        })
        .join('')}</draw:g>` +
      box(
        'Scale',
        '<text:p>One centimetre is three metres of hull.</text:p><text:p>The launch is carried ' +
          'on the Plover in summer, which is why the Plover lists, which is why the tea is always ' +
          'served to starboard.</text:p>',
        12.4,
        3.4,
        11,
        6,
        'column',
      ),
    notes: ['They are drawn by the mate, who has measured them.'],
  },
  {
    title: 'Winter service',
    drawing:
      box(
        'Left',
        '<text:p>From the lantern weeks on there is one boat, and it goes where it is asked to. ' +
          'The board at the quay says where, and whoever wants it elsewhere says so before noon.</text:p>',
        1.4,
        3.4,
        10.8,
        8,
        'column',
      ) +
      box(
        'Right',
        '<text:p>The launch stays in the water. Hay, mail and the doctor have the first places ' +
          'on it, in that order unless the doctor objects.</text:p>',
        13,
        3.4,
        10.8,
        8,
        'column',
      ),
    notes: ['The order was the doctor’s own proposal.'],
  },
  {
    title: 'What the board decides',
    outline: [
      [1, 'A third August boat'],
      [2, 'hired, with its crew'],
      [3, 'from the north shore'],
      [4, 'if their season allows'],
      [1, 'Paint for the Lady'],
      [1, 'Who tells the aunt'],
    ],
    notes: ['One vote each; the last is by show of hands.'],
  },
  {
    title: 'Until the thaw',
    cover: true,
    subtitle: 'Thank you. There is bread.',
    notes: ['Leave this page up while they eat.'],
  },
]
