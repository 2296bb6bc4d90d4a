interface Follower {
  readonly tell: (revision: number) => void
  readonly gone: () => void
}

/** Those who want to know when a build has changed: open pages, in this window and others. */
export class Followers {
  private readonly byBuild = new Map<string, Set<Follower>>()

  /** Tells of every change that is on disk; returns how to stop. */
  follow(id: string, tell: (revision: number) => void, gone: () => void = () => undefined): () => void {
    const mine = this.byBuild.get(id) ?? new Set()
    const follower = { tell, gone }
    this.byBuild.set(id, mine.add(follower))
    return () => {
      mine.delete(follower)
      if (mine.size === 0) this.byBuild.delete(id)
    }
  }

  tell(id: string, revision: number): void {
    for (const follower of this.byBuild.get(id) ?? []) follower.tell(revision)
  }

  /** The build is gone for good; whoever followed it hears so once the write that deleted it is done. */
  gone(id: string): void {
    const mine = this.byBuild.get(id) ?? new Set()
    this.byBuild.delete(id)
    setImmediate(() => {
      for (const follower of mine) follower.gone()
    })
  }
}
