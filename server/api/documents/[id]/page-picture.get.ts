import { getQuery, setHeader } from 'h3'
import { z } from 'zod'
import { route } from '../../../door'
import { refusal } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { documentOf, setContent, versionOf } from '../../../work/requests'

/** One page of a version, as SVG: what records show before and after. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const page = z.coerce
    .number()
    .int()
    .min(0)
    .max(100_000)
    .parse(getQuery(event).page ?? 0)
  const content = await setContent(acting, document, versionOf(event, document))
  const { svg } = await threads().run({ kind: 'pagePicture', ...content!, page })
  if (svg === '') throw refusal(404, 'There is no such page.')
  setHeader(event, 'Content-Type', 'image/svg+xml')
  setHeader(event, 'Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'")
  setHeader(event, 'Cache-Control', 'private, max-age=600')
  return svg
})
