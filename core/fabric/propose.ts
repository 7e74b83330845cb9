import { TOLERANCE } from '../solid'
import { faceTitle, type MassForm } from '../form'
import { inOrder } from '../project'
import { lowestOf } from './pieces'
import { faceSlope, facesOfForm, sidesOf, type FabricContext, type FaceSlope } from './context'
import { draftFor, tie, type Draft } from './draft'
import { choicesOf } from './face-choices'
import { faceKey, partKey, USUAL, type FaceAs, type How, type Proposal } from './offers'
import { faceArea, platePrint, type WorldFace } from './print'
import { addRoof, addSoffit } from './propose-tops'
import { addStoreyWalls, addWalls } from './propose-walls'

/**
 * What the faces of the masses become: walls by storey, slabs at the storeys taken, roofs on what looks up. Reads faces,
 * not cuts: a piece of face that borders only roof space gives no wall, the wall below runs up instead.
 */
export function propose(context: FabricContext, masses?: string[], how: How = USUAL): Proposal {
  const steps = proposeSteps(context, masses, how)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The same mass by mass: yields how much of it is done, 0 to 1. */
export function* proposeSteps(
  context: FabricContext,
  masses: string[] = inOrder(context.scheme.masses).map((m) => m.id),
  how: How = USUAL,
): Generator<number, Proposal> {
  const made = context.memo.keep(
    context.scheme,
    'made',
    [context.scheme.parts],
    () => new Set(Object.values(context.scheme.parts).map(partKey)),
  )
  const proposal: Proposal = { candidates: [], leftOut: [], remarks: [], faces: [] }
  for (const [i, id] of masses.entries()) {
    yield i / masses.length
    const form = context.forms.get(id)
    if (!form || context.scheme.masses[id]?.context) continue
    const found = proposeFor(context, form, how)
    for (const candidate of found.candidates) {
      if (made.has(candidate.key))
        proposal.leftOut.push({ mass: id, what: candidate.part.name, why: 'is made already', area: candidate.area })
      else proposal.candidates.push(candidate)
    }
    proposal.leftOut.push(...found.leftOut)
    proposal.remarks.push(...found.remarks)
    proposal.faces.push(...found.faces)
  }
  return proposal
}

function proposeFor(context: FabricContext, form: MassForm, how: How): Proposal {
  const draft = draftFor(context, form, how)
  const { storeys, ties, out, offer } = draft
  for (const storey of storeys) {
    const plate = context.plateAt(form, storey.height)
    if (!plate) continue
    const role = Math.abs(storey.height - form.base) < TOLERANCE.height ? 'ground slab' : 'floor slab'
    offer(role, plate.area, {
      kind: 'slab',
      follow: 'face',
      name: `${form.name}, ${storey.name}, ${role}`,
      side: 'inside',
      host: { mass: form.id, face: 'plate', piece: '' },
      base: tie(storey.id),
      top: null,
      print: platePrint(ties.form, sidesOf(context, form, plate), plate.region),
    })
  }

  for (const face of facesOfForm(form)) {
    const slope = faceSlope(context, face, form)
    const area = faceArea(face)
    if (slope === 'base') continue
    const usual = usualOf(draft, face, slope)
    const as = how.overrule[faceKey(form.id, face.name)] ?? usual
    const before = out.candidates.length
    switch (as) {
      case 'wall':
        addWalls(draft, face)
        break
      case 'upright walls':
      case 'facets':
        addStoreyWalls(draft, face, as === 'facets' ? 'facets' : 'upright')
        break
      case 'roof':
        addRoof(draft, face, area)
        break
      case 'soffit slab':
        addSoffit(draft, face, area)
        break
      case 'nothing':
        if (usual !== 'nothing')
          out.leftOut.push({
            mass: form.id,
            what: `${form.name}, ${faceTitle(form, face.name)}`,
            why: 'was left out on purpose',
            area,
          })
    }
    const off = out.candidates
      .slice(before)
      .reduce<number | null>((most, c) => (c.off === null ? most : Math.max(most ?? 0, c.off)), null)
    out.faces.push({
      mass: form.id,
      face: face.name,
      label: faceTitle(form, face.name),
      slope,
      bent: face.bent,
      as,
      choices: choicesOf(face),
      area,
      off,
    })
  }
  return out
}

/** What a face becomes where nobody says otherwise. */
function usualOf({ how, storeys }: Draft, face: WorldFace, slope: FaceSlope): FaceAs {
  if (slope === 'upright' || slope === 'leaning') return face.bent ? how.bent : 'wall'
  if (slope === 'roof') return 'roof'
  // A level underside at a storey is the underside of that storey's slab.
  return face.plane.n[2] < -1 + TOLERANCE.rounding &&
    storeys.some((l) => Math.abs(l.height - lowestOf(face)) < TOLERANCE.touch)
    ? 'nothing'
    : 'soffit slab'
}
