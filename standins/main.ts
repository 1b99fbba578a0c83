import { startMailbox } from './mailbox.ts'

/** The outside world on loopback, as one process. Says its ports in one JSON line, ends when its parent does. */
const [folder] = process.argv.slice(2)
const mailbox = await startMailbox(folder)
process.stdout.write(`${JSON.stringify({ smtpPort: mailbox.smtpPort, mailboxPort: mailbox.httpPort })}\n`)

const end = (): void => void mailbox.close().then(() => process.exit(0))
process.on('SIGTERM', end)
// Ctrl-C reaches the whole group; the parent decides the order of the end.
process.on('SIGINT', () => {})
process.stdin.on('end', end).resume()
