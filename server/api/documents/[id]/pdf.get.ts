import { getQuery, setHeader } from 'h3'
import { z } from 'zod'
import { route } from '../../../door'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { attachment, documentOf, setContent, versionOf } from '../../../work/requests'

const querySchema = z.object({
  bleed: z.coerce.number().min(0).max(25).default(0),
  marks: z.enum(['yes', 'no']).default('no'),
  leaveOut: z.enum(['yes', 'no']).default('no'),
  notes: z.enum(['yes', 'no']).default('no'),
})

/** The pages of a version as PDF. `bleed` in millimetres; what the file does not hold is told in a header, as JSON. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { bleed, marks, leaveOut, notes } = querySchema.parse(getQuery(event))
  const content = await setContent(acting, document, versionOf(event, document))
  if (!content) throw refusal(404, 'There is no such version.')
  const { bytes, pages, notEmbedded, pictures, unlaid } = await threadsFor(acting).run({
    kind: 'pdf',
    ...content,
    options: {
      bleed: (bleed * 72) / 25.4,
      cropMarks: marks === 'yes',
      leaveOut: leaveOut === 'yes',
      notes: notes === 'yes',
      made: Date.now(),
    },
  })
  setHeader(event, 'Content-Type', 'application/pdf')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(
    event,
    'X-Pdf-Notes',
    encodeURIComponent(
      JSON.stringify({
        pages,
        notEmbedded,
        pictures: pictures.slice(0, 20).map(path => path.slice(-80)),
        unlaid: unlaid.slice(0, 20),
      }),
    ),
  )
  setHeader(event, 'Content-Disposition', attachment(document.fileName.replace(/\.\w+$/, '.pdf')))
  return Buffer.from(bytes)
})
