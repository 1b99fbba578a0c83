import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { capital } from '../../core/messages/format.ts'
import { abilities as msg } from '../../core/messages/en/upkeep.ts'
import './devices.css'
import { DownloadOutlined, ReloadOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import { Alert, Button, Drawer, Spin } from 'antd'
import type { ReactNode } from 'react'
import type { AbilitiesView, AbilityView } from '../../core/devices/upkeep.ts'
import type { DeviceView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { kindNames } from '../../core/kinds/names.ts'
import { Failed, NotRun, Passed, Skipped } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'
import { abilityText } from './abilityText.ts'

const signs = {
  works: <Passed />,
  partly: <NotRun />,
  'not-offered': <Skipped />,
  refused: <Failed />,
  'no-answer': <Failed />
} as const

/** What works with a device, each tried when this is opened. */
export function Abilities({
  device,
  onClose
}: {
  device: DeviceView
  onClose: () => void
}): ReactNode {
  const clock = useClock()
  const found = useQuery({
    queryKey: ['abilities', device.id],
    queryFn: () => request<AbilitiesView>('GET', `/devices/${device.id}/abilities`),
    staleTime: 0,
    gcTime: 0,
    retry: false,
    refetchOnWindowFocus: false
  })
  const channels = [...new Set(found.data?.abilities.map((a) => a.channel) ?? [])]
  const save = (view: AbilitiesView): void => {
    const url = URL.createObjectURL(
      new Blob([abilityText(device, view, clock.dateAndTime)], { type: 'text/plain' })
    )
    const link = document.createElement('a')
    link.href = url
    link.download = `${device.name.replace(/[^\p{L}\p{N}-]+/gu, '-')}.txt`
    link.click()
    URL.revokeObjectURL(url)
  }
  return (
    <Drawer
      open
      size={560}
      title={msg.whatWorksWith(device.name)}
      onClose={onClose}
      extra={
        <span className="row">
          <Button
            icon={<ReloadOutlined aria-hidden />}
            loading={found.isFetching}
            onClick={() => void found.refetch()}
          >
            {msg.tryAgain}
          </Button>
          <Button
            icon={<DownloadOutlined aria-hidden />}
            disabled={!found.data}
            onClick={() => found.data && save(found.data)}
          >
            {msg.saveAsText}
          </Button>
        </span>
      }
    >
      {found.error && <Alert type="error" title={problemWords(found.error)} />}
      {found.isFetching && !found.data && (
        <div className="quiet">
          <Spin size="small" /> {msg.trying}
        </div>
      )}
      {found.data &&
        channels.map((channel) => (
          <section key={channel} className="abilities" aria-label={channel ?? msg.device}>
            {channels.length > 1 && <h3>{channel ?? msg.device}</h3>}
            <table>
              <tbody>
                {found.data.abilities
                  .filter((a) => a.channel === channel)
                  .map((a) => (
                    <tr key={`${a.ability} ${a.kind}`}>
                      <td>{abilityName(a)}</td>
                      <td
                        className={a.state === 'refused' || a.state === 'no-answer' ? 'failed' : ''}
                      >
                        {signs[a.state]} {msg.states[a.state]}
                      </td>
                      <td className="quiet">{a.says === null ? '' : wordsOf(a.says)}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </section>
        ))}
    </Drawer>
  )
}

const abilityName = ({ ability, kind }: AbilityView): string =>
  kind === null ? msg.names[ability] : capital(kindNames[kind])
