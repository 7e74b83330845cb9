import { bodyHeights, bodyMesh, bodyVolume, eavesOf, isWall, type PartBody, type PartStudy } from '@geotome/core/fabric'
import { extentOf, faceTitle, type Body, type GrownFrom, type MassForm } from '@geotome/core/form'
import { Memo, sameList, type Mass } from '@geotome/core/project'
import { flatsAmong, placePoint, type Rect, type Vec2 } from '@geotome/core/solid'
import type { Study } from '@geotome/core/study'
import { shifted } from './floor-view'
import { bodyGeometry, facesNamed, meshGeometry } from './geometry'
import type { Geometry, MassView, PartView } from './protocol'

/** Sends a piece of geometry by its key, unless the page has it; gives the key. */
export type Send = (key: string, make: () => Geometry) => string

/** The views of masses that the page has, and what each was made from, by id. */
export interface SentMasses {
  masses: Map<string, MassView>
  from: Map<string, unknown[]>
}

/** A mass as the page shows it; the same object while nothing of it changes. */
export function sentMass(
  study: Study,
  f: MassForm,
  storeys: string[] | undefined,
  origin: Vec2,
  sent: SentMasses,
  send: Send,
): MassView {
  const mass = study.scheme.masses[f.id]
  const { context = false, gives = null } = mass ?? {}
  const source = study.growth.from.get(f.id)
  const grown = source ? grownView(mass, source) : null
  const from = [f, context, gives, grown && mass, ...origin, storeys]
  const had = sent.from.get(f.id)
  const known = had && sameList(had, from) ? sent.masses.get(f.id) : undefined
  const view = known ?? massView(f, { context, gives }, grown, storeys ?? [], origin)
  send(view.body, () => bodyGeometry(view.body, f.body))
  sent.from.set(f.id, from)
  return view
}

/** A part as the page shows it; without `send` its body comes later. */
export function sentPart(study: Study, p: PartStudy, origin: Vec2, send: Send | null): PartView {
  const form = study.context.forms.get(p.part.host.mass)
  const faces = form && p.role.endsWith('roof') ? eavesOf(study.context, p.part) : []
  const eaves = faces.map((face) => ({ face, label: form ? faceTitle(form, face) : '' }))
  const part = memo.keep(p, 'view', [...origin, eaves.map((e) => `${e.face} ${e.label}`).join()], () =>
    partView(p, origin, eaves),
  )
  if (p.body) send?.(part.mesh ?? '', () => meshGeometry('', bodyMesh(p.body as PartBody), origin))
  return part
}

/** What is drawn of a thing, kept while the thing stays the same object from study to study. */
const memo = new Memo()

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
  faces: facesNamed(f.body).map((name) => ({ name, label: faceTitle(f, name) })),
  cage: f.body.cage,
  outline: footOf(f.body).map((p): Vec2 => {
    const [x, y] = placePoint(p, f.at)
    return [x - ox, y - oy]
  }),
  storeys,
})

const partView = (p: PartStudy, [ox, oy]: Vec2, eaves: PartView['eaves']): PartView => ({
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
  top: p.body ? bodyHeights(p.body).z1 : -Infinity,
  bond: p.bond,
  mesh: p.body ? memo.keep(p.body, 'key', [p.id], () => `part:${hash(partKey(p))}`) : null,
  kind: p.part.kind,
  plan: isWall(p.role) ? shifted(p.plan, [ox, oy]) : [],
  eaves,
})

/** What a part's shape is told apart by: its body is computed anew in each study, but seldom differs. */
export function partKey(part: PartStudy): string {
  const { body } = part
  if (!body) return part.id
  return body.kind === 'prism'
    ? `${part.id}${JSON.stringify(body)}`
    : `${part.id}${bodyVolume(body)}${body.mesh.positions.join()}`
}

export function hash(text: string): string {
  let [a, b] = [0x811c9dc5, 0x1000193]
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 16777619)
    b = Math.imul(b ^ c, 2246822507)
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`
}

/** The corners of what a body stands on, in its own frame, m. */
const footOf = (body: Body): Vec2[] =>
  memo.keep(body, 'foot', [], () => {
    const foot = flatsAmong(body.solid, (f) => f.plane.n[2] < -0.99)
    return foot.flatMap((f) => f.loops.flatMap((l) => l.points.map(([x, y]): Vec2 => [x, y])))
  })
