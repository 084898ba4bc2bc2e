import { getRouterParam } from 'h3'
import { z } from 'zod'
import { headingSchema, keptNameSchema, keptSorts, type KeptSort } from '../../../../shared/kept'
import { route } from '../../../door'
import { changeKept } from '../../../store/kept'
import { refusal } from '../../../work/answer'
import { bodyOf, keptKindOf } from '../../../work/requests'

/** Gives something that is kept another heading, name or content. */
export default route('arrange', async (event, acting) => {
  const kind = keptKindOf(event)
  const id = z.uuid().parse(getRouterParam(event, 'id'))
  const { data: schema, refuses } = keptSorts[kind] as KeptSort
  const body = z.strictObject({
    heading: headingSchema.optional(),
    name: keptNameSchema.optional(),
    data: schema.optional(),
  })
  const change = await bodyOf(event, body)
  const reason = change.data === undefined ? null : refuses(change.data)
  if (reason !== null) throw refusal(422, reason)
  const done = await changeKept(acting, kind, id, change as never)
  if (done === 'gone') throw refusal(404, 'this is not kept any more.')
  if (done === 'taken') throw refusal(422, `“${change.name}” is the name of another one. Nothing was changed.`)
  return { id }
})
