import type { ChildProcess } from 'node:child_process'

export function accountOf(data: string, name: 'server' | 'schema'): Record<string, string>
export function startDatabase(
  data: string,
  port: number,
  options?: { readonly lasting?: boolean },
): Promise<ChildProcess>
export function removeDatabase(data: string): void
