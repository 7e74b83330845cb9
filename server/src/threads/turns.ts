/** Work that waits for a thread; whose it is decides when it has its turn. */
export interface Waiting {
  project: string
}

/**
 * Work that waits, taken up project by project in turn: one project with a thousand pieces of work lets every other one wait for one of them at most.
 * Of each project so many are under way at one time.
 */
export class Turns<Work extends Waiting> {
  /** in the order of their turns */
  private readonly queues = new Map<string, Work[]>()
  private readonly underWay = new Map<string, number>()
  constructor(private readonly mostOfEach: number) {}

  add(work: Work): void {
    const queue = this.queues.get(work.project)
    if (queue) queue.push(work)
    else this.queues.set(work.project, [work])
  }

  /** The next piece of work, which is under way from now on; null where nothing may begin. */
  next(): Work | null {
    for (const [project, queue] of this.queues) {
      const busy = this.underWay.get(project) ?? 0
      if (busy >= this.mostOfEach) continue
      const work = queue.shift()
      this.queues.delete(project)
      if (queue.length) this.queues.set(project, queue)
      if (!work) continue
      this.underWay.set(project, busy + 1)
      return work
    }
    return null
  }

  /** A piece of work has ended, however it did. */
  ended(work: Work): void {
    const busy = (this.underWay.get(work.project) ?? 1) - 1
    if (busy > 0) this.underWay.set(work.project, busy)
    else this.underWay.delete(work.project)
  }

  /** Takes work away that has not begun; whether it was there. */
  drop(work: Work): boolean {
    const queue = this.queues.get(work.project) ?? []
    const at = queue.indexOf(work)
    if (at < 0) return false
    queue.splice(at, 1)
    if (queue.length === 0) this.queues.delete(work.project)
    return true
  }

  /** All that has not begun, which is taken away. */
  clear(): Work[] {
    const all = [...this.queues.values()].flat()
    this.queues.clear()
    return all
  }
}
