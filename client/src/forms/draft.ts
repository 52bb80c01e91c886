/** A way in while it is being typed. */
export interface Draft {
  positionId: string
  wayIn: string
}

/** What is typed and not yet kept. It lives beside React so that a keystroke redraws the floor map and nothing else of the screen. */
export class DraftStore {
  private draft: Draft | null = null
  private readonly listeners = new Set<() => void>()

  readonly read = () => this.draft

  readonly set = (draft: Draft | null) => {
    if (draft === this.draft) return
    this.draft = draft
    for (const listener of this.listeners) listener()
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }
}
