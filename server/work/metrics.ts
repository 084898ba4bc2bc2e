import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics, openMetricsContentType } from 'prom-client'
import type { Knex } from 'knex'

/*
 * What a desk tells those who watch over it, as OpenMetrics text. Labels are names of routes and of kinds of work, never of
 * documents or people.
 */

const registry = new Registry()
registry.setContentType(openMetricsContentType as never)
collectDefaultMetrics({ register: registry })

const requests = new Histogram({
  name: 'morphene_request_seconds',
  help: 'How long answers took, by route, method and status',
  labelNames: ['route', 'method', 'status'] as const,
  buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30],
  registers: [registry],
})
const tasks = new Histogram({
  name: 'morphene_task_seconds',
  help: 'How long work in threads took once it was taken up, by kind and how it ended',
  labelNames: ['kind', 'ended'] as const,
  buckets: [0.1, 0.3, 1, 3, 10, 30, 90, 120],
  registers: [registry],
})
const waits = new Histogram({
  name: 'morphene_task_wait_seconds',
  help: 'How long work waited for a thread, by kind',
  labelNames: ['kind'] as const,
  buckets: [0.01, 0.1, 0.3, 1, 3, 10, 30],
  registers: [registry],
})
const jobs = new Gauge({
  name: 'morphene_jobs',
  help: 'Jobs in the database, by state',
  labelNames: ['state'] as const,
  registers: [registry],
})
const complaints = new Counter({
  name: 'morphene_complaints',
  help: 'What went wrong in work that nobody waits for, by what it was',
  labelNames: ['of'] as const,
  registers: [registry],
})

/** An answer was given: its route as a pattern, its status, and how long it took in seconds. */
export function tellRequest(route: string, method: string, status: number, seconds: number): void {
  requests.observe({ route, method, status: String(status) }, seconds)
}

/** Work in a thread ended. Seconds. */
export function tellTask(kind: string, ended: 'done' | 'refused' | 'ended', waited: number, took: number): void {
  waits.observe({ kind }, waited)
  tasks.observe({ kind, ended }, took)
}

/** Something went wrong behind the scenes. */
export function tellComplaint(of: string): void {
  complaints.inc({ of })
}

/** All of it as text, with how many jobs wait and run. */
export async function metricsText(knex: Knex): Promise<string> {
  jobs.reset()
  const rows = await knex('jobs')
    .whereIn('state', ['queued', 'running', 'paused'])
    .groupBy('state')
    .select<{ state: string; n: number }[]>('state', knex.raw('count(*) as n'))
  for (const state of ['queued', 'running', 'paused'])
    jobs.set({ state }, Number(rows.find(row => row.state === state)?.n ?? 0))
  return registry.metrics()
}

/** The media type of the text. */
export const metricsType = openMetricsContentType
