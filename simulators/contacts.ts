/**
 * Contacts that can be held by hand: an alarm panel's set state, a door. The others follow the script of the
 * scene that it is in.
 */
export class Contacts {
  private readonly held = new Map<string, boolean>()

  /** @param set null: it follows the script again */
  hold(name: string, set: boolean | null): void {
    if (set === null) this.held.delete(name)
    else this.held.set(name, set)
  }

  get(name: string): boolean | null {
    return this.held.get(name) ?? null
  }
}
