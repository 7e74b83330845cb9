import type { Offer } from '@geotome/core/fabric'
import { Attempts, sameList } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { CHECKS, ledgerOf, notComputed, type Finding, type Floor, type Study } from '@geotome/core/study'
import { areasView, briefView } from './areas-view'
import { floorView, SentShapes, shapeOf, shifted, untakenAt } from './floor-view'
import { groundView, laidViews, NO_GROUND, sectionView } from './ground-view'
import { proposalView } from './proposal-view'
import {
  groundKeys,
  type Ask,
  type FindingView,
  type Geometry,
  type MassView,
  type PartView,
  type StudyView,
} from './protocol'
import { sentMass, sentPart, type Send, type SentMasses } from './thing-views'

/** What the page has of what was sent to it: bodies and shapes by key, masses and parts by id. */
export interface Sent extends SentMasses {
  keys: Set<string>
  shapes: SentShapes
  parts: Map<string, PartView>
  /** by mass, the storeys that it takes, and the floors that that was told from */
  storeys: { floors: readonly Floor[]; of: Map<string, string[]> }
}

const WHY = new Map(CHECKS.map((c) => [c.kind, c.why ?? '']))

export const nothingSent = (): Sent => ({
  keys: new Set(),
  shapes: new SentShapes(),
  masses: new Map(),
  from: new Map(),
  parts: new Map(),
  storeys: { floors: [], of: new Map() },
})

/** The storeys of each mass: the very lists of last time while they are the same. */
function storeysOf({ floors }: Study, sent: Sent): Map<string, string[]> {
  const had = sent.storeys
  const isAsBefore = floors.length === had.floors.length && floors.every((f, i) => hasSameTakers(f, had.floors[i]))
  sent.storeys = { floors, of: had.of }
  if (isAsBefore) return had.of
  const of = new Map<string, string[]>()
  for (const { level, plates } of floors)
    for (const { mass } of plates) {
      const list = of.get(mass)
      if (!list) of.set(mass, [level.id])
      else if (list.at(-1) !== level.id) list.push(level.id)
    }
  // A list that has not changed stays the very one.
  for (const [mass, list] of of) {
    const known = had.of.get(mass)
    if (known && sameList(known, list)) of.set(mass, known)
  }
  sent.storeys = { floors, of }
  return of
}

const hasSameTakers = (a: Floor, b: Floor | undefined) =>
  a.level.id === b?.level.id &&
  (a.plates === b.plates ||
    (a.plates.length === b.plates.length && a.plates.every((p, i) => p.mass === b.plates[i]?.mass)))

/** What the page needs of a study, as plain data; what it has already is not sent again. A piece that cannot be shown becomes a finding. */
export function viewOf(study: Study, ask: Ask, sent: Sent, took: number, offer: Offer | null = null): StudyView {
  const origin = originOf(study)
  const isHeld = ask.preview !== null && !ask.whole
  const geometry: Geometry[] = []
  const floors: Pick<StudyView, 'shapes' | 'pieces'> = { shapes: [], pieces: [] }
  const send: Send = (key, make) => {
    if (!sent.keys.has(key)) {
      geometry.push({ ...make(), key })
      sent.keys.add(key)
    }
    return key
  }
  const attempts = new Attempts()
  const or = <T>(what: string, make: () => T, otherwise: T): T =>
    attempts.run({ what, id: study.scheme.id, name: study.scheme.name }, make, () => otherwise)
  const storeys = storeysOf(study, sent)
  const masses = [...study.forms, ...study.around].flatMap((f) =>
    attempts.run<MassView[]>(
      { what: 'picture', id: f.id, name: f.name, masses: [f.id] },
      () => [sentMass(study, f, storeys.get(f.id), origin, sent, send)],
      () => [],
    ),
  )
  // While something is dragged where parts are not drawn, their bodies come when it rests.
  const drawn = ask.fabric !== false || !isHeld
  const parts = study.parts.flatMap((p) =>
    attempts.run<PartView[]>(
      { what: 'picture', id: p.id, name: p.part.name, parts: [p.id] },
      () => [sentPart(study, p, origin, drawn ? send : null)],
      () => [],
    ),
  )
  const shown = {
    ledger: ledgerOf(study),
    ground: or('ground', () => groundView(study, origin, send), NO_GROUND),
    pictures: or('pictures', () => laidViews(study, origin), []),
    section: or('section', () => (ask.section ? sectionView(study, ask.section, origin) : null), null),
    brief: or('brief', () => briefView(study), []),
    areas: or('ledger', () => (ask.areas ? areasView(study, origin, isHeld) : null), null),
    proposal: offer && proposalView(offer, origin, send),
  }
  const failed = notComputed(attempts.failures, study.project)
  return {
    scheme: study.scheme.id,
    origin,
    levels: study.levels,
    masses: masses.map((m) => m.id),
    parts: parts.map((p) => p.id),
    fresh: { masses: freshOf(masses, sent.masses), parts: freshOf(parts, sent.parts) },
    geometry,
    took,
    pending: study.totals.pending,
    floors: study.floors.map((f) =>
      floorView(f, sent.shapes.send(shapeOf(countedAt(study, f), origin), floors), untakenAt(study, f, origin)),
    ),
    ...floors,
    open: study.findings.length + failed.length,
    findings: isHeld && !ask.findings ? null : findingViews(study, failed, origin),
    wingOf: Object.fromEntries(study.wings.of),
    compare: null,
    ...shown,
  }
}

/** The floor that is counted at a storey: of storeys at one height, the first one's. */
const countedAt = ({ floors }: Study, floor: Floor): Floor => floors.find((f) => f.level === floor.oneWith) ?? floor

/** Those that the page has not had yet. */
function freshOf<T extends { id: string }>(views: T[], had: Map<string, T>): T[] {
  const fresh = views.filter((view) => had.get(view.id) !== view)
  for (const view of fresh) had.set(view.id, view)
  return fresh
}

const findingViews = (study: Study, failed: Finding[], origin: Vec2): FindingView[] =>
  [...[...failed, ...study.findings].map((f) => ({ ...f, mute: null })), ...study.muted].map(({ mute, ...f }) => ({
    ...f,
    region: shifted(f.region, origin),
    fix: f.fix?.label ?? null,
    why: WHY.get(f.kind) ?? '',
    muted: mute && { id: mute.id, reason: mute.reason },
  }))

/** Only the newest pieces of geometry are kept by the page: what a study no longer names is forgotten on both sides. */
export function forget(view: StudyView, sent: Sent): void {
  const there = new Set([...view.masses, ...view.parts])
  for (const list of [sent.masses, sent.from, sent.parts])
    for (const id of list.keys()) if (!there.has(id)) list.delete(id)
  const named = new Set([
    ...[...sent.masses.values()].map((m) => m.body),
    ...[...sent.parts.values()].flatMap((p) => p.mesh ?? []),
    ...(view.proposal?.mesh ? [view.proposal.mesh] : []),
    ...groundKeys(view.ground),
  ])
  for (const key of sent.keys) if (!named.has(key)) sent.keys.delete(key)
  sent.shapes.keepOnly(new Set(view.floors.map((f) => f.shape)))
}

/** The zero of a study's view in the world, m: the same for all that is drawn of it. */
export const viewOrigin = (study: Study): Vec2 => originOf(study)

/** Whole hundreds of metres near the forms, where coordinates are large; the picture is drawn in single precision. */
function originOf(study: Study): Vec2 {
  const first = study.forms[0]
  if (!first) return [0, 0]
  const { x0, y0 } = first.rect
  return Math.abs(x0) + Math.abs(y0) > 5000 ? [Math.round(x0 / 100) * 100, Math.round(y0 / 100) * 100] : [0, 0]
}
