import { rmSync } from 'node:fs'

export default async () => {
  const { folder, mariadb } = globalThis.wardopticTest
  await mariadb.stop()
  rmSync(folder, { recursive: true, force: true })
}
