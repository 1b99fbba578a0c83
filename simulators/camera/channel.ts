import { simulators as msg } from '../../core/messages/en/codes/simulators.ts'
import type { Trigger } from '../../core/detections/index.ts'
import type { RuleAbility, Rule } from '../../core/formats/onvif/rule.ts'
import type { ChannelModel } from './model.ts'
import { Refusal } from './refusal.ts'
import type { LiveScene } from './scene.ts'
import type { ChannelState } from './state.ts'

/**
 * One picture of a device and the analysis of it. A channel may be another route to the rules of another device's
 * channel: then it shows the types and parameters that it knows, and leaves the others as they are.
 */
export class Channel {
  readonly model: ChannelModel
  readonly abilities: RuleAbility[]
  readonly scene: LiveScene
  private readonly state: ChannelState
  private readonly save: () => void
  /** The channel whose rules these are. */
  private readonly origin: Channel | null

  constructor(
    model: ChannelModel,
    scene: LiveScene,
    state: ChannelState,
    save: () => void,
    origin: Channel | null = null
  ) {
    this.model = model
    this.abilities = model.rules.map(({ type, most, parameters, ranges }) => ({
      type,
      most: most ?? null,
      parameters,
      ranges
    }))
    this.scene = scene
    this.state = state
    this.save = save
    this.origin = origin
    this.refresh()
  }

  get token(): string {
    return this.model.token
  }

  get mode(): string | null {
    return this.state.mode
  }

  /** The rules as this route shows them. */
  get rules(): Rule[] {
    return (this.origin ?? this).state.rules.flatMap((rule) => {
      const ability = this.abilities.find((a) => a.type === rule.type)
      return ability
        ? {
            ...rule,
            simple: Object.fromEntries(
              Object.entries(rule.simple).filter(([name]) => ability.parameters.includes(name))
            )
          }
        : []
    })
  }

  /** @throws Refusal when the device cannot hold the rule beside the others */
  check(rule: Rule, all: readonly Rule[]): void {
    const ability = this.abilities.find((a) => a.type === rule.type)
    if (!ability) throw new Refusal('ter:InvalidRule', msg.rulesOfTypeAreNot(rule.type))
    const same = all.filter((r) => r.type === rule.type).length
    if (ability.most !== null && same > ability.most)
      throw new Refusal('ter:TooManyRules', msg.atMostRulesOfType(ability.most, rule.type))
    const most = (this.origin ?? this).model.mostRules
    if (most !== undefined && all.length > most)
      throw new Refusal('ter:TooManyRules', msg.atMostRulesInAll(most))
    for (const [name, value] of Object.entries(rule.simple)) {
      if (!ability.parameters.includes(name))
        throw new Refusal('ter:InvalidRule', msg.hasNoParameter(rule.type, name))
      const range = ability.ranges[name]
      const number = Number(value.replace(/^PT|S$/g, ''))
      if (range && !(number >= range.min && number <= range.max))
        throw new Refusal('ter:InvalidArgVal', msg.isMustBe(name, value, range.min, range.max))
    }
  }

  /** Keeps what this route writes, over what it cannot see. */
  keep(rules: readonly Rule[]): void {
    const kept = this.origin ?? this
    kept.state.rules = this.merged(kept.state.rules, rules)
    kept.save()
    kept.refresh()
  }

  /** Starts one family of analysis; null: none. @throws Refusal when another one runs, or there is no such */
  setMode(mode: string | null): void {
    if (mode !== null && !this.model.modes.some(({ type }) => type === mode))
      throw new Refusal('ter:InvalidModule', msg.thereIsNoModule(mode))
    if (mode !== null && this.mode !== null)
      throw new Refusal('ter:ConfigurationConflict', msg.isRunningOneFamily(this.mode))
    this.state.mode = mode
    this.save()
    this.refresh()
  }

  /** What its own analysis makes of what has happened; another route has none of its own. */
  step(seconds: number, began: number): Trigger[] {
    return this.origin ? [] : this.scene.step(seconds, began)
  }

  /** Rules whose family does not run do nothing. */
  private refresh(): void {
    if (this.origin) return
    const sleeping = this.model.modes
      .filter(({ type }) => type !== this.mode)
      .flatMap(({ runs }) => runs)
    const awake = this.model.modes
      .filter(({ type }) => type === this.mode)
      .flatMap(({ runs }) => runs)
    this.scene.setRules(
      this.state.rules.filter(({ type }) => awake.includes(type) || !sleeping.includes(type)),
      this.abilities
    )
  }

  private merged(under: readonly Rule[], written: readonly Rule[]): Rule[] {
    const knows = (type: string): RuleAbility | undefined =>
      this.abilities.find((a) => a.type === type)
    return [
      ...under.filter((rule) => !knows(rule.type)),
      ...written.map((rule) => {
        const hidden = Object.entries(
          under.find(({ name }) => name === rule.name)?.simple ?? {}
        ).filter(([name]) => !knows(rule.type)?.parameters.includes(name))
        return { ...rule, simple: { ...Object.fromEntries(hidden), ...rule.simple } }
      })
    ]
  }
}
