import { App as AntApp, ConfigProvider, theme as ant } from 'antd'
import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react'
import { keep, kept } from './kept.ts'

/** The roles of docs/product.md, *Look*; the style sheet has the same ones as custom properties. */
const roles = {
  day: {
    paper: '#F7F5F0',
    card: '#FFFFFF',
    ink: '#1B2430',
    hairline: '#D9D4C8',
    accent: '#1F6F5C',
    quiet: '#5A6472',
    mind: '#FBF1DC'
  },
  night: {
    paper: '#14191F',
    card: '#1C232B',
    ink: '#E9E6DE',
    hairline: '#37414C',
    accent: '#4FA68F',
    quiet: '#A3ADB8',
    mind: '#3A2E14'
  }
}

type ThemeName = keyof typeof roles

const Theme = createContext<{ name: ThemeName; toggle: () => void }>({
  name: 'day',
  toggle: () => {}
})
export const useTheme = (): { name: ThemeName; toggle: () => void } => useContext(Theme)

const keptTheme = (): ThemeName => (kept('theme') === 'night' ? 'night' : 'day')

export function ThemeProvider({ children }: { children: ReactNode }): ReactNode {
  const [name, setName] = useState<ThemeName>(keptTheme)
  useEffect(() => {
    document.documentElement.dataset.theme = name
    keep('theme', name)
  }, [name])
  const value = useMemo(
    () => ({ name, toggle: () => setName((n) => (n === 'day' ? 'night' : 'day')) }),
    [name]
  )
  const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
  const { paper, card, ink, hairline, accent, quiet, mind } = roles[name]
  return (
    <Theme value={value}>
      <ConfigProvider
        wave={{ disabled: still }}
        theme={{
          algorithm: name === 'night' ? ant.darkAlgorithm : ant.defaultAlgorithm,
          token: {
            colorPrimary: accent,
            colorLink: accent,
            colorBgLayout: paper,
            colorBgContainer: card,
            colorBgElevated: card,
            colorText: ink,
            colorTextSecondary: quiet,
            colorTextPlaceholder: quiet,
            colorBorder: hairline,
            colorBorderSecondary: hairline,
            colorSuccess: accent,
            colorInfo: accent,
            colorWarningBg: mind,
            colorError: '#B4451F',
            colorWarning: '#8A5A00',
            fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif",
            fontSize: 14,
            borderRadius: 6,
            motion: !still
          },
          // On a filled button the lighter accent of the night would leave its white words too pale.
          // An outlined one has no fill: there the accent of the theme itself, or its words would be too dark at night.
          components: {
            Button: {
              colorPrimary: '#1F6F5C',
              colorPrimaryHover: '#2A7D69',
              colorPrimaryActive: '#185848',
              defaultHoverColor: accent,
              defaultHoverBorderColor: accent,
              defaultActiveColor: accent,
              defaultActiveBorderColor: accent
            }
          }
        }}
      >
        <AntApp component={false}>{children}</AntApp>
      </ConfigProvider>
    </Theme>
  )
}
