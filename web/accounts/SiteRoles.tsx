import { common } from '../../core/messages/en/common.ts'
import { accountList as msg, roles as roleNames } from '../../core/messages/en/accounts.ts'
import { CloseOutlined } from '@ant-design/icons'
import { Button, Popover, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { ROLES, type AccountView, type SiteRole } from '../../core/accounts/accounts.ts'
import type { SiteSummary } from '../../core/sites/views.ts'

const roles = ROLES.map((value) => ({ value, label: roleNames[value] }))

/** Where an account has a role of its own, in place of the one on every site. */
export function SiteRoles({
  account: { name, sites: own },
  sites,
  onChange
}: {
  account: AccountView
  sites: readonly SiteSummary[]
  onChange: (own: SiteRole[]) => Promise<void>
}): ReactNode {
  const [open, setOpen] = useState(false)
  const nameOf = (id: string): string => sites.find((s) => s.id === id)?.name ?? msg.deletedSite
  const list = (
    <div className="site-roles">
      {own.length === 0 && <p className="quiet">{msg.noneBySite}</p>}
      {own.map((one) => (
        <div key={one.site} className="site-role">
          <span>{nameOf(one.site)}</span>
          <Select
            size="small"
            aria-label={msg.roleAt(name, nameOf(one.site))}
            value={one.role}
            options={roles}
            popupMatchSelectWidth={false}
            onChange={(role) =>
              void onChange(own.map((o) => (o.site === one.site ? { ...o, role } : o)))
            }
          />
          <Button
            size="small"
            type="text"
            aria-label={msg.removeRoleAt(nameOf(one.site))}
            icon={<CloseOutlined aria-hidden />}
            onClick={() => void onChange(own.filter((o) => o.site !== one.site))}
          />
        </div>
      ))}
      <Select
        size="small"
        aria-label={msg.addASite}
        placeholder={msg.addASite}
        value={null}
        showSearch={{ optionFilterProp: 'label' }}
        options={sites
          .filter((s) => !own.some((o) => o.site === s.id))
          .map(({ id, name: label }) => ({ value: id, label }))}
        onChange={(site: string | null) => {
          if (site !== null) void onChange([...own, { site, role: 'operator' }])
        }}
      />
    </div>
  )
  return (
    <Popover
      open={open}
      onOpenChange={setOpen}
      trigger="click"
      placement="bottomRight"
      title={msg.rolesBySite(name)}
      content={list}
    >
      <Button size="small" type="text" aria-label={msg.rolesBySite(name)}>
        {own.length ? msg.sitesWithRoles(own.length) : common.none}
      </Button>
    </Popover>
  )
}
