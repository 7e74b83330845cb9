import { Plus, X } from 'lucide-react'
import { ridgeAlongOf } from '@geotome/core/form'
import { corners, insertCorner, ridgeHeight, withCorners, withMove, withPitch, type Move } from '@geotome/core/moves'
import { numbersOf, showQuantity, type Num } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { Figure } from '../common/fields'
import { NumField } from '../common/NumField'

type Change = (recipe: Move[]) => Move[]
type Join = Extract<Move, { move: 'join' }>
interface Props { recipe: Move[]; /** makes a change, and says whether it was made */ change: (label: string, next: Change) => boolean; /** tries one while typing; null takes it back */ attempt: (next: Change | null) => void; /** takes a joined body off */ apart?: (join: Join) => void }

/** A recipe, move by move; a joined body's own recipe unfolds within it. */
export function RecipeFields({ recipe, change, attempt, apart }: Props) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const pitched = recipe.some((m) => m.move === 'pitch')
  const fields = (move: Move) => {
    switch (move.move) {
      case 'outline': return move.shape.kind === 'rectangle' ? <RectangleFields key={move.id} outline={move} change={change} /> : <CornerFields key={move.id} outline={move} change={change} />
      case 'raise': return <NumField key={move.id} label={pitched ? 'eaves height' : 'height'} value={move.height} onAccept={(height) => change('height', (r) => withMove(r, move, { height }))} onTry={(height) => attempt(height === null ? null : (r) => withMove(r, move, { height }))} />
      case 'pitch': return <PitchFields key={move.id} recipe={recipe} pitch={move} change={change} />
      case 'join': return (
        <details key={move.id} className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
          <summary className="cursor-pointer"><span className="text-ink2">joined: </span>{move.name}{move.on ? '' : ', switched off'}</summary>
          <div className="mt-2">
            <RecipeFields recipe={move.recipe} change={(label, next) => change(`${label} of ${move.name}`, (r) => withMove(r, move, { recipe: next(move.recipe) }))} attempt={(next) => attempt(next && ((r) => withMove(r, move, { recipe: next(move.recipe) })))} />
            {(['x', 'y'] as const).map((key) => <NumField key={key} label={`${key} from its corner`} value={move.place[key]} onAccept={(num) => change('place', (r) => withMove(r, move, { place: { ...move.place, [key]: num } }))} />)}
            <NumField label="above its base by" value={move.lift} onAccept={(lift) => change('lift', (r) => withMove(r, move, { lift }))} />
            <p className="flex gap-4"><Link onClick={() => change('join', (r) => withMove(r, move, { on: !move.on }))}>{move.on ? 'Switch off' : 'Switch on'}</Link>{apart && <Link onClick={() => apart(move)}>Take it apart</Link>}</p>
          </div>
        </details>)
    }
  }
  return (
    <>
      {recipe.map(fields)}
      {!pitched && <button className="act mb-1.5 w-full" onClick={() => change('pitch', (r) => withPitch(r, mint, { angle: 35, direction: ridgeAlongOf(r, numbers) }))}>Give it a pitch</button>}
    </>
  )
}

function RectangleFields({ outline, change }: { outline: Extract<Move, { move: 'outline' }>; change: Props['change'] }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const { shape } = outline
  if (shape.kind !== 'rectangle') return null
  return (
    <>
      {(['width', 'depth'] as const).map((key) => <NumField key={key} label={key} value={shape[key]} onAccept={(num: Num) => change(key, (r) => withMove(r, outline, { shape: { ...shape, [key]: num } }))} />)}
      <p className="mb-2"><Link onClick={() => change('outline', (r) => withCorners(r, numbers, (c) => c))}>Free its corners</Link></p>
    </>
  )
}

function CornerFields({ outline, change }: { outline: Extract<Move, { move: 'outline' }>; change: Props['change'] }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  if (outline.shape.kind !== 'polygon') return null
  const points = outline.shape.corners
  const set = (id: string, key: 'x' | 'y') => (num: Num) => change('corner', (r) => withCorners(r, numbers, (all) => all.map((c) => (c.id === id ? { ...c, [key]: num } : c))))
  return (
    <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5" open={points.length <= 6}>
      <summary className="cursor-pointer text-ink2">outline, {points.length} corners</summary>
      <ol className="mt-1.5">
        {points.map((c, i) => (
          <li key={c.id} className="group flex items-start gap-1">
            <div className="grid min-w-0 flex-1 grid-cols-2 gap-1"><NumField compact label={`${i + 1} x`} value={c.x} onAccept={set(c.id, 'x')} /><NumField compact label={`${i + 1} y`} value={c.y} onAccept={set(c.id, 'y')} /></div>
            <span className="flex flex-col pt-0.5 text-ink3">
              <button className="cursor-pointer p-0.5 hover:text-ink" aria-label={`Add a corner behind corner ${i + 1}`} title="Add a corner half-way to the next" onClick={() => change('corner', (r) => withCorners(r, numbers, (all) => insertCorner(all, c.id, numbers)))}><Plus size={12} /></button>
              <button className="cursor-pointer p-0.5 hover:text-error disabled:opacity-30" aria-label={`Remove corner ${i + 1}`} title="Remove this corner" disabled={points.length <= 3} onClick={() => change('corner', (r) => withCorners(r, numbers, (all) => all.filter((o) => o.id !== c.id)))}><X size={12} /></button>
            </span>
          </li>))}
      </ol>
    </details>
  )
}

function PitchFields({ recipe, pitch, change }: { recipe: Move[]; pitch: Extract<Move, { move: 'pitch' }>; change: Props['change'] }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const [outline, raise] = [recipe.find((m) => m.move === 'outline'), recipe.find((m) => m.move === 'raise')]
  const ridge = outline && raise ? ridgeHeight(corners(outline.shape, numbers), numbers.length(raise.height), numbers.angle(pitch.angle), numbers.angle(pitch.direction)) : null
  return (
    <div className="mt-1 mb-1.5 rounded-md border border-line p-2">
      <NumField label="roof angle" quantity="angle" value={pitch.angle} onAccept={(angle) => change('roof angle', (r) => withMove(r, pitch, { angle }))} />
      <NumField label="ridge direction" quantity="angle" value={pitch.direction} onAccept={(direction) => change('ridge direction', (r) => withMove(r, pitch, { direction }))} hint="0 runs east, 90 north" />
      {ridge !== null && pitch.on && <Figure label="ridge height"><span data-figure="ridge">{showQuantity(ridge, 'length', project.unit)}</span></Figure>}
      <p className="mt-1.5 flex gap-4"><Link onClick={() => change('pitch', (r) => withMove(r, pitch, { on: !pitch.on }))}>{pitch.on ? 'Switch off' : 'Switch on'}</Link><Link onClick={() => change('pitch', (r) => withPitch(r, mint, null))}>Take the pitch off</Link></p>
    </div>
  )
}

const mint = () => crypto.randomUUID()
const Link = ({ onClick, children }: { onClick: () => void; children: React.ReactNode }) => <button className="cursor-pointer text-[12px] text-ink2 underline hover:text-ink" onClick={onClick}>{children}</button>
