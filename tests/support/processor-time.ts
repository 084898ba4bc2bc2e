/**
 * Begins to measure what this process's processors do: what is returned gives the milliseconds since then. A clock would
 * also tell what else the machine has to do.
 */
export function processorTime(): () => number {
  const began = process.cpuUsage()
  return () => {
    const { user, system } = process.cpuUsage(began)
    return (user + system) / 1000
  }
}
