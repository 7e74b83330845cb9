import type { MassForm } from '../form'
import { areaOf, rectOf, rectsMeet, subtractRegions, type Region, type Vec3, TOLERANCE } from '../solid'
import { levelHeight, takenStoreys, type FabricContext } from './context'
import type { Draft } from './draft'
import { LIMITS } from './limits'
import { fallsAwayAt } from './part-shape'
import { facePrint, type WorldFace } from './print'
import { openStretches, standsIn } from './stands'

/** The slab under a face that looks down. */
export function addSoffit({ form, ties, next, offer }: Draft, face: WorldFace, area: number): void {
  offer('soffit slab', area, {
    kind: 'slab',
    follow: 'face',
    name: `${form.name}, soffit ${next('soffit')}`,
    side: 'inside',
    host: { mass: form.id, face: face.name, piece: '' },
    base: null,
    top: null,
    print: facePrint(face, ties),
  })
}

/** The roof or terrace on a face that looks up, and the parapet round it. */
export function addRoof({ context, form, how, ties, out, next, offer }: Draft, face: WorldFace, area: number): void {
  const flat = face.plane.n[2] > 1 - TOLERANCE.rounding
  const covered = standsIn(context, form, face)
  const plan: Region = face.loops.map((l) => l.map(([x, y]) => [x, y]))
  const open = covered.length ? areaOf(subtractRegions(plan, covered)) / face.plane.n[2] : area
  if (open < 0.01) {
    out.leftOut.push({
      mass: form.id,
      what: `${form.name}, top`,
      why: flat ? 'another mass stands on all of it' : 'it lies within another mass',
      area,
    })
    return
  }
  const common = {
    follow: 'face' as const,
    host: { mass: form.id, face: face.name, piece: '' },
    base: null,
    top: null,
    print: facePrint(face, ties),
  }
  if (flat && how.terraces && besideStorey(context, form, plan, face.plane.d)) {
    offer('terrace', open, {
      ...common,
      kind: 'terrace',
      name: `${form.name}, terrace ${next('terrace')}`,
      side: 'inside',
    })
    const falls = fallsAwayAt(form, face.plane.n)
    const opens = (a: Vec3, b: Vec3) =>
      openStretches(context, form, [a[0], a[1]], [b[0], b[1]], face.plane.d).length > 0
    if (
      how.parapets &&
      face.loops.some((loop, l) =>
        loop.some((a, i) => {
          const b = loop[(i + 1) % loop.length] ?? a
          return falls(face.beyond[l]?.[i] ?? '', a, b) && opens(a, b)
        }),
      )
    ) {
      offer('parapet', 0, {
        ...common,
        kind: 'parapet',
        name: `${form.name}, parapet ${next('parapet')}`,
        side: 'inside',
      })
    }
    return
  }
  offer(flat ? 'flat roof' : 'pitched roof', open, {
    ...common,
    kind: 'roof',
    name: `${form.name}, roof ${next('roof')}`,
    side: 'outside',
  })
}

/** Whether a flat top lies at a storey's height with floor of that storey beside it, so that one can step out on it. */
function besideStorey(context: FabricContext, form: MassForm, plan: Region, z: number): boolean {
  const level = context.levels.find((l) => l.kind === 'storey' && Math.abs(l.height - z) < TOLERANCE.touch)
  const rect = rectOf(plan)
  return (
    level !== undefined &&
    [...context.forms.values()].some((o) => {
      if (
        !rectsMeet(o.rect, rect, 0.05) ||
        o.top < z + LIMITS.leastUpright ||
        !takenStoreys(context, o).some((l) => l.id === level.id)
      )
        return false
      const plate = context.plateAt(o, z)
      return plate !== null && rectsMeet(plate.rect, rect, 0.05)
    }) &&
    levelHeight(context, level.id) > form.base + TOLERANCE.touch
  )
}
