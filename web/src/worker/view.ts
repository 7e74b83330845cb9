import {
  bodyMesh,
  bodyVolume,
  eavesOf,
  howOf,
  isWall,
  partsFrom,
  propose,
  studyParts,
  type PartBody,
  type PartStudy,
} from '@geotome/core/fabric'
import { faceLabel, flatsAmong, placePoint, type Rect, type Vec2 } from '@geotome/core/solid'
import { Memo, sameList, type Mass } from '@geotome/core/project'
import { extentOf, type Body, type GrownFrom, type MassForm } from '@geotome/core/form'
import { CHECKS, ledgerOf, type Floor, type Study } from '@geotome/core/study'
import { areasView, briefView } from './areas-view'
import { floorView, SentShapes, shapeOf, shifted, untakenAt } from './floor-view'
import { groundView, laidViews, sectionView } from './ground-view'
import { bodyGeometry, facesNamed, meshGeometry, merged } from './geometry'
import {
  groundKeys,
  type Ask,
  type FindingView,
  type Geometry,
  type MassView,
  type PartView,
  type ProposalView,
  type StudyView,
} from './protocol'

/** What the page has of what was sent to it: bodies and shapes by key, masses and parts by id. */
export interface Sent {
  keys: Set<string>
  shapes: SentShapes
  masses: Map<string, { from: unknown[]; view: MassView }>
  parts: Map<string, PartView>
  /** by mass, the storeys that it takes, and the floors that that was told from */
  storeys: { floors: readonly Floor[]; of: Map<string, string[]> }
}

const WHY = new Map(CHECKS.map((c) => [c.kind, c.why ?? '']))

export const nothingSent = (): Sent => ({
  keys: new Set(),
  shapes: new SentShapes(),
  masses: new Map(),
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

/** What the page needs of a study, as plain data; what it has already is not sent again. */
export function viewOf(study: Study, ask: Ask, sent: Sent, took: number): StudyView {
  const origin = originOf(study)
  const isHeld = ask.preview !== null && !ask.whole
  const geometry: Geometry[] = []
  const floors: Pick<StudyView, 'shapes' | 'pieces'> = { shapes: [], pieces: [] }
  const send = (key: string, make: () => Geometry) => {
    if (!sent.keys.has(key)) {
      sent.keys.add(key)
      geometry.push({ ...make(), key })
    }
    return key
  }
  const storeys = storeysOf(study, sent)
  const fresh: StudyView['fresh'] = { masses: [], parts: [] }
  const masses = [...study.forms, ...study.around]
  for (const f of masses) {
    const context = study.scheme.masses[f.id]?.context ?? false
    const source = study.growth.from.get(f.id)
    const grown = source ? grownView(study.scheme.masses[f.id], source) : null
    const gives = study.scheme.masses[f.id]?.gives ?? null
    const from = [f, context, gives, grown && study.scheme.masses[f.id], ...origin, storeys.get(f.id)]
    const had = sent.masses.get(f.id)
    const same = had !== undefined && sameList(had.from, from)
    const view = same ? had.view : massView(f, { context, gives }, grown, storeys.get(f.id) ?? [], origin)
    send(view.body, () => bodyGeometry(view.body, f.body))
    if (same) continue
    sent.masses.set(f.id, { from, view })
    fresh.masses.push(view)
  }
  // While something is dragged where parts are not drawn, their bodies come when it rests.
  const drawn = ask.fabric !== false || !isHeld
  for (const p of study.parts) {
    const eaves = p.role.endsWith('roof') ? eavesOf(study.context, p.part) : []
    const part = memo.keep(p, 'view', [...origin, eaves.join()], () => partView(p, origin, eaves))
    if (p.body && drawn) send(part.mesh ?? '', () => meshGeometry('', bodyMesh(p.body as PartBody), origin))
    if (sent.parts.get(p.id) === part) continue
    sent.parts.set(p.id, part)
    fresh.parts.push(part)
  }
  return {
    scheme: study.scheme.id,
    origin,
    levels: study.levels,
    masses: masses.map((f) => f.id),
    parts: study.parts.map((p) => p.id),
    fresh,
    geometry,
    took,
    pending: study.totals.pending,
    floors: study.floors.map((f) =>
      floorView(f, sent.shapes.send(shapeOf(f, origin), floors), untakenAt(study, f, origin)),
    ),
    ...floors,
    ledger: ledgerOf(study),
    open: study.findings.length,
    findings: isHeld && !ask.findings ? null : findingViews(study, origin),
    ground: groundView(study, origin, send),
    pictures: laidViews(study, origin),
    wingOf: Object.fromEntries(study.wings.of),
    section: ask.section ? sectionView(study, ask.section, origin) : null,
    compare: null,
    brief: briefView(study),
    areas: ask.areas ? areasView(study, origin, isHeld) : null,
    proposal: ask.proposal ? proposalView(study, ask.proposal, origin, send) : null,
  }
}

const findingViews = (study: Study, origin: Vec2): FindingView[] =>
  [...study.findings.map((f) => ({ ...f, mute: null })), ...study.muted].map(({ mute, ...f }) => ({
    ...f,
    region: shifted(f.region, origin),
    fix: f.fix?.label ?? null,
    why: WHY.get(f.kind) ?? '',
    muted: mute && { id: mute.id, reason: mute.reason },
  }))

/** Only the newest pieces of geometry are kept by the page: what a study no longer names is forgotten on both sides. */
export function forget(view: StudyView, sent: Sent): void {
  const there = new Set([...view.masses, ...view.parts])
  for (const list of [sent.masses, sent.parts]) for (const id of list.keys()) if (!there.has(id)) list.delete(id)
  const named = new Set([
    ...[...sent.masses.values()].map((m) => m.view.body),
    ...[...sent.parts.values()].flatMap((p) => p.mesh ?? []),
    ...(view.proposal?.mesh ? [view.proposal.mesh] : []),
    ...groundKeys(view.ground),
  ])
  for (const key of sent.keys) if (!named.has(key)) sent.keys.delete(key)
  sent.shapes.keepOnly(new Set(view.floors.map((f) => f.shape)))
}

/** What is drawn of a thing, kept while the thing stays the same object from study to study. */
const memo = new Memo()

function proposalView(
  study: Study,
  ask: NonNullable<Ask['proposal']>,
  origin: Vec2,
  send: (key: string, make: () => Geometry) => string,
): ProposalView {
  const proposal = propose(study.context, ask.masses ?? undefined, howOf(ask.choices))
  let n = 0
  const trial = partsFrom(study.context, () => `offered-${n++}`, proposal.candidates, ask.choices)
  const shaped = studyParts(study.context, [...Object.values(study.scheme.parts), ...trial]).filter(
    (p) => p.id.startsWith('offered-') && p.body,
  )
  const key = `offer:${hash(shaped.map((p) => partKey(p)).join())}`
  return {
    candidates: proposal.candidates.map((c, i) => ({
      key: c.key,
      off: c.off,
      warp: c.warp,
      name: c.part.name,
      role: c.role,
      mass: c.part.host.mass,
      level: c.part.base?.level ?? null,
      area: shaped.find((s) => s.id === `offered-${i}`)?.area ?? c.area,
    })),
    leftOut: proposal.leftOut,
    remarks: proposal.remarks,
    faces: proposal.faces,
    volume: shaped.reduce((sum, p) => sum + p.volume, 0),
    mesh: shaped.length
      ? send(key, () =>
          merged(
            key,
            shaped.flatMap((p) => (p.body ? [meshGeometry(p.id, bodyMesh(p.body), origin)] : [])),
          ),
        )
      : null,
  }
}

const shiftedRect = ({ x0, y0, x1, y1 }: Rect, [ox, oy]: Vec2): Rect => ({
  x0: x0 - ox,
  y0: y0 - oy,
  x1: x1 - ox,
  y1: y1 - oy,
})

const grownView = (mass: Mass | undefined, from: GrownFrom): MassView['grown'] => ({
  ...from,
  material: mass?.material ?? null,
  dressed: mass?.faces ?? {},
})

const massView = (
  f: MassForm,
  as: Pick<MassView, 'context' | 'gives'>,
  grown: MassView['grown'],
  storeys: string[],
  [ox, oy]: Vec2,
): MassView => ({
  id: f.id,
  grown,
  name: f.name,
  use: f.use,
  body: hash(f.body.key),
  at: { ...f.at, x: f.at.x - ox, y: f.at.y - oy },
  base: f.base,
  top: f.top,
  ridge: f.ridge,
  volume: f.body.volume,
  extent: shiftedRect(extentOf(f), [ox, oy]),
  ...as,
  faces: facesNamed(f.body).map((name) => ({ name, label: faceLabel(name) })),
  cage: f.body.cage,
  outline: footOf(f.body).map((p): Vec2 => {
    const [x, y] = placePoint(p, f.at)
    return [x - ox, y - oy]
  }),
  storeys,
})

const partView = (p: PartStudy, [ox, oy]: Vec2, eaves: string[]): PartView => ({
  id: p.id,
  name: p.part.name,
  role: p.role,
  mass: p.part.host.mass,
  level: p.part.base?.level ?? null,
  buildUp: p.part.buildUp,
  area: p.area,
  volume: p.volume,
  thickness: p.thickness,
  length: p.length,
  bond: p.bond,
  mesh: p.body ? memo.keep(p.body, 'key', [p.id], () => `part:${hash(partKey(p))}`) : null,
  kind: p.part.kind,
  plan: isWall(p.role) ? shifted(p.plan, [ox, oy]) : [],
  eaves: eaves.map((face) => ({ face, label: faceLabel(face) })),
})

/** What a part's shape is told apart by: its body is computed anew in each study, but seldom differs. */
function partKey(part: PartStudy): string {
  const { body } = part
  if (!body) return part.id
  return body.kind === 'prism'
    ? `${part.id}${JSON.stringify(body)}`
    : `${part.id}${bodyVolume(body)}${body.mesh.positions.join()}`
}

function hash(text: string): string {
  let [a, b] = [0x811c9dc5, 0x1000193]
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 16777619)
    b = Math.imul(b ^ c, 2246822507)
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`
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

/** The corners of what a body stands on, in its own frame, m. */
const footOf = (body: Body): Vec2[] =>
  memo.keep(body, 'foot', [], () => {
    const foot = flatsAmong(body.solid, (f) => f.plane.n[2] < -0.99)
    return foot.flatMap((f) => f.loops.flatMap((l) => l.points.map(([x, y]): Vec2 => [x, y])))
  })
