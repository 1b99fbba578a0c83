import { atSite } from '../api/here.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { searchPart as msg } from '../../core/messages/en/watch.ts'
import { DownloadOutlined } from '@ant-design/icons'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Alert, Button, Input, Select } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import type { DetectionKind } from '../../core/formats/plan.ts'
import { CLASSES } from '../../core/targets/classes.ts'
import type { CountsView, FoundTrigger, SearchView } from '../../core/watch/search.ts'
import type { WatchView } from '../../core/watch/views.ts'
import { request } from '../api/client.ts'
import { kindNames } from '../../core/kinds/names.ts'
import { useStable } from '../stable.ts'
import { alarm } from '../../core/messages/en/alarms.ts'
import { causes, classes } from '../../core/messages/en/codes/conditions.ts'
import { dateAndSecond, dateAndTime, dateOf } from '../../core/messages/format.ts'
import { MomentPicker } from '../words/MomentPicker.tsx'
import { Flag } from '../words/signs.tsx'

const TYPED_MS = 350
const FILTERS = [
  'camera',
  'detection',
  'kind',
  'class',
  'way',
  'direction',
  'acknowledged',
  'from',
  'to',
  'words'
] as const
type Filter = (typeof FILTERS)[number]

/** Of lines whose sides have no names. */
const plainWays = { leftToRight: msg.leftToRight, rightToLeft: msg.rightToLeft } as const

/** Triggers looked up again: filters, how many over time, and their pictures. */
export function SearchPart({
  view,
  address,
  onAddress,
  onAlarm
}: {
  view: WatchView
  address: URLSearchParams
  onAddress: (change: Record<string, string | null>) => void
  onAlarm: (trigger: FoundTrigger) => void
}): ReactNode {
  const { timeZone } = view.site
  const query = new URLSearchParams(
    FILTERS.flatMap((key) => (address.get(key) ? [[key, address.get(key)!]] : []))
  ).toString()
  const ways = useQuery({
    queryKey: ['ways'],
    queryFn: () => request<string[]>('GET', '/triggers/ways')
  })
  const counts = useQuery({
    queryKey: ['counts', query],
    queryFn: () => request<CountsView>('GET', `/triggers/counts?${query}`),
    placeholderData: (old) => old
  })
  const pages = useInfiniteQuery({
    queryKey: ['search', query],
    queryFn: ({ pageParam }) =>
      request<SearchView>('GET', `/triggers?${query}${pageParam ? `&after=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (last) => last.next ?? undefined
  })
  const set = (key: Filter, value: string | null | undefined): void =>
    onAddress({ [key]: value || null })
  const found = pages.data?.pages.flatMap((p) => p.triggers) ?? []
  const choose = (
    key: Filter,
    label: string,
    options: { value: string; label: string }[]
  ): ReactNode => (
    <Select
      size="small"
      allowClear
      aria-label={label}
      placeholder={label}
      value={address.get(key) ?? undefined}
      options={options}
      onChange={(value?: string) => set(key, value)}
      popupMatchSelectWidth={false}
    />
  )
  return (
    <section className="search-part" aria-label={msg.search}>
      <div className="search-filters">
        {choose(
          'camera',
          common.camera,
          view.cameras.map((c) => ({ value: c.id, label: c.name }))
        )}
        {choose(
          'kind',
          msg.kind,
          Object.entries(kindNames).map(([value, label]) => ({
            value: value as DetectionKind,
            label
          }))
        )}
        {choose(
          'class',
          common.class,
          CLASSES.map((value) => ({ value, label: classes[value] }))
        )}
        <Select
          size="small"
          allowClear
          aria-label={common.direction}
          placeholder={common.direction}
          value={address.get('way') ?? address.get('direction') ?? undefined}
          options={[
            ...(ways.data ?? []).map((value) => ({ value, label: value })),
            ...Object.entries(plainWays).map(([value, label]) => ({ value, label }))
          ]}
          onChange={(value?: string) =>
            onAddress(
              value !== undefined && value in plainWays
                ? { way: null, direction: value }
                : { way: value ?? null, direction: null }
            )
          }
          popupMatchSelectWidth={false}
        />
        {choose('acknowledged', msg.acknowledged, [
          { value: 'no', label: msg.stillWaits },
          { value: 'yes', label: msg.acknowledged }
        ])}
        <Moment
          label={common.from}
          value={address.get('from')}
          timeZone={timeZone}
          onChange={(v) => set('from', v)}
        />
        <Moment
          label={msg.before}
          value={address.get('to')}
          timeZone={timeZone}
          onChange={(v) => set('to', v)}
        />
        <Words value={address.get('words') ?? ''} onChange={(v) => set('words', v)} />
        <span className="grow" />
        <Button
          size="small"
          icon={<DownloadOutlined aria-hidden />}
          href={atSite(`/triggers.csv?${query}`)}
        >
          {msg.csv}
        </Button>
      </div>
      {pages.error && <Alert type="error" title={problemWords(pages.error)} />}
      {counts.data && counts.data.total > 0 && (
        <div className="search-counts">
          <p className="quiet">{msg.triggers(counts.data.total)}</p>
          <Counts
            counts={counts.data}
            timeZone={timeZone}
            onSpan={(from, to) => onAddress({ from: String(from), to: String(to) })}
          />
        </div>
      )}
      <ul className="search-results" aria-busy={pages.isFetching}>
        {found.map((trigger) => (
          <li key={trigger.id}>
            <Result
              trigger={trigger}
              camera={view.cameras.find((c) => c.id === trigger.camera)?.name ?? trigger.camera}
              timeZone={timeZone}
              onOpen={() => onAlarm(trigger)}
            />
          </li>
        ))}
      </ul>
      {!found.length && !pages.isFetching && (
        <p className="search-none">{query ? msg.noResultsRemoveA : msg.noTriggerYet}</p>
      )}
      {pages.hasNextPage && (
        <Button loading={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
          {msg.showEarlier}
        </Button>
      )}
    </section>
  )
}

function Moment({
  label,
  value,
  timeZone,
  onChange
}: {
  label: string
  value: string | null
  timeZone: string
  onChange: (value: string | null) => void
}): ReactNode {
  return (
    <span className="search-moment">
      {label}
      <MomentPicker
        size="small"
        label={label}
        value={value === null ? null : Number(value)}
        timeZone={timeZone}
        onChange={(at) => onChange(at === null ? null : String(at))}
      />
    </span>
  )
}

function Words({
  value,
  onChange
}: {
  value: string
  onChange: (value: string) => void
}): ReactNode {
  const [typed, setTyped] = useState(value)
  // Only what was typed starts it.
  const change = useStable((words: string) => words !== value && onChange(words))
  useEffect(() => {
    const timer = setTimeout(() => change(typed.trim()), TYPED_MS)
    return () => clearTimeout(timer)
  }, [typed, change])
  return (
    <Input
      size="small"
      allowClear
      aria-label={msg.commentContains}
      placeholder={msg.commentContains}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
    />
  )
}

/** How many over time; a bar narrows the search to its stretch. */
function Counts({
  counts,
  timeZone,
  onSpan
}: {
  counts: CountsView
  timeZone: string
  onSpan: (from: number, to: number) => void
}): ReactNode {
  const moment = (at: number): string =>
    counts.step < 86_400_000 ? dateAndTime(at, timeZone) : dateOf(at, timeZone)
  const [first, last] = [counts.buckets[0]!.at, counts.buckets[counts.buckets.length - 1]!.at]
  const known = new Map(counts.buckets.map((b) => [b.at, b.n]))
  const bars = Array.from({ length: (last - first) / counts.step + 1 }, (_, i) => ({
    at: first + i * counts.step,
    n: known.get(first + i * counts.step) ?? 0
  }))
  return (
    <ResponsiveContainer width="100%" height={84}>
      <BarChart data={bars} margin={{ top: 2, right: 4, bottom: 0, left: 0 }}>
        <XAxis
          dataKey="at"
          tickFormatter={moment}
          tick={{ fontSize: 11, fill: 'var(--quiet)' }}
          minTickGap={60}
          stroke="var(--hairline)"
        />
        <YAxis
          allowDecimals={false}
          tickCount={3}
          width={34}
          tick={{ fontSize: 11, fill: 'var(--quiet)' }}
          stroke="var(--hairline)"
        />
        <Tooltip
          cursor={{ fill: 'rgb(31 111 92 / 12%)' }}
          labelFormatter={(at) => moment(Number(at))}
          formatter={(n) => [String(n), msg.triggersLabel]}
        />
        <Bar
          dataKey="n"
          fill="var(--accent)"
          isAnimationActive={false}
          cursor="pointer"
          onClick={(_, i) => onSpan(bars[i]!.at, bars[i]!.at + counts.step)}
        />
      </BarChart>
    </ResponsiveContainer>
  )
}

function Result({
  trigger: t,
  camera,
  timeZone,
  onOpen
}: {
  trigger: FoundTrigger
  camera: string
  timeZone: string
  onOpen: () => void
}): ReactNode {
  const [failed, setFailed] = useState(false)
  return (
    <button type="button" className="search-result" onClick={onOpen}>
      {failed ? (
        <span className="no-picture">{msg.noPictureOfIt}</span>
      ) : (
        <img
          src={atSite(`/triggers/${t.id}/picture`)}
          alt=""
          width="320"
          height="180"
          loading="lazy"
          onError={() => setFailed(true)}
        />
      )}
      <strong>
        {!t.acknowledged && (
          <span className="alarm-mark" aria-label={msg.stillWaits2}>
            <Flag />{' '}
          </span>
        )}
        {t.name}
      </strong>
      <span className="quiet figures">{dateAndSecond(t.at, timeZone)}</span>
      <small className="quiet">
        {[
          camera,
          t.class && classes[t.class],
          t.way ?? (t.direction && plainWays[t.direction]),
          t.cause && causes[t.cause],
          t.clip && alarm.fromAClip
        ]
          .filter(Boolean)
          .join(' · ')}
      </small>
    </button>
  )
}
