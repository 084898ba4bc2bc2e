import { setResponseStatus } from 'h3'
import { z } from 'zod'
import { headingSchema, keptNameSchema, keptSorts, type KeptSort } from '../../../../shared/kept'
import { route } from '../../../door'
import { keep } from '../../../store/kept'
import { refusal } from '../../../work/answer'
import { bodyOf, keptKindOf } from '../../../work/requests'

/** Keeps something under a name. */
export default route('arrange', async (event, acting) => {
  const kind = keptKindOf(event)
  const { data: schema, most, called, refuses } = keptSorts[kind] as KeptSort
  const body = z.strictObject({ heading: headingSchema.default(''), name: keptNameSchema, data: schema })
  const { heading, name, data } = await bodyOf(event, body)
  const reason = refuses(data)
  if (reason !== null) throw refusal(422, reason)
  const id = await keep(acting, kind, { heading, name, data: data as never })
  if (id === null)
    throw refusal(
      422,
      `${most} ${called} are kept already, the most there can be. Remove some first. Nothing was kept.`,
    )
  setResponseStatus(event, 201)
  return { id }
})
