import { getRouterParam, setResponseStatus } from 'h3'
import { route } from '../../door'
import { delivery, offers, supplierName } from '../../library/supplier'
import { addFaces } from '../../store/faces'
import { refusal } from '../../work/answer'
import { threadsFor } from '../../work/pool'

/**
 * Has a family of the simulated supplier delivered into the library. Nothing is paid: it is a stand-in for one that
 * sells.
 */
export default route('faces', async (event, acting) => {
  const id = getRouterParam(event, 'id') ?? ''
  const offer = offers('').find(each => each.id === id)
  const files = delivery(id)
  if (!offer || !files) throw refusal(404, 'The supplier has no such family. Nothing was ordered.')
  const fonts = []
  // Deliveries are checked as any other file is.
  for (const bytes of files) fonts.push(...(await threadsFor(acting).run({ kind: 'font', bytes })))
  const added = await addFaces(
    acting,
    fonts.map(font => ({ ...font, face: { ...font.face, licence: offer.licence } })),
    `${supplierName}, ${offer.designer}`,
  )
  setResponseStatus(event, 201)
  return { added, family: offer.family }
})
