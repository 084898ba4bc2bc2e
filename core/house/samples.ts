/** What roles are shown with where a house has no text yet. */
const samples: Readonly<Record<string, string>> = {
  display: 'The outer islands',
  heading: 'What the boats did',
  subheading: 'Passengers by month',
  lead: 'From the first thaw to the last lantern week',
  body: 'Two boats a day to every pier',
  caption: 'The Grey Plover at Cormorant Point, in May',
  label: 'Pier box',
  data: '06.10 07.45 09.20 11.05',
  note: 'Missed on eleven days, all in March',
  code: 'tide --pier 4 --from 06:10',
}

/** A line that shows a role; of a house's own roles their title. */
export const sampleFor = ({ id, title }: { readonly id: string; readonly title: string }): string =>
  samples[id] ?? title
