import type { Project, Scheme, Use } from '@geotome/core/project'
import type { AccountOf, SchemeSummary } from '@geotome/core/study'
import type { StoredView } from '../stage/geometry-store'

/** What the rows of the ledger are put together by. */
export const LEDGER_BY = [
  { by: 'level', label: 'level' },
  { by: 'use', label: 'use' },
  { by: 'wing', label: 'wing' },
  { by: 'level,use', label: 'level and use' },
  { by: 'use,wing', label: 'use and wing' },
  { by: 'level,use,wing', label: 'level, use and wing' },
  { by: 'scheme', label: 'scheme' },
] as const
export type LedgerBy = (typeof LEDGER_BY)[number]['by']

/** One row: its names and figures by column, and what of the ledger it is. */
export interface LedgerRow {
  key: string
  cells: Record<string, string | number | null>
  of: Partial<AccountOf>
}
/** One column; figures of area are m2, and open to how they came to be. */
export interface LedgerColumn {
  id: string
  label: string
  is: 'name' | 'height' | 'length' | 'area'
  use?: Use
  italic?: boolean
  strong?: boolean
  /** what of the ledger a figure in it is, besides its row; null: it does not open */
  of: Partial<AccountOf> | null
  summed: boolean
}

const column = (id: string, label: string, is: LedgerColumn['is'], more: Partial<LedgerColumn> = {}): LedgerColumn => ({
  id,
  label,
  is,
  of: is === 'area' ? {} : null,
  summed: is === 'area',
  ...more,
})

/** The ledger as rows and columns: by level with a column for each use and wing, or put together otherwise. */
export function ledgerTable(
  by: LedgerBy,
  study: StoredView,
  { project, scheme }: { project: Project; scheme: Scheme },
  uses: readonly Use[],
  schemes: readonly SchemeSummary[],
): { columns: LedgerColumn[]; rows: LedgerRow[] } {
  return by === 'level'
    ? byLevel(study, uses)
    : by === 'scheme'
      ? byScheme(schemes, uses)
      : putTogether(by, study, project, scheme)
}

function byLevel(study: StoredView, all: readonly Use[]) {
  const uses = all.filter((u) => study.floors.some((f) => (f.uses[u.id] ?? 0) > 0.005))
  const { wings } = study.ledger
  const internal = new Map<string, number | null>()
  const net = new Map<string, number | null>()
  for (const e of study.areas?.entries ?? []) {
    add(internal, e.level, e.internal)
    add(net, e.level, e.net)
  }
  const isKnown = study.areas?.entries.some((e) => e.internal !== null) ?? false
  const columns = [
    column('level', 'level', 'name'),
    column('height', 'height', 'height'),
    ...uses.map((u) => column(`use ${u.name}`, u.name, 'area', { use: u, of: { use: u.id } })),
    ...wings.map((w) => column(`wing ${w.name}`, w.name, 'area', { italic: true, of: { wing: w.id } })),
    column('area', 'area', 'area', { strong: true }),
    column('low', 'low', 'area', { of: null }),
    column('net', 'net of walls', 'area', { of: null }),
    ...(isKnown
      ? [column('internal', 'internal', 'area', { of: null }), column('usable', 'net', 'area', { of: null })]
      : []),
    column('perimeter', 'perimeter', 'length', { summed: false }),
  ]
  const named = new Map(study.ledger.levels.map((l) => [l.id, l.oneWith ? `${l.name}, one with ${l.oneWith}` : l.name]))
  const nameOf = (id: string) => named.get(id)
  const rows = [...study.floors].reverse().map((f): LedgerRow => {
    const level = study.levels.find((l) => l.id === f.level)
    return {
      key: f.level,
      of: { level: f.level },
      cells: {
        level: nameOf(f.level) ?? level?.name ?? '',
        height: level?.height ?? 0,
        ...Object.fromEntries(uses.map((u) => [`use ${u.name}`, f.uses[u.id] ?? 0])),
        ...Object.fromEntries(wings.map((w) => [`wing ${w.name}`, w.areas[f.level] ?? 0])),
        area: f.area,
        low: f.low,
        net: f.net,
        internal: internal.get(f.level) ?? (f.area > 0 ? null : 0),
        usable: net.get(f.level) ?? (f.area > 0 ? null : 0),
        perimeter: f.perimeter,
      },
    }
  })
  return { columns, rows }
}

/** All schemes, a row each; figures of other schemes do not open here. */
function byScheme(schemes: readonly SchemeSummary[], all: readonly Use[]) {
  const uses = all.filter((u) => schemes.some((s) => (s.uses[u.id] ?? 0) > 0.005))
  const columns = [
    column('scheme', 'scheme', 'name'),
    ...uses.map((u) => column(`use ${u.name}`, u.name, 'area', { use: u, of: null, summed: false })),
    column('area', 'area', 'area', { strong: true, of: null, summed: false }),
    column('net', 'net of walls', 'area', { of: null, summed: false }),
    column('terraces', 'terraces', 'area', { of: null, summed: false }),
    column('facade', 'facades', 'area', { of: null, summed: false }),
    column('height', 'height', 'height'),
  ]
  const rows = schemes.map((s): LedgerRow => ({
    key: s.scheme,
    of: {},
    cells: {
      scheme: `${s.name}${s.aside ? ', put aside' : ''}`,
      ...Object.fromEntries(uses.map((u) => [`use ${u.name}`, s.uses[u.id] ?? 0])),
      area: s.area,
      net: s.net,
      terraces: s.terraces,
      facade: s.facade,
      height: s.height,
    },
  }))
  return { columns, rows }
}

function add(sums: Map<string, number | null>, key: string, value: number | null): void {
  const before = sums.has(key) ? (sums.get(key) as number | null) : 0
  sums.set(key, before === null || value === null ? null : before + value)
}

function putTogether(by: LedgerBy, study: StoredView, project: Project, scheme: Scheme) {
  const words = by.split(',') as ('level' | 'use' | 'wing')[]
  const levels = [...study.floors].reverse().map((f) => f.level)
  const rows = new Map<string, LedgerRow>()
  const place = (e: { level: string; use: string; wing: string | null }) =>
    words.map((w) => (w === 'level' ? levels.indexOf(e.level) : (e[w] ?? '~'))).join('|')
  const entries = study.areas?.entries ?? []
  for (const e of [...entries].sort((a, b) => levels.indexOf(a.level) - levels.indexOf(b.level))) {
    const key = place(e)
    const row = rows.get(key) ?? {
      key,
      of: {
        ...(words.includes('level') ? { level: e.level } : {}),
        ...(words.includes('use') ? { use: e.use } : {}),
        ...(words.includes('wing') ? { wing: e.wing } : {}),
      },
      cells: {
        level: study.levels.find((l) => l.id === e.level)?.name ?? '',
        use: project.uses[e.use]?.name ?? '',
        wing: e.wing === null ? 'in no wing' : (scheme.wings[e.wing]?.name ?? ''),
        area: 0,
        internal: 0,
        usable: 0,
      },
    }
    row.cells.area = (row.cells.area as number) + e.gross
    for (const [id, value] of [
      ['internal', e.internal],
      ['usable', e.net],
    ] as const) {
      const before = row.cells[id] as number | null
      row.cells[id] = before === null || value === null ? null : before + value
    }
    rows.set(key, row)
  }
  const columns = [
    ...words.map((w) => column(w, w, 'name')),
    column('area', 'gross', 'area', { strong: true }),
    column('internal', 'internal', 'area', { of: null }),
    column('usable', 'net', 'area', { of: null }),
  ]
  return { columns, rows: [...rows.values()] }
}
