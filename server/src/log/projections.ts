import type { EntityManager } from 'typeorm'
import { levelHeights } from '@geotome/core/levels'
import type { Project } from '@geotome/core/project'
import { LevelRow, MassRow, PartRow, SchemeRow } from '../db/entities'

type Rows = Map<string, Record<string, unknown>>

/** Brings the typed tables from one state of a project to the next; only rows that differ are written. */
export async function project(manager: EntityManager, before: Project | null, after: Project): Promise<void> {
  for (const [entity, rowsOf] of TABLES) {
    const [old, now] = [before ? rowsOf(before) : new Map(), rowsOf(after)] as [Rows, Rows]
    const gone = [...old].filter(([key]) => !now.has(key)).map(([, row]) => row)
    const fresh = [...now]
      .filter(([key, row]) => JSON.stringify(old.get(key)) !== JSON.stringify(row))
      .map(([, row]) => row)
    for (const row of gone) await manager.delete(entity, keysOf(row))
    for (let i = 0; i < fresh.length; i += 200)
      await manager.upsert(entity, fresh.slice(i, i + 200), Object.keys(keysOf(fresh[0] ?? {})))
  }
}

const keysOf = (row: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(row).filter(([k]) => ['projectId', 'schemeId', 'id'].includes(k)))

const inSchemes =
  (of: (p: Project, schemeId: string) => Record<string, unknown>[]) =>
  (p: Project): Rows =>
    new Map(
      Object.keys(p.schemes).flatMap((schemeId) =>
        of(p, schemeId).map((row): [string, Record<string, unknown>] => [
          `${schemeId}/${String(row.id)}`,
          { projectId: p.id, schemeId, ...row },
        ]),
      ),
    )

const TABLES = [
  [
    SchemeRow,
    (p: Project): Rows =>
      new Map(Object.values(p.schemes).map((s) => [s.id, { projectId: p.id, id: s.id, name: s.name }])),
  ],
  [
    LevelRow,
    inSchemes((p, s) => {
      const scheme = p.schemes[s]
      return scheme
        ? levelHeights(p, scheme).map((l) => ({ id: l.id, name: l.name, kind: l.kind, height: l.height }))
        : []
    }),
  ],
  [
    MassRow,
    inSchemes((p, s) =>
      Object.values(p.schemes[s]?.masses ?? {}).map((m) => ({ id: m.id, name: m.name, useId: m.use })),
    ),
  ],
  [
    PartRow,
    inSchemes((p, s) =>
      Object.values(p.schemes[s]?.parts ?? {}).map((m) => ({
        id: m.id,
        name: m.name,
        kind: m.kind,
        massId: m.host.mass,
      })),
    ),
  ],
] as const
