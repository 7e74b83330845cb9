import { MoreThan, type EntityManager } from 'typeorm'
import { EditRow } from '../db/entities'
import { withStep, type Steps } from './history'

interface Followed extends Steps {
  /** how far the log was read */
  seq: number
}

/** so many authors are remembered, those seen last */
const KEPT = 200

/** What authors can take back and do again. Of an author seen before only the steps since then are read, so that an acknowledgement costs the same after ten thousand edits. */
export class Histories {
  private readonly followed = new Map<string, Followed>()

  /** As the database stands; nothing that is being written may be in it. */
  async of(manager: EntityManager, projectId: string, author: string): Promise<Steps> {
    const key = `${projectId}/${author}`
    const known: Followed = this.followed.get(key) ?? { undo: [], redo: [], seq: 0 }
    const fresh = await manager.find(EditRow, {
      where: { projectId, author, seq: MoreThan(known.seq) },
      select: { projectId: true, seq: true, kind: true, ofSeq: true, label: true },
      order: { seq: 'ASC' },
    })
    // Two that ask at one moment read the same: what the other one has taken in since is left out.
    for (const { seq, kind, ofSeq, label } of fresh) {
      if (seq <= known.seq) continue
      withStep(known, { seq, kind, ofSeq, label })
      known.seq = seq
    }
    this.keep(key, known)
    return known
  }

  private keep(key: string, known: Followed): void {
    this.followed.delete(key)
    this.followed.set(key, known)
    for (const oldest of this.followed.keys()) {
      if (this.followed.size <= KEPT) return
      this.followed.delete(oldest)
    }
  }
}
