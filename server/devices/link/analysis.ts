import type { AnalysisMode, Rule, RuleAbility } from '../../../core/formats/onvif/rule.ts'
import { readRule, ruleXml } from '../../../core/formats/onvif/ruleXml.ts'
import { child, children, content, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import { ruleType } from '../../../core/kinds/rules.ts'
import { ifOffered } from './deviceError.ts'
import type { DeviceWire } from './wire.ts'

/** What a device analyses, channel by channel: what it can, what it runs, and its rules. */
export class DeviceAnalysis {
  private readonly wire: DeviceWire

  constructor(wire: DeviceWire) {
    this.wire = wire
  }

  /** What a channel can do: its supported rules, the ranges of their parameters, and how many rules in all. */
  async abilities(
    channel: string
  ): Promise<{ abilities: RuleAbility[]; mostRules: number | null }> {
    const supported = child(
      await ifOffered(this.ability('GetSupportedRules', channel)),
      'SupportedRules'
    )
    if (!supported) return { abilities: [], mostRules: null }
    const options = await ifOffered(this.ability('GetRuleOptions', channel))
    const abilities = children(supported, 'RuleDescription').map(
      ({ attributes, children: inner }) => {
        const type = ruleType(attributes.Name ?? '')
        const parameters = inner
          .flatMap((e) => children(e, 'SimpleItemDescription'))
          .map((item) => item.attributes.Name ?? '')
        const own = children(options, 'RuleOptions').filter(
          (o) => ruleType(o.attributes.RuleType ?? '') === type
        )
        const ranges = own.flatMap((o) => {
          const range = child(o, 'FloatRange') ?? child(o, 'IntRange')
          const [min, max] = [Number(child(range, 'Min')?.text), Number(child(range, 'Max')?.text)]
          return range && Number.isFinite(min) && Number.isFinite(max)
            ? [[o.attributes.Name ?? '', { min, max }] as const]
            : []
        })
        return {
          type,
          most: whole(attributes.maxInstances),
          parameters,
          ranges: Object.fromEntries(ranges)
        }
      }
    )
    return { abilities, mostRules: whole(supported.attributes.MostRules) }
  }

  /** Families of analysis; none where the device does not say what they run. */
  async modes(channel: string): Promise<AnalysisMode[]> {
    const supported = children(
      child(
        await ifOffered(this.ability('GetSupportedAnalyticsModules', channel)),
        'SupportedAnalyticsModules'
      ),
      'AnalyticsModuleDescription'
    ).filter(({ attributes }) => attributes.Runs !== undefined)
    if (!supported.length) return []
    const running = children(
      await this.analytics('GetAnalyticsModules', channel),
      'AnalyticsModule'
    ).map(({ attributes }) => attributes.Type)
    return supported.map(({ attributes }) => ({
      type: attributes.Name ?? '',
      runs: (attributes.Runs ?? '').split(/\s+/).filter(Boolean).map(ruleType),
      running: running.includes(attributes.Name ?? '')
    }))
  }

  /** Runs one family of analysis instead of another. When the new one is refused, the old one runs again. */
  async setMode(channel: string, from: string | null, to: string): Promise<void> {
    const create = (type: string): Promise<Element> =>
      this.analytics(
        'CreateAnalyticsModules',
        channel,
        xml('tan:AnalyticsModule', { Name: type, Type: type }, xml('tt:Parameters'))
      )
    if (from !== null)
      await this.analytics(
        'DeleteAnalyticsModules',
        channel,
        xml('tan:AnalyticsModuleName', {}, content(from))
      )
    try {
      await create(to)
    } catch (error) {
      if (from !== null) await create(from).catch(() => {})
      throw error
    }
  }

  async rules(channel: string): Promise<Rule[]> {
    return children(await this.analytics('GetRules', channel), 'Rule').map(readRule)
  }

  createRule(channel: string, rule: Rule): Promise<Element> {
    return this.analytics('CreateRules', channel, ruleXml(rule))
  }

  modifyRule(channel: string, rule: Rule): Promise<Element> {
    return this.analytics('ModifyRules', channel, ruleXml(rule))
  }

  deleteRule(channel: string, name: string): Promise<Element> {
    return this.analytics('DeleteRules', channel, xml('tan:RuleName', {}, content(name)))
  }

  private analytics(
    action: string,
    channel: string,
    body = '',
    isCacheable = false
  ): Promise<Element> {
    return this.wire.call(
      'analytics',
      xml(`tan:${action}`, {}, xml('tan:ConfigurationToken', {}, content(channel)), body),
      isCacheable
    )
  }

  /** Something that a channel's analysis can do. */
  private ability(action: string, channel: string): Promise<Element> {
    return this.analytics(action, channel, '', true)
  }
}

/** A whole number of an attribute, or null when it says none. */
const whole = (text: string | undefined): number | null =>
  text !== undefined && /^\d+$/.test(text) ? Number(text) : null
