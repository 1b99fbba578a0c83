import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { readRule, ruleXml } from '../../../core/formats/onvif/ruleXml.ts'
import type { RuleAbility } from '../../../core/formats/onvif/rule.ts'
import { child, children, xml, type Element } from '../../../core/formats/onvif/xml.ts'
import type { Channel } from '../channel.ts'
import { Refusal } from '../refusal.ts'
import { text, type Handler, type Served } from './handler.ts'

const describeRule = ({ type, most, parameters }: RuleAbility): string =>
  xml(
    'tt:RuleDescription',
    { Name: type, ...(most !== null && { maxInstances: most }) },
    xml(
      'tt:Parameters',
      {},
      ...parameters.map((Name) =>
        xml('tt:SimpleItemDescription', {
          Name,
          Type: Name === 'ClassFilter' ? 'tt:StringList' : 'xs:float'
        })
      )
    )
  )

/** The channel that a question is about; a device with one is asked without saying which. */
const of = (device: Served, action: Element): Channel =>
  device.channel(child(action, 'ConfigurationToken')?.text ?? device.channels[0]!.token)

/**
 * Analytics service: rules, and modules as families of analysis. Source: ONVIF Analytics Service Specification,
 * analytics.wsdl (from memory); the attributes of the prefix `wo` are described in docs/device-extension.md.
 */
export const analyticsHandlers: Record<string, Handler> = {
  GetSupportedRules: (device, action) => {
    const { abilities, model } = of(device, action)
    return xml(
      'tan:GetSupportedRulesResponse',
      {},
      xml(
        'tan:SupportedRules',
        model.mostRules === undefined ? {} : { 'wo:MostRules': model.mostRules },
        ...abilities.map(describeRule)
      )
    )
  },
  GetRuleOptions: (device, action) =>
    xml(
      'tan:GetRuleOptionsResponse',
      {},
      ...of(device, action).abilities.flatMap(({ type, ranges }) =>
        Object.entries(ranges).map(([Name, { min, max }]) =>
          xml(
            'tan:RuleOptions',
            { RuleType: type, Name, Type: 'xs:float' },
            xml('tt:FloatRange', {}, text('tt:Min', min), text('tt:Max', max))
          )
        )
      )
    ),
  GetRules: (device, action) =>
    xml('tan:GetRulesResponse', {}, ...of(device, action).rules.map(ruleXml)),
  CreateRules: (device, action) => {
    const channel = of(device, action)
    // All of them or none: each is checked with those before it, and only then are they kept.
    const after = [...channel.rules]
    for (const rule of children(action, 'Rule').map(readRule)) {
      if (after.some((r) => r.name === rule.name))
        throw new Refusal('ter:RuleAlreadyExistent', msg.ruleIsThereAlready(rule.name))
      after.push(rule)
      channel.check(rule, after)
    }
    channel.keep(after)
    return xml('tan:CreateRulesResponse')
  },
  ModifyRules: (device, action) => {
    const channel = of(device, action)
    const after = [...channel.rules]
    for (const rule of children(action, 'Rule').map(readRule)) {
      const at = after.findIndex((r) => r.name === rule.name)
      if (at < 0) throw new Refusal('ter:RuleNotExistent', msg.thereIsNoRule(rule.name))
      after[at] = rule
      channel.check(rule, after)
    }
    channel.keep(after)
    return xml('tan:ModifyRulesResponse')
  },
  DeleteRules: (device, action) => {
    const channel = of(device, action)
    const names = children(action, 'RuleName').map((e) => e.text)
    const missing = names.find((name) => !channel.rules.some((r) => r.name === name))
    if (missing !== undefined) throw new Refusal('ter:RuleNotExistent', msg.thereIsNoRule2(missing))
    channel.keep(channel.rules.filter((r) => !names.includes(r.name)))
    return xml('tan:DeleteRulesResponse')
  },
  GetSupportedAnalyticsModules: (device, action) =>
    xml(
      'tan:GetSupportedAnalyticsModulesResponse',
      {},
      xml(
        'tan:SupportedAnalyticsModules',
        {},
        ...of(device, action).model.modes.map(({ type, runs }) =>
          xml(
            'tt:AnalyticsModuleDescription',
            { Name: type, maxInstances: 1, 'wo:Runs': runs.join(' ') },
            xml('tt:Parameters')
          )
        )
      )
    ),
  GetAnalyticsModules: (device, action) => {
    const { mode } = of(device, action)
    return xml(
      'tan:GetAnalyticsModulesResponse',
      {},
      ...(mode === null
        ? []
        : [xml('tan:AnalyticsModule', { Name: mode, Type: mode }, xml('tt:Parameters'))])
    )
  },
  CreateAnalyticsModules: (device, action) => {
    for (const module of children(action, 'AnalyticsModule'))
      of(device, action).setMode(module.attributes.Type ?? '')
    return xml('tan:CreateAnalyticsModulesResponse')
  },
  ModifyAnalyticsModules: (device, action) => {
    const channel = of(device, action)
    // Modules have no parameters; one is there or not.
    for (const { attributes } of children(action, 'AnalyticsModule'))
      if (channel.mode !== attributes.Name)
        throw new Refusal('ter:InvalidModule', msg.isNotRunning(attributes.Name || 'it'))
    return xml('tan:ModifyAnalyticsModulesResponse')
  },
  DeleteAnalyticsModules: (device, action) => {
    const channel = of(device, action)
    const name = child(action, 'AnalyticsModuleName')?.text ?? ''
    if (channel.mode !== name)
      throw new Refusal('ter:InvalidModule', msg.isNotRunning(name || 'it'))
    channel.setMode(null)
    return xml('tan:DeleteAnalyticsModulesResponse')
  }
}
