import { problemWords } from '../../core/messages/errorWords.ts'
import { siteForm as msg } from '../../core/messages/en/site.ts'
import './site.css'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteView } from '../../core/api.ts'
import { said } from '../../core/messages/said.ts'
import { places } from '../../core/sites/places.ts'
import type { SiteSettings } from '../../core/sites/settings.ts'
import { atServer } from '../sync/saver.ts'
import { SiteForm, siteFields } from './SiteForm.tsx'

/** The browser's own place, until somebody says another one. */
function suggested({ timeZone: fallback }: SiteView): SiteSettings {
  const { timeZone = fallback } = Intl.DateTimeFormat().resolvedOptions()
  const place = places.find((p) => p.timeZone === timeZone)
  return {
    name: '',
    timeZone: place ? timeZone : fallback,
    position: place ? { latitude: place.latitude, longitude: place.longitude } : null,
    surroundings: 'outdoors'
  }
}

/** The first thing after the first account: what the site is called, and where it is. */
export function SiteSetup({ site }: { site: SiteView }): ReactNode {
  const queries = useQueryClient()
  const [settings, setSettings] = useState(() => suggested(site))
  const [error, setError] = useState<string | null>(null)
  const [saving, setSaving] = useState(false)
  const save = async (): Promise<void> => {
    setSaving(true)
    try {
      await atServer.put('/site', { settings }, site.version, said('edits.site'))
      await queries.invalidateQueries({ queryKey: ['site'] })
    } catch (problem) {
      setError(problemWords(problem, siteFields))
      setSaving(false)
    }
  }
  return (
    <main className="site-setup">
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void save()
        }}
      >
        <h1>{msg.setUpYourSite}</h1>
        <p className="quiet">{msg.belongsToASite}</p>
        <SiteForm value={settings} onChange={setSettings} />
        {error && <Alert type="error" title={error} />}
        <Button type="primary" htmlType="submit" loading={saving} disabled={!settings.name.trim()}>
          {msg.setUp}
        </Button>
      </form>
    </main>
  )
}
