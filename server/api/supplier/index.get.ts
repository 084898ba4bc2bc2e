import { getQuery } from 'h3'
import { z } from 'zod'
import { offers, supplierName } from '../../library/supplier'
import { answer } from '../../work/answer'

/** What the simulated supplier has; with `query` what goes by that name. */
export default answer(event => {
  const query = z.string().max(200).default('').parse(getQuery(event).query)
  return Promise.resolve({ supplier: supplierName, offers: offers(query) })
})
