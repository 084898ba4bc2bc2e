import { getQuery, setHeader } from 'h3'
import { z } from 'zod'
import { makeTypeSheet } from '../../../../core/format/odf/type-sheet'
import { media } from '../../../../core/house/house'
import { route } from '../../../door'
import { findHouse } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { attachment, houseOf } from '../../../work/requests'
import { settingFor } from '../../../work/setting'

const querySchema = z.strictObject({ medium: z.enum(media).default('text') })

/** The type sheet of a house as it is worked on, as PDF at true size. */
export default route('take', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  const asked = querySchema.safeParse(getQuery(event))
  if (!asked.success) throw refusal(422, 'A type sheet is of texts, decks or sheets. None was made.')
  const house = (await findHouse(acting, id))!
  const setting = await settingFor(acting, { id: '', folder: null })
  const state =
    house.issued === 0
      ? 'not issued yet'
      : house.pending.length === 0
        ? `version ${house.issued}`
        : `worked on since version ${house.issued}`
  const { bytes } = await threadsFor(acting).run({
    kind: 'pdf',
    bytes: makeTypeSheet(house.working, asked.data.medium, state),
    ids: {},
    ...(setting === undefined ? {} : { setting }),
    options: { bleed: 0, cropMarks: false, leaveOut: false, notes: false, made: Date.now() },
  })
  setHeader(event, 'Content-Type', 'application/pdf')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(event, 'Content-Disposition', attachment(`${house.name} type sheet.pdf`))
  return Buffer.from(bytes)
})
