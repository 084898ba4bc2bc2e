import { command } from './command'

const { stdout, stderr, status } = await command(process.argv.slice(2))
if (stdout !== '') process.stdout.write(stdout)
if (stderr !== '') process.stderr.write(stderr)
process.exitCode = status
