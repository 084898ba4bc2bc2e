import { getQuery } from 'h3'
import { z } from 'zod'
import { route } from '../../../door'
import { findDocument } from '../../../store/documents'
import { refusal } from '../../../work/answer'
import { plainName, reportAsPdf } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { documentOf, setContent } from '../../../work/requests'

const querySchema = z.object({ against: z.uuid(), version: z.coerce.number().int().min(1) })

/** In what the newest version differs from an earlier one, or from another document, as PDF. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { against, version } = querySchema.parse(getQuery(event))
  const other = await findDocument(acting, against)
  const before = other && (await setContent(acting, other, version))
  if (!before) throw refusal(404, 'What it shall be compared with is not on the shelf. It may have been removed.')
  const own = plainName(document)
  const name = other.id === document.id ? `version ${version}` : plainName(other)
  const bytes = await threadsFor(acting).run({
    kind: 'comparison',
    before,
    after: (await setContent(acting, document, document.version))!,
    names: other.id === document.id ? [`${own}, version ${version}`, `version ${document.version}`] : [name, own],
    made: Date.now(),
  })
  return reportAsPdf(event, bytes, `${own}, compared with ${name}`)
})
