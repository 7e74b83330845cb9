import { Plus, X } from 'lucide-react'
import {
  FOOTPRINT_SIZES,
  insertCorner,
  likeShapes,
  polygonOf,
  sizedBy,
  withMove,
  type Corner,
  type Hole,
  type Move,
  type OutlineShape,
} from '@geotome/core/moves'
import { numbersOf, tidy, type Num, type Numbers, showQuantity } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { ChoiceField } from '../common/fields'
import { NumField } from '../common/NumField'
import { LinkButton } from '../common/LinkButton'
import { JoinedFields } from './JoinedFields'
import type { RecipeProps } from './moves/kind'

type Outline = Extract<Move, { move: 'outline' }>
type SetShape = (label: string, shape: OutlineShape) => boolean
type TryShape = (shape: OutlineShape | null) => void

/** The outline that a form begins with: its numbers or corners, arcs by their rise, and its holes. */
export function OutlineFields({ outline, change, attempt }: RecipeProps & { outline: Outline }) {
  const set: SetShape = (label, shape) => change(label, (r) => withMove(r, outline, { shape }))
  const tried: TryShape = (shape) => attempt(shape && ((r) => withMove(r, outline, { shape })))
  const setHole = (hole: Hole, fields: Partial<Hole>) =>
    change('hole', (r) =>
      withMove(r, outline, { holes: outline.holes.map((h) => (h.id === hole.id ? { ...h, ...fields } : h)) }),
    )
  return (
    <>
      <AnyShape
        shape={outline.shape}
        set={set}
        tried={tried}
        open={outline.shape.kind !== 'polygon' || outline.shape.corners.length <= 6}
      />
      {outline.holes.map((hole, i) => (
        <details key={hole.id} className="mb-1.5 rounded-md border border-line px-2.5 py-1.5">
          <summary className="cursor-pointer text-ink2">
            hole {i + 1}, {hole.shape.kind}
          </summary>
          <div className="mt-1.5">
            <ShapeFields shape={hole.shape} set={(_, shape) => setHole(hole, { shape })} open={false} />
            <div className="grid grid-cols-2 gap-1">
              <NumField compact label="x" value={hole.x} onAccept={(x) => setHole(hole, { x })} />
              <NumField compact label="y" value={hole.y} onAccept={(y) => setHole(hole, { y })} />
            </div>
            <LinkButton
              onClick={() =>
                change('hole', (r) => withMove(r, outline, { holes: outline.holes.filter((h) => h.id !== hole.id) }))
              }
            >
              Close this hole
            </LinkButton>
          </div>
        </details>
      ))}
    </>
  )
}

/** A shape with the choice of others like it, and the way to free its corners. */
export function AnyShape({
  shape,
  set,
  tried,
  open = false,
}: {
  shape: OutlineShape
  set: SetShape
  tried: TryShape
  open?: boolean
}) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const like = likeShapes(shape, numbers)
  return (
    <>
      {like.length > 0 && (
        <ChoiceField
          label="outline"
          value={like[0]?.name ?? ''}
          options={like.map((l) => ({ value: l.name, label: l.name }))}
          onChange={(name) => set('outline', like.find((l) => l.name === name)?.shape ?? shape)}
        />
      )}
      <ShapeFields shape={shape} set={set} tried={tried} open={open} />
      {shape.kind !== 'polygon' && (
        <p className="mb-2">
          <LinkButton onClick={() => set('outline', { kind: 'polygon', corners: polygonOf(shape, numbers) })}>
            Free its corners
          </LinkButton>
        </p>
      )}
    </>
  )
}

/** The sizes of a shape, or its corners with the rise of their arcs. */
export function ShapeFields({
  shape,
  set,
  tried,
  open,
}: {
  shape: OutlineShape
  set: SetShape
  tried?: TryShape
  open: boolean
}) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  switch (shape.kind) {
    case 'regular':
      return (
        <>
          <NumField
            label="sides"
            quantity="number"
            value={shape.sides}
            onAccept={(sides) => set('sides', { ...shape, sides })}
            onTry={(sides) => tried?.(sides === null ? null : { ...shape, sides })}
          />
          <ChoiceField
            label="sized"
            value={shape.by}
            options={[
              { value: 'corners', label: 'from the middle to a corner' },
              { value: 'flats', label: 'across, side to side' },
              { value: 'side', label: 'by one side' },
            ]}
            onChange={(by) => set('outline', sizedBy(shape, by, numbers))}
          />
          <NumField
            label="size"
            value={shape.size}
            onAccept={(size) => set('size', { ...shape, size })}
            onTry={(size) => tried?.(size === null ? null : { ...shape, size })}
          />
        </>
      )
    case 'footprint': {
      const [a, b] = FOOTPRINT_SIZES[shape.form]
      return (
        <>
          {(
            [
              ['width', 'width'],
              ['depth', 'depth'],
              ['a', a],
              ['b', b],
            ] as const
          ).map(([key, label]) => (
            <NumField
              key={key}
              label={label}
              value={shape[key]}
              onAccept={(num: Num) => set(label, { ...shape, [key]: num })}
              onTry={(num) => tried?.(num === null ? null : { ...shape, [key]: num })}
            />
          ))}
        </>
      )
    }
    case 'rectangle':
    case 'ellipse':
    case 'chance':
      return (
        <>
          {(['width', 'depth'] as const).map((key) => (
            <NumField
              key={key}
              label={key}
              value={shape[key]}
              onAccept={(num: Num) => set(key, { ...shape, [key]: num })}
              onTry={(num) => tried?.(num === null ? null : { ...shape, [key]: num })}
            />
          ))}
          {shape.kind === 'chance' && (
            <NumField
              label="drawn from number"
              quantity="number"
              value={shape.seed}
              hint="The same number draws the same footprint again."
              onAccept={(seed) => set('number', { ...shape, seed })}
              onTry={(seed) => tried?.(seed === null ? null : { ...shape, seed })}
            />
          )}
        </>
      )
    case 'circle':
      return (
        <NumField
          label="radius"
          value={shape.radius}
          onAccept={(radius) => set('radius', { ...shape, radius })}
          onTry={(radius) => tried?.(radius === null ? null : { ...shape, radius })}
        />
      )
    case 'joined':
      return <JoinedFields shape={shape} set={set} tried={tried} />
    case 'polygon':
      return (
        <CornerFields
          corners={shape.corners}
          set={(corners) => set('corner', { ...shape, corners })}
          tried={(corners) => tried?.(corners && { ...shape, corners })}
          open={open}
        />
      )
  }
}

function CornerFields({
  corners,
  set,
  tried,
  open,
}: {
  corners: Corner[]
  set: (corners: Corner[]) => boolean
  tried: (corners: Corner[] | null) => void
  open: boolean
}) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const changed = (id: string, fields: Partial<Corner>) => corners.map((c) => (c.id === id ? { ...c, ...fields } : c))
  const change = (id: string, fields: Partial<Corner>) => set(changed(id, fields))
  const attempt = (id: string, key: 'x' | 'y') => (num: Num | null) =>
    tried(num === null ? null : changed(id, { [key]: num }))
  return (
    <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5" open={open}>
      <summary className="cursor-pointer text-ink2">outline, {corners.length} corners</summary>
      <ol className="mt-1.5">
        {corners.map((c, i) => {
          const chord = chordOf(corners, i, numbers)
          return (
            <li key={c.id} className="group mb-0.5">
              <div className="flex items-start gap-1">
                <div className="grid min-w-0 flex-1 grid-cols-2 gap-1">
                  <NumField
                    compact
                    label={`${i + 1} x`}
                    value={c.x}
                    onAccept={(x) => change(c.id, { x })}
                    onTry={attempt(c.id, 'x')}
                  />
                  <NumField
                    compact
                    label={`${i + 1} y`}
                    value={c.y}
                    onAccept={(y) => change(c.id, { y })}
                    onTry={attempt(c.id, 'y')}
                  />
                </div>
                <span className="flex flex-col pt-0.5 text-ink3">
                  <button
                    className="cursor-pointer p-0.5 hover:text-ink"
                    aria-label={`Add a corner behind corner ${i + 1}`}
                    title="Add a corner half-way to the next"
                    onClick={() => set(insertCorner(corners, c.id, numbers))}
                  >
                    <Plus size={12} />
                  </button>
                  <button
                    className="cursor-pointer p-0.5 hover:text-error disabled:opacity-30"
                    aria-label={`Remove corner ${i + 1}`}
                    title="Remove this corner"
                    disabled={corners.length <= 3}
                    onClick={() => set(corners.filter((o) => o.id !== c.id))}
                  >
                    <X size={12} />
                  </button>
                </span>
              </div>
              <NumField
                compact
                label={`arc to ${((i + 1) % corners.length) + 1}, rise`}
                value={tidy((numbers.value(c.bulge, 'number') * chord) / 2)}
                hint={
                  numbers.value(c.bulge, 'number') !== 0
                    ? `radius ${showQuantity(radiusOf(numbers.value(c.bulge, 'number'), chord), 'length', project)}; above zero swells out`
                    : undefined
                }
                onAccept={(_, rise) => change(c.id, { bulge: chord > 0 ? tidy((2 * rise) / chord) : 0 })}
              />
            </li>
          )
        })}
      </ol>
    </details>
  )
}

function chordOf(corners: Corner[], i: number, numbers: Numbers): number {
  const [a, b] = [corners[i], corners[(i + 1) % corners.length]]
  return a && b ? Math.hypot(numbers.length(b.x) - numbers.length(a.x), numbers.length(b.y) - numbers.length(a.y)) : 0
}
const radiusOf = (bulge: number, chord: number) => ((chord / 2) * (1 + bulge * bulge)) / (2 * Math.abs(bulge))
