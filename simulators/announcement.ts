/** The host that stands for the simulators in settings: as mail server, station and where webhooks go. */
export const HOST = 'simulator'

/** How simulators announce themselves to the server (server/simulators.ts). */
export const announcementOf = (
  mailbox: { smtpPort: number; httpPort: number },
  station: { port: number },
  pages: { port: number }
): {
  host: string
  ports: { mail: number; station: number; web: number }
  pages: string
  mailbox: string
} => ({
  host: HOST,
  ports: { mail: mailbox.smtpPort, station: station.port, web: pages.port },
  pages: `http://127.0.0.1:${pages.port}`,
  mailbox: `http://127.0.0.1:${mailbox.httpPort}`
})
