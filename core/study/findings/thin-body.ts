import type { MassForm } from '../../form'
import { crossOf, dotOf, flatsAmong, inside, lessOf, planeAxes, type Face, type Vec2, type Vec3 } from '../../solid'
import { sayInUnits, tidy } from '../../project'
import type { Check } from '../types'
import { givesFloor } from '../special'
import { finding } from '../finding'

/** m: what is thinner is hardly a body that somebody meant */
const THIN = 0.1
/** m: what is shorter is hardly an edge that somebody drew */
const TINY = 0.005
/** faces of a body that are looked at, at most: what has more was not drawn by hand */
const MOST = 400

/** Bodies that are somewhere thinner than a tenth of a metre, or have edges of some millimetres: what a slip of the hand leaves. */
export const thinBody: Check = {
  kind: 'thin body or tiny edge',
  why: 'What is thinner than a wall is mostly a slip of the hand.',
  afterwards: true,
  run: ({ project, scheme, context, forms }) =>
    forms.flatMap((form) => {
      if (!givesFloor(scheme, form)) return []
      const found = context.memo.keep(form.body, 'thin', [], () => lookAt(form))
      return found.map(({ what, say, remedy }) =>
        finding('thin body or tiny edge', `${form.id}:${what}`, `${form.name} ${sayInUnits(say, project)}`, remedy, {
          masses: [form.id],
        }),
      )
    }),
}

function lookAt(form: MassForm): { what: string; say: string; remedy: string }[] {
  const { solid } = form.body
  // What is curved is not looked at: where there is such, the flat faces alone are put together.
  const flat = solid.facets.some((f) => f.surface) ? flatsAmong(solid, (f) => !f.surface) : form.body.faces()
  if (flat.length > MOST) return []
  const found: { what: string; say: string; remedy: string }[] = []
  const tiny = flat.flatMap((f) =>
    f.loops.flatMap(({ points }) =>
      points.flatMap((p, i): { long: number; at: Vec3 }[] => {
        const q = points[(i + 1) % points.length] as Vec3
        const long = Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2])
        if (long >= TINY) return []
        // What lies in one line with its neighbours is where two bodies met, and no jog that somebody drew.
        const [before, after] = [points.at(i - 1) as Vec3, points[(i + 2) % points.length] as Vec3]
        return isAside(before, p, q) && isAside(p, q, after) ? [{ long, at: p }] : []
      }),
    ),
  )[0]
  if (tiny)
    found.push({
      what: 'edge',
      say: `has an edge only ${tidy(Math.round(tiny.long * 1e4) / 1e4)} m long near ${tiny.at.map((c) => `${Math.round(c * 100) / 100} m`).join(', ')} of its own frame`,
      remedy: 'Move one of the two corners onto the other, or shape it so that they coincide.',
    })
  const thin = thinnest(flat)
  if (thin)
    found.push({
      what: 'thin',
      say: `is only ${thin.gap.toFixed(3)} m thin between two of its faces`,
      remedy: 'Make it thicker there, or cut that piece off.',
    })
  return found
}

/** Whether the way turns at its middle point. */
function isAside(a: Vec3, b: Vec3, c: Vec3): boolean {
  const [u, w] = [lessOf(b, a), lessOf(c, b)]
  return Math.hypot(...crossOf(u, w)) > 0.02 * Math.hypot(...u) * Math.hypot(...w)
}

/** The least gap between two faces that look away from one another, where one lies over the other. */
function thinnest(faces: Face[]): { gap: number } | null {
  let least: { gap: number } | null = null
  faces.forEach((a, i) => {
    for (const b of faces.slice(i + 1)) {
      if (dotOf(a.plane.n, b.plane.n) > -0.999) continue
      const gap = a.plane.d + b.plane.d
      if (gap <= 0 || gap >= Math.min(THIN, least?.gap ?? THIN)) continue
      if (liesOver(a, b) || liesOver(b, a)) least = { gap }
    }
  })
  return least
}

/** Whether the middle of one of a face's edges, drawn a little inwards, lies over another face. */
function liesOver(a: Face, b: Face): boolean {
  const { u, v } = planeAxes(a.plane.n)
  const flat = (p: Vec3): Vec2 => [dotOf(u, p), dotOf(v, p)]
  const loops = b.loops.map((l) => l.points.map(flat))
  const own = a.loops[0]?.points.map(flat) ?? []
  const middle: Vec2 = [0, 1].map((k) => own.reduce((s, p) => s + (p[k] as number), 0) / own.length) as Vec2
  return own.some((p, i) => {
    const q = own[(i + 1) % own.length] as Vec2
    const at: Vec2 = [0, 1].map(
      (k) => (((p[k] as number) + (q[k] as number)) / 2) * 0.98 + (middle[k] as number) * 0.02,
    ) as Vec2
    return loops.filter((l) => inside(l, at)).length % 2 === 1
  })
}
