import { Alert } from 'antd'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useSite } from '../api/queries.ts'

/** The cameras of the site as cards; each leads to its Bench. */
export function SitePlace(): ReactNode {
  const site = useSite()
  if (site.error) return <Alert className="notice" type="error" showIcon title={site.error.message} />
  if (!site.data) return <p className="waiting">Reading the site …</p>
  const { cameras, timeZone } = site.data
  return (
    <main className="site-place">
      <header>
        <h1>{site.data.name}</h1>
        <p className="quiet">
          {cameras.length} cameras · {timeZone}
        </p>
      </header>
      <ul className="camera-cards">
        {cameras.map((camera) => (
          <li key={camera.id}>
            <Link to={`/bench/${camera.id}`} className="camera-card">
              {camera.clip ? (
                <img src={`/api/clips/${camera.clip}/picture?at=10`} alt="" width="320" height="180" />
              ) : (
                <span className="no-picture">No clip yet</span>
              )}
              <strong>{camera.name}</strong>
              <span className="quiet">
                {camera.detections === 0 ? 'Nothing drawn yet' : `${camera.detections} ${camera.detections === 1 ? 'detection' : 'detections'} drawn`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  )
}
