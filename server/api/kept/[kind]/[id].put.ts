import { getRouterParam } from 'h3'
import { z } from 'zod'
import { headingSchema, keptNameSchema, keptSorts } from '../../../../shared/kept'
import { route } from '../../../door'
import { changeKept } from '../../../store/kept'
import { refusal } from '../../../work/answer'
import { bodyOf, keptKindOf } from '../../../work/requests'

/** Gives something that is kept another heading, name or content. */
export default route('arrange', async (event, acting) => {
  const kind = keptKindOf(event)
  const id = z.uuid().parse(getRouterParam(event, 'id'))
  const schema = keptSorts[kind].data as z.ZodType
  const body = z.strictObject({
    heading: headingSchema.optional(),
    name: keptNameSchema.optional(),
    data: schema.optional(),
  })
  const change = await bodyOf(event, body)
  if (!(await changeKept(acting, kind, id, change as never))) throw refusal(404, 'this is not kept any more.')
  return { id }
})
