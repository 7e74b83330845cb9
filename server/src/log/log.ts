import type { DataSource, EntityManager } from 'typeorm'
import {
  applyEdit,
  applyLogged,
  differences,
  editOfLog,
  LOG_FORMAT,
  projectOfLog,
  type Edit,
} from '@geotome/core/edits'
import { canonical, Refusal, type Project } from '@geotome/core/project'
import { CheckpointRow, EditRow, JobRow, ProjectRow } from '../db/entities'
import { rowOf } from '../db/rows'
import { Histories } from './histories'
import { project as writeProjections } from './projections'

/** An edit as it stands in the log, and as every window gets it. */
export interface LoggedEdit {
  seq: number
  id: string
  author: string
  label: string
  kind: 'edit' | 'undo' | 'redo' | 'pass'
  edit: Edit
  /** when it came in, ISO 8601 */
  at: string
}
export interface NewEdit {
  id: string
  author: string
  label: string
  edit: Edit
}
export interface History {
  undo: string | null
  redo: string | null
}

/** What a request finds or puts in the log, and the project's head after it. */
interface Written {
  logged: LoggedEdit
  head: { seq: number; project: Project }
}

const CHECKPOINT_EVERY = 50
/** characters of edits that are read at a time */
const MOST_READ = 1024 * 1024

/** The log of edits: appends one after the other for each project, and gives the project at its head. */
export class EditLog {
  /** Heads of the projects used last; a cache only: a stale one is brought up to date from the table. */
  private readonly heads = new Map<string, { seq: number; project: Project }>()
  private readonly histories = new Histories()
  /** `kept`: so many heads are held */
  constructor(
    private readonly source: DataSource,
    private readonly kept = 20,
  ) {}

  /** Stores a new project; its whole content is the log's beginning. */
  async create(project: Project): Promise<void> {
    await this.source.transaction(async (manager) => {
      await manager.insert(ProjectRow, {
        id: project.id,
        name: project.name,
        unit: project.unit,
        seq: 0,
        totalArea: null,
        totalSeq: null,
        siteArea: null,
        sketch: null,
        changedAt: new Date(),
        changedBy: null,
        removedAt: null,
      })
      await manager.insert(CheckpointRow, {
        projectId: project.id,
        seq: 0,
        data: JSON.stringify(project),
        format: LOG_FORMAT,
      })
      await writeProjections(manager, null, project)
      await askForTotal(manager, project.id)
    })
  }

  /**
   * Appends an edit; acknowledged once its transaction has committed. An edit sent twice is stored once. Errors: 'id-taken' where another
   * edit has its id.
   */
  async append(projectId: string, entry: NewEdit): Promise<LoggedEdit> {
    return this.locked(projectId, async (manager, row, now) => {
      const twin = await twinOf(manager, projectId, entry, (t) => t.kind === 'edit' && isSameEdit(t, entry.edit))
      if (twin) return { logged: asLogged(twin), head: { seq: row.seq, project: now } }
      return this.write(manager, row, now, { ...entry, kind: 'edit', ofSeq: null })
    })
  }

  /**
   * Takes back the author's newest edit, or does the one taken back last again, against the project as it is now; refused where others
   * have changed the same. `pass`: leaves it as it is, so that the next step goes to what was made before it.
   */
  async step(projectId: string, author: string, id: string, which: 'undo' | 'redo', pass = false): Promise<LoggedEdit> {
    return this.locked(projectId, async (manager, row, now) => {
      const twin = await twinOf(manager, projectId, { id, author }, (t) => t.kind === (pass ? 'pass' : which))
      if (twin) return { logged: asLogged(twin), head: { seq: row.seq, project: now } }
      const target = (await this.histories.of(manager, projectId, author))[which].at(-1)
      if (!target) throw new Refusal('no-undo', `There is nothing to ${which}.`, '')
      const of = await manager.findOneByOrFail(EditRow, { projectId, seq: target.seq })
      const entry = { id, author, label: of.label, ofSeq: of.seq }
      if (pass) return this.write(manager, row, now, { ...entry, edit: { edit: 'patch', changes: [] }, kind: 'pass' })
      try {
        return await this.write(manager, row, now, { ...entry, edit: await this.inverseOf(manager, of), kind: which })
      } catch (e) {
        if (!(e instanceof Refusal)) throw e
        throw new Refusal(
          'no-undo',
          `"${of.label}" cannot be ${which === 'undo' ? 'taken back' : 'done again'} any more: ${e.say}`,
          'Somebody has changed the same thing meanwhile: let them take theirs back first, or pass this one over.',
        )
      }
    })
  }

  /**
   * What takes an edit back. One out of an older log is worked out anew: it may say whole fields, which would take others' work along,
   * or expect to find what was written otherwise then.
   */
  private async inverseOf(manager: EntityManager, of: EditRow): Promise<Edit> {
    const kept = of.format === LOG_FORMAT ? editOfLog(of.format, JSON.parse(of.inverse)) : null
    if (kept?.edit === 'patch') return kept
    const before = of.seq - 1
    const from = await checkpointBefore(manager, of.projectId, before)
    const project = await replayed(manager, of.projectId, from, before)
    return { edit: 'patch', changes: differences(applyLogged(project, decoded(of)), project) }
  }

  /** The project at the head of its log. */
  async head(projectId: string): Promise<{ seq: number; project: Project }> {
    const row = await rowOf(this.source.manager, projectId)
    return this.load(this.source.manager, projectId, row.seq)
  }

  /** The project as it was at a moment of its log. */
  async at(projectId: string, seq: number): Promise<Project> {
    const row = await rowOf(this.source.manager, projectId)
    if (seq > row.seq)
      throw new Refusal(
        'unknown-id',
        `The project has had ${row.seq} edits; there is no moment ${seq}.`,
        'Choose one of its restore points.',
      )
    return replayed(this.source.manager, projectId, await checkpointBefore(this.source.manager, projectId, seq), seq)
  }

  async history(projectId: string, author: string): Promise<History> {
    const { undo, redo } = await this.histories.of(this.source.manager, projectId, author)
    return { undo: undo.at(-1)?.label ?? null, redo: redo.at(-1)?.label ?? null }
  }

  /** The next edits behind a sequence number, oldest first: as many as fit, one at least where there is one. */
  async since(projectId: string, seq: number, most = 500): Promise<EditRow[]> {
    const lengths = await this.source.manager
      .createQueryBuilder(EditRow, 'e')
      .select('e.seq', 'seq')
      .addSelect('LENGTH(e.edit)', 'length')
      .where('e.projectId = :projectId AND e.seq > :seq', { projectId, seq })
      .orderBy('e.seq')
      .limit(most)
      .getRawMany<{ seq: number; length: number }>()
    let [total, last] = [0, seq]
    for (const next of lengths) {
      total += Number(next.length)
      if (last > seq && total > MOST_READ) break
      last = Number(next.seq)
    }
    if (last === seq) return []
    return this.source.manager
      .createQueryBuilder(EditRow, 'e')
      .where('e.projectId = :projectId AND e.seq > :seq AND e.seq <= :last', { projectId, seq, last })
      .orderBy('e.seq')
      .getMany()
  }

  private async locked(
    projectId: string,
    work: (manager: EntityManager, row: ProjectRow, now: Project) => Promise<Written>,
  ): Promise<LoggedEdit> {
    const { logged, head } = await this.source.transaction(async (manager) => {
      const row = await rowOf(manager, projectId, true)
      const { project: now } = await this.load(manager, projectId, row.seq)
      return work(manager, row, now)
    })
    this.keep(projectId, head.seq, head.project)
    return logged
  }

  private async write(
    manager: EntityManager,
    row: ProjectRow,
    now: Project,
    entry: NewEdit & { kind: LoggedEdit['kind']; ofSeq: number | null },
  ): Promise<Written> {
    const { project, inverse } = applyEdit(now, entry.edit)
    const seq = row.seq + 1
    const at = new Date()
    await manager.insert(EditRow, {
      projectId: row.id,
      seq,
      editId: entry.id,
      author: entry.author,
      label: entry.label,
      kind: entry.kind,
      ofSeq: entry.ofSeq,
      edit: JSON.stringify(entry.edit),
      inverse: JSON.stringify(inverse),
      format: LOG_FORMAT,
      at,
    })
    await manager.update(
      ProjectRow,
      { id: row.id },
      { seq, name: project.name, unit: project.unit, changedAt: at, changedBy: entry.author },
    )
    if (seq % CHECKPOINT_EVERY === 0)
      await manager.insert(CheckpointRow, { projectId: row.id, seq, data: JSON.stringify(project), format: LOG_FORMAT })
    await writeProjections(manager, now, project)
    await askForTotal(manager, row.id)
    return {
      logged: {
        seq,
        id: entry.id,
        author: entry.author,
        label: entry.label,
        kind: entry.kind,
        edit: entry.edit,
        at: at.toISOString(),
      },
      head: { seq, project },
    }
  }

  private async load(
    manager: EntityManager,
    projectId: string,
    seq: number,
  ): Promise<{ seq: number; project: Project }> {
    let head = this.heads.get(projectId)
    if (!head || head.seq > seq) {
      head = await checkpointBefore(manager, projectId, seq)
    }
    if (head.seq < seq) head = { seq, project: await replayed(manager, projectId, head, seq) }
    this.keep(projectId, head.seq, head.project)
    return head
  }

  private keep(projectId: string, seq: number, project: Project): void {
    this.heads.delete(projectId)
    this.heads.set(projectId, { seq, project })
    for (const oldest of this.heads.keys()) {
      if (this.heads.size <= this.kept) break
      this.heads.delete(oldest)
    }
  }
}

/** What is stored under an entry's id: the same, which came twice, or nothing. Errors: 'id-taken' where it is something else. */
async function twinOf(
  manager: EntityManager,
  projectId: string,
  { id, author }: { id: string; author: string },
  isSame: (twin: EditRow) => boolean,
): Promise<EditRow | null> {
  const twin = await manager.findOneBy(EditRow, { projectId, editId: id })
  if (twin && !(twin.author === author && isSame(twin)))
    throw new Refusal('id-taken', 'Another edit has this id; nothing was stored.', 'Send it under a new id.')
  return twin
}

/** Both as plain data: what is not said and what is undefined are the same. */
const isSameEdit = (twin: EditRow, edit: Edit): boolean =>
  canonical(decoded(twin)) === canonical(JSON.parse(JSON.stringify(edit)))

async function checkpointBefore(
  manager: EntityManager,
  projectId: string,
  seq: number,
): Promise<{ seq: number; project: Project }> {
  const checkpoint = await manager
    .createQueryBuilder(CheckpointRow, 'c')
    .where('c.projectId = :projectId AND c.seq <= :seq', { projectId, seq })
    .orderBy('c.seq', 'DESC')
    .limit(1)
    .getOneOrFail()
  return { seq: checkpoint.seq, project: projectOfLog(checkpoint.format, JSON.parse(checkpoint.data)) }
}

/** The edits of a stretch of the log on a project; those that an older Geotome wrote get what has been added since. */
async function replayed(
  manager: EntityManager,
  projectId: string,
  from: { seq: number; project: Project },
  to: number,
): Promise<Project> {
  const rows = await manager
    .createQueryBuilder(EditRow, 'e')
    .where('e.projectId = :projectId AND e.seq > :from AND e.seq <= :to', { projectId, from: from.seq, to })
    .orderBy('e.seq')
    .getMany()
  return rows.reduce((p, r) => applyLogged(p, decoded(r)), from.project)
}

/** A stored edit as it is written today, whatever format it stands in. */
const decoded = (row: EditRow): Edit => editOfLog(row.format, JSON.parse(row.edit))

/** An entry as the text of its JSON. An edit in today's format is passed on as it stands. */
export const loggedText = (row: EditRow): string => {
  const { edit, ...about } = row.format === LOG_FORMAT ? { ...placeOf(row), edit: null } : asLogged(row)
  return `${JSON.stringify(about).slice(0, -1)},"edit":${edit ? JSON.stringify(edit) : row.edit}}`
}

const asLogged = (row: EditRow): LoggedEdit => ({ ...placeOf(row), edit: decoded(row) })

const placeOf = (row: EditRow): Omit<LoggedEdit, 'edit'> => ({
  seq: row.seq,
  id: row.editId,
  author: row.author,
  label: row.label,
  kind: row.kind,
  at: row.at.toISOString(),
})

/** Has the list's total computed soon; edits in quick succession ask once. */
async function askForTotal(manager: EntityManager, projectId: string): Promise<void> {
  await manager
    .createQueryBuilder()
    .insert()
    .into(JobRow)
    .values({ kind: 'total', projectId, runAfter: new Date(Date.now() + 300) })
    .orUpdate(['runAfter'], ['kind', 'projectId'])
    .execute()
}
