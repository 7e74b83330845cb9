import { crispEdge, crispnessOf, isOpen, openFace } from '@geotome/core/form'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { NumField } from '../common/NumField'
import { worldNow } from '../tools/at-work'

const mint = () => crypto.randomUUID()
const now = () => worldNow()?.scheme

const useSoft = (id: string) => {
  const { scheme } = useProject()
  const mass = scheme.masses[id]
  return mass?.recipe.some((m) => m.move === 'soft' && m.on) ? { mass, scheme } : null
}

/** For how many steps the picked edge of a soft form stays crisp. */
export function CrispEdge({ mass: id, faces }: { mass: string; faces: readonly string[] }) {
  const soft = useSoft(id)
  if (!soft) return null
  const { mass, scheme } = soft
  const degree = crispnessOf(mass, faces)
  const set = (to: typeof degree) =>
    makeEdit(`edge of ${mass.name}`, () => crispEdge(now() ?? scheme, mint, id, faces, to))
  const choice = (label: string, value: typeof degree, hint: string) => (
    <button
      key={label}
      className="btn btn-sm h-7 grow px-2 text-[12px]"
      aria-pressed={degree === value}
      title={hint}
      onClick={() => set(value)}
    >
      {label}
    </button>
  )
  return (
    <>
      <div role="group" aria-label="this edge is" className="mb-1.5 flex gap-1">
        {choice('As the others', null, 'As the soft form says for all edges.')}
        {choice('Smooth', 0, 'Rounded, whatever the others are.')}
        {choice('Crisp', 10, 'Sharp for ever.')}
      </div>
      {degree !== null && (
        <NumField
          label="this edge crisp by"
          quantity="number"
          hint="0 smooth, 10 always crisp; between, crisp at first and rounded then."
          value={degree}
          onAccept={(num) => set(num)}
        />
      )}
    </>
  )
}

/** Whether the picked face of a soft form is left open. */
export function OpenFace({ mass: id, face }: { mass: string; face: string }) {
  const soft = useSoft(id)
  if (!soft?.mass.recipe.every((m) => m.move !== 'soft' || m.id !== face.split('/')[0])) return null
  const { mass, scheme } = soft
  const open = isOpen(mass, face)
  return (
    <button
      className="btn btn-sm mb-1.5 h-7 w-full text-[12px]"
      title="What has open faces is a skin of the thickness that its move says."
      onClick={() =>
        makeEdit(`${open ? 'close' : 'open'} a face of ${mass.name}`, () =>
          openFace(now() ?? scheme, mint, id, face, !open),
        )
      }
    >
      {open ? 'Close this face' : 'Leave this face open'}
    </button>
  )
}
