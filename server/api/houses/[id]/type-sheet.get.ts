import { getQuery } from 'h3'
import { z } from 'zod'
import { makeTypeSheet } from '../../../../core/format/odf/type-sheet'
import { media } from '../../../../core/house/house'
import { route } from '../../../door'
import { findHouse } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { madeAsPdf } from '../../../work/handing'
import { houseOf } from '../../../work/requests'

const querySchema = z.strictObject({ medium: z.enum(media).default('text') })

/** The type sheet of a house as it is worked on, as PDF at true size. */
export default route('take', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  const asked = querySchema.safeParse(getQuery(event))
  if (!asked.success) throw refusal(422, 'A type sheet is of texts, decks or sheets. None was made.')
  const house = (await findHouse(acting, id))!
  const state =
    house.issued === 0
      ? 'not issued yet'
      : house.pending.length === 0
        ? `version ${house.issued}`
        : `worked on since version ${house.issued}`
  return madeAsPdf(event, acting, makeTypeSheet(house.working, asked.data.medium, state), `${house.name} type sheet`)
})
