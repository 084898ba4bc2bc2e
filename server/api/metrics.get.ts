import { setHeader } from 'h3'
import { route } from '../door'
import { watchingDatabase } from '../store/database'
import { metricsText, metricsType } from '../work/metrics'

/** What the desk tells those who watch over it (OpenMetrics text). */
export default route('look', async event => {
  setHeader(event, 'Content-Type', metricsType)
  return metricsText(watchingDatabase())
})
