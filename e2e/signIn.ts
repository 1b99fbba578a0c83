import { readFileSync } from 'node:fs'
import { request, type FullConfig } from '@playwright/test'
import { SIGNED_IN } from './signedIn.ts'

/** Signs the demo's installer in once for all tests. */
export default async function signIn(config: FullConfig): Promise<void> {
  const { accounts } = JSON.parse(
    readFileSync(new URL('../demo/plan.json', import.meta.url), 'utf8')
  ) as { accounts: { username: string; password: string; role: string }[] }
  const { username, password } = accounts.find(({ role }) => role === 'installer')!
  const api = await request.newContext({ baseURL: config.projects[0].use.baseURL })
  const answer = await api.post('/api/session', { data: { username, password } })
  if (!answer.ok()) throw new Error(`signing in: ${await answer.text()}`)
  await api.storageState({ path: SIGNED_IN })
  await api.dispose()
}
