/** Tells one listener that there is news. What is rung while nobody listens is heard by whoever listens next. */
export class Bell {
  private rung = false
  private hear: () => void = () => {}

  ring(): void {
    this.rung = true
    this.hear()
  }

  /** Resolves when it has been rung since it was heard last. */
  async heard(): Promise<void> {
    if (!this.rung) await new Promise<void>((resolve) => (this.hear = resolve))
    this.rung = false
  }
}
