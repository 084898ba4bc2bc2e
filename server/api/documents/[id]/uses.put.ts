import { z } from 'zod'
import { licenceUses } from '../../../../core/font/licence'
import { route } from '../../../door'
import { setUses } from '../../../store/documents'
import { bodyOf, documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({ uses: z.array(z.enum(licenceUses)).max(licenceUses.length) })

/** Says what a document is made for: the uses that its faces must be licensed for. */
export default route('arrange', async (event, acting) => {
  const { id } = await documentOf(event, acting)
  const uses = [...new Set((await bodyOf(event, bodySchema)).uses)]
  await setUses(acting, id, uses)
  return { uses }
})
