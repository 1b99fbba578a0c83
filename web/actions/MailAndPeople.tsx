import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { mailAndPeople as msg } from '../../core/messages/en/actions/actions.ts'
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteActionsView } from '../../core/api.ts'
import { refusalOf } from '../sync/refusal.ts'
import {
  MAIL_ENCRYPTIONS,
  MailSchema,
  PeopleSchema,
  type Mail,
  type People
} from '../../core/formats/actions.ts'
import { request } from '../api/client.ts'
import { newId } from '../sync/newId.ts'
import { noteHeaders } from '../api/note.ts'
import type { SiteDocument, SiteState } from '../sync/siteDocument.ts'
import { useSimulators } from './useSimulators.ts'
import { Field, TextField } from './fields.tsx'
import { parseWith } from '../../core/schema/parse.ts'

const encryptionWords: Record<(typeof MAIL_ENCRYPTIONS)[number], string> = {
  none: common.none,
  starttls: msg.starttlsUsuallyPort587,
  tls: msg.tlsUsuallyPort465
}
const EMPTY = {
  host: '',
  port: '587',
  encryption: 'starttls' as Mail['encryption'],
  username: '',
  sender: ''
}

export function MailAndPeople({
  view,
  state,
  document
}: {
  view: SiteActionsView
  state: SiteState
  document: SiteDocument
}): ReactNode {
  return (
    <div className="mail-and-people">
      <MailServer key={view.mail.version} view={view} />
      <PeopleEditor people={state.people} document={document} />
    </div>
  )
}

/** The mail server; kept with a button, as a half-typed one would send nothing. */
function MailServer({ view }: { view: SiteActionsView }): ReactNode {
  const queries = useQueryClient()
  const { mail, hasPassword, version } = view.mail
  const simulators = useSimulators()
  const [form, setForm] = useState(
    mail ? { ...mail, port: String(mail.port), username: mail.username ?? '' } : EMPTY
  )
  const [password, setPassword] = useState<string | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [saved, setSaved] = useState(false)
  const set = (change: Partial<typeof form>): void => {
    setSaved(false)
    setForm({ ...form, ...change })
  }
  const keep = async (): Promise<void> => {
    setError(null)
    try {
      const wanted = parseWith(MailSchema, {
        ...form,
        port: /^\d+$/.test(form.port) ? Number(form.port) : form.port,
        username: form.username || null
      })
      await request(
        'PUT',
        '/settings/mail',
        { mail: wanted, version, ...(password !== null && { password: password || null }) },
        { headers: noteHeaders(said('edits.mailServer')) }
      )
      setSaved(true)
      await queries.invalidateQueries()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  const input = (
    label: string,
    value: string,
    onChange: (value: string) => void,
    more: { type?: string; placeholder?: string } = {}
  ): ReactNode => (
    <Field label={label}>
      <Input
        size="small"
        aria-label={label}
        value={value}
        autoComplete="off"
        onChange={(e) => onChange(e.target.value)}
        {...more}
      />
    </Field>
  )
  return (
    <section aria-label={msg.mailServer}>
      <h2>{msg.mailServer}</h2>
      {!mail && <Alert type="warning" title={msg.withoutAMailServerNo} />}
      {input(msg.server, form.host, (host) => set({ host }), { placeholder: msg.serverSuchAs })}
      {simulators && <p className="quiet">{msg.isWardopticsOwnMailbox(simulators.host)}</p>}
      {input(msg.port, form.port, (port) => set({ port }))}
      <Field label={msg.encryption}>
        <Select
          size="small"
          aria-label={msg.encryption}
          value={form.encryption}
          options={MAIL_ENCRYPTIONS.map((value) => ({ value, label: encryptionWords[value] }))}
          onChange={(encryption) => set({ encryption })}
        />
      </Field>
      {input(common.account, form.username, (username) => set({ username }), {
        placeholder: common.none
      })}
      {input(common.password, password ?? '', setPassword, {
        type: 'password',
        placeholder: hasPassword ? msg.savedEncrypted : common.none
      })}
      {input(msg.sender, form.sender, (sender) => set({ sender }), {
        placeholder: msg.senderSuchAs
      })}
      {error && (
        <span className="field-error" role="alert">
          {error}
        </span>
      )}
      <div className="row wrap">
        <Button type="primary" onClick={() => void keep()}>
          {common.save}
        </Button>
        {saved && <span role="status">{msg.savedTestEachE}</span>}
      </div>
    </section>
  )
}

/** People and groups: whose alarms, and addresses for mails. */
function PeopleEditor({ people, document }: { people: People; document: SiteDocument }): ReactNode {
  const [name, setName] = useState('')
  const keep = (next: People, label: Said): string | null => {
    return refusalOf(() => document.edit(label, ['people:', parseWith(PeopleSchema, next)]))
  }
  const setPerson = (id: string, change: Partial<People['people'][number]>): string | null =>
    keep(
      { ...people, people: people.people.map((p) => (p.id === id ? { ...p, ...change } : p)) },
      said('edits.people')
    )
  const setGroup = (id: string, change: Partial<People['groups'][number]>): string | null =>
    keep(
      { ...people, groups: people.groups.map((g) => (g.id === id ? { ...g, ...change } : g)) },
      said('edits.changeTheGroups')
    )
  return (
    <section aria-label={msg.peopleAndGroups}>
      <h2>{msg.peopleAndGroups}</h2>
      {people.people.length === 0 && <p className="quiet">{msg.nobodyYetAlarmsAreEverybodys}</p>}
      <ul className="people">
        {people.people.map((p) => (
          <li key={p.id}>
            <TextField
              key={`name ${p.name}`}
              label={common.name}
              value={p.name}
              onKeep={(text) => setPerson(p.id, { name: text })}
            />
            <TextField
              key={`mail ${p.email}`}
              label={msg.eMail}
              value={p.email ?? ''}
              placeholder={msg.none}
              onKeep={(text) => setPerson(p.id, { email: text.trim() || undefined })}
            />
            <Button
              size="small"
              type="text"
              aria-label={msg.remove(p.name)}
              icon={<DeleteOutlined aria-hidden />}
              onClick={() =>
                keep(
                  {
                    people: people.people.filter((x) => x.id !== p.id),
                    groups: people.groups.map((g) => ({
                      ...g,
                      members: g.members.filter((m) => m !== p.id)
                    }))
                  },
                  said('edits.takeOut', p.name)
                )
              }
            />
          </li>
        ))}
        {people.groups.map((g) => (
          <li key={g.id}>
            <TextField
              key={`name ${g.name}`}
              label={msg.group}
              value={g.name}
              onKeep={(text) => setGroup(g.id, { name: text })}
            />
            <Field label={msg.members}>
              <Select
                size="small"
                mode="multiple"
                aria-label={msg.membersOf(g.name)}
                value={g.members}
                options={people.people.map((p) => ({ value: p.id, label: p.name }))}
                onChange={(members: string[]) => setGroup(g.id, { members })}
              />
            </Field>
            <Button
              size="small"
              type="text"
              aria-label={msg.remove(g.name)}
              icon={<DeleteOutlined aria-hidden />}
              onClick={() =>
                keep(
                  { ...people, groups: people.groups.filter((x) => x.id !== g.id) },
                  said('edits.takeOut', g.name)
                )
              }
            />
          </li>
        ))}
      </ul>
      <div className="row">
        <Input
          size="small"
          aria-label={msg.newName}
          placeholder={msg.newName}
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
        />
        <Button
          size="small"
          icon={<PlusOutlined aria-hidden />}
          disabled={!name.trim()}
          onClick={() => {
            keep(
              { ...people, people: [...people.people, { id: newId('person'), name }] },
              said('edits.newPerson', name.trim())
            )
            setName('')
          }}
        >
          {msg.person}
        </Button>
        <Button
          size="small"
          icon={<PlusOutlined aria-hidden />}
          disabled={!name.trim()}
          onClick={() => {
            keep(
              { ...people, groups: [...people.groups, { id: newId('group'), name, members: [] }] },
              said('edits.newGroup', name.trim())
            )
            setName('')
          }}
        >
          {msg.group}
        </Button>
      </div>
    </section>
  )
}
