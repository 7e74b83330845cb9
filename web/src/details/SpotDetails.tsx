import type { Edit } from '@geotome/core/edits'
import { moveJoint, pullFace } from '@geotome/core/form'
import { inOrder, readTyped, Refusal, refuse, showNumber, showQuantity, type Mass } from '@geotome/core/project'
import { useState } from 'react'
import { useProject, useStudy, useViewState } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { worldNow } from '../tools/at-work'
import type { World } from '../tools/kind'
import { spotsPicked } from '../app/view-slice'
import { ChoiceField, Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { CrispEdge, OpenFace } from './SoftSpots'
import { calledFace } from '../stage/spot'
import { cornersOf, endsOf, faceDrawn, faceNearest, facesThat, lookOf, type FaceDrawn } from '../stage/spots'
import type { MassView } from '../worker/protocol'
import { tellFault } from '../common/tell'

const mint = () => crypto.randomUUID()

/** Picked faces, edges or corners: what they measure, what can be done with them, and what else is like them. */
export function SpotDetails() {
  const { spots } = useViewState('spots')
  const [first] = spots
  if (!first) return null
  return first.kind === 'face' ? (
    <Faces />
  ) : spots.length === 1 ? (
    <Joint />
  ) : (
    <p className="eyebrow mb-2">
      {spots.length} {first.kind}s
    </p>
  )
}

function Faces() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const { spots, face: seen, hidden, storeys } = useViewState('spots', 'face', 'hidden', 'storeys')
  const drawn = spots.flatMap((s): { mass: MassView; face: FaceDrawn }[] => {
    const mass = study?.masses.find((m) => m.id === s.mass)
    const face = mass && faceDrawn(mass, s.faces[0] ?? '')
    return mass && face ? [{ mass, face }] : []
  })
  const [one, more] = drawn
  if (!one) return null
  const all = (study?.masses ?? []).filter((m) => !m.context && !m.grown && !hidden.includes(m.id))
  const pick = (masses: MassView[], holds: (f: FaceDrawn) => boolean) => dispatch(spotsPicked(facesThat(masses, holds)))
  const alike = (f: FaceDrawn) => dot(f.normal, one.face.normal) > 0.9995
  const area = seen && !more ? seen.area : drawn.reduce((sum, d) => sum + d.face.area, 0)
  const materials = new Set(drawn.map(({ mass, face }) => scheme.masses[mass.id]?.faces[face.name] ?? ''))
  const dress = (id: string) =>
    makeEdit(`material of ${drawn.length === 1 ? 'a face' : `${drawn.length} faces`}`, () => ({
      edit: 'batch',
      edits: [...new Set(drawn.map((d) => d.mass.id))].map((mass) => {
        const faces = { ...(scheme.masses[mass] as Mass).faces }
        for (const d of drawn.filter((d) => d.mass.id === mass))
          if (id) faces[d.face.name] = id
          else delete faces[d.face.name]
        return { edit: 'mass.change', scheme: scheme.id, id: mass, set: { faces } }
      }),
    }))
  const button = 'btn btn-sm h-7 grow px-2 text-[12px]'
  return (
    <section aria-label="Picked faces" className="mb-3">
      <p className="eyebrow mb-2">{more ? `${drawn.length} faces` : `Face, ${calledFace(one.mass, one.face.name)}`}</p>
      {!more && <Figure label="of">{one.mass.name}</Figure>}
      <Figure label="area">{showQuantity(area, 'area', project)}</Figure>
      {!more && <Figure label="looks">{lookOf(one.face.normal)}</Figure>}
      {!more && seen && (
        <Figure label={seen.frame ? 'tilt' : 'tilt, in the mean'}>{showQuantity(seen.tilt, 'angle', project)}</Figure>
      )}
      {!more && (
        <StepField
          label={storeys.length ? `pull out on ${storeys.length} chosen` : 'pull out by'}
          say="Square to it; below zero in."
          what={`pull ${one.mass.name}`}
          edit={(by, now) => pullFace(now.project, now.scheme, mint, one.mass.id, one.face.name, by, storeys)}
        />
      )}
      {!more && <OpenFace mass={one.mass.id} face={one.face.name} />}
      <ChoiceField
        label="material"
        value={materials.size === 1 ? ([...materials][0] ?? '') : 'several'}
        options={[
          ...(materials.size > 1 ? [{ value: 'several', label: 'several' }] : []),
          { value: '', label: 'as the mass' },
          ...inOrder(project.materials).map((m) => ({ value: m.id, label: m.name })),
        ]}
        onChange={(id) => id !== 'several' && dress(id)}
      />
      <Section title="Pick also">
        <div className="flex flex-wrap gap-1">
          <button className={button} onClick={() => pick(all, alike)}>
            All that look {lookOf(one.face.normal)}
          </button>
          <button className={button} onClick={() => pick([one.mass], alike)}>
            Those of {one.mass.name}
          </button>
          <button className={button} onClick={() => pick(all, (f) => f.normal[2] > 0.999)}>
            All tops
          </button>
          <button className={button} onClick={() => pick([one.mass], (f) => Math.abs(f.normal[2]) < 0.02)}>
            Its sides
          </button>
        </div>
        <NearestField all={all} />
      </Section>
    </section>
  )
}

/** The face that is nearest to a typed point: east, north, up. */
function NearestField({ all }: { all: MassView[] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const [ox, oy] = useStudy()?.origin ?? [0, 0]
  const [typed, setTyped] = useState('')
  const pick = () => {
    try {
      const [x, y, z] = typed.split(/[,;]\s*/).map((part) => readTyped(part, 'length', project, scheme).value)
      if (x === undefined || y === undefined || z === undefined)
        return refuse('formula', 'A point has three numbers.', 'Type east, north and up, with commas between them.')
      const spot = faceNearest(all, [x - ox, y - oy, z])
      if (spot) dispatch(spotsPicked([spot]))
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      tellFault(e.message)
    }
  }
  return (
    <label className="input mt-1.5 w-full px-2.5">
      <span className="shrink-0 text-ink2">nearest to</span>
      <input
        className="min-w-0 flex-1 text-right font-semibold"
        placeholder="east, north, up"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => e.key === 'Enter' && pick()}
      />
    </label>
  )
}

const dot = (a: readonly number[], b: readonly number[]) =>
  (a[0] ?? 0) * (b[0] ?? 0) + (a[1] ?? 0) * (b[1] ?? 0) + (a[2] ?? 0) * (b[2] ?? 0)

/** A length that is tried while it is typed, done with Enter, and then is zero again. */
function StepField({
  label,
  say,
  what,
  edit,
}: {
  label: string
  say?: string
  what: string
  /** the edit on the project without what is tried */
  edit: (by: number, now: World) => Edit
}) {
  const [times, setTimes] = useState(0)
  const on = (by: number) => () => {
    const now = worldNow()
    return now ? edit(by, now) : refuse('stale', 'No project is open.')
  }
  return (
    <NumField
      key={times}
      label={label}
      hint={say}
      value={0}
      onTry={(num, by) => tryEdit(num === null || by === 0 ? null : on(by))}
      onAccept={(_, by) => {
        const done = by !== 0 && makeEdit(what, on(by))
        if (done) setTimes(times + 1)
        return done
      }}
    />
  )
}

function Joint() {
  const { project } = useProject()
  const study = useStudy()
  const [spot] = useViewState('spots').spots
  const mass = study?.masses.find((m) => m.id === spot?.mass)
  if (!spot || !mass) return null
  const [ox, oy] = study?.origin ?? [0, 0]
  const ends = endsOf(cornersOf(mass, spot))
  const [a, b] = ends
  const at = a ? [a[0] + ox, a[1] + oy, a[2]] : null
  const step = (label: string, way: (d: number) => [number, number, number]) => (
    <StepField
      label={label}
      what={`shift ${mass.name}`}
      edit={(d, now) => moveJoint(now.project, now.scheme, mint, mass.id, spot.faces, way(d))}
    />
  )
  return (
    <section aria-label={`Picked ${spot.kind}`} className="mb-3">
      <p className="eyebrow mb-2">
        {spot.kind}, {spot.faces.map((face) => calledFace(mass, face)).join(' and ')}
      </p>
      <Figure label="of">{mass.name}</Figure>
      {a && b && (
        <Figure label="length">
          {showQuantity(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]), 'length', project)}
        </Figure>
      )}
      {at && !b && <Figure label="at">{at.map((c) => showNumber(c, 'length', project)).join(', ')}</Figure>}
      {step('move east by', (d) => [d, 0, 0])}
      {step('move north by', (d) => [0, d, 0])}
      {step('move up by', (d) => [0, 0, d])}
      {spot.kind === 'edge' && <CrispEdge mass={mass.id} faces={spot.faces} />}
    </section>
  )
}
