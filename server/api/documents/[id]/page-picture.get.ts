import { getQuery } from 'h3'
import { z } from 'zod'
import { route } from '../../../door'
import { refusal } from '../../../work/answer'
import { PagePictures, sendPicture } from '../../../work/pictures'
import { threadsFor } from '../../../work/pool'
import { documentOf, setContent, versionOf } from '../../../work/requests'
import { settingFor } from '../../../work/setting'

const pictures = new PagePictures()

/** One page of a version, as SVG: what records show before and after. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const page = z.coerce
    .number()
    .int()
    .min(0)
    .max(100_000)
    .parse(getQuery(event).page ?? 0)
  const version = versionOf(event, document)
  const svg = await pictures.get(
    { document: document.id, version, page, setting: await settingFor(acting, document) },
    async () => {
      const content = await setContent(acting, document, version)
      return (await threadsFor(acting).run({ kind: 'pagePicture', ...content!, page })).svg
    },
  )
  if (svg === '') throw refusal(404, 'There is no such page.')
  return sendPicture(event, svg, false)
})
