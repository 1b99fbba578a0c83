/**
 * Contacts that somebody holds by hand: an alarm panel's set state, a door. What nobody holds follows the script of the
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
