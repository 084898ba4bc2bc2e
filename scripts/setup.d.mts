import type { ChildProcess } from 'node:child_process'

export const own: string
export function portFree(port: number): Promise<boolean>
export function end(child: ChildProcess | null, signal?: NodeJS.Signals): Promise<void>
export function runTypeScript(
  file: string,
  args: readonly string[],
  environment: Readonly<Record<string, string>>,
): Promise<void>
