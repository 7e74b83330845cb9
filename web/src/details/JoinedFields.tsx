import { Plus, X } from 'lucide-react'
import type { OutlineShape } from '@geotome/core/moves'
import { numbersOf, tidy, type Num } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { LinkButton } from '../common/LinkButton'
import { NumField } from '../common/NumField'

type Joined = Extract<OutlineShape, { kind: 'joined' }>

/** The rectangles that are one outline, each by its corner and sizes; another one is put beside the last. */
export function JoinedFields({
  shape,
  set,
  tried,
}: {
  shape: Joined
  set: (label: string, shape: Joined) => boolean
  tried: ((shape: Joined | null) => void) | undefined
}) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const changed = (id: string, fields: object): Joined => ({
    ...shape,
    parts: shape.parts.map((p) => (p.id === id ? { ...p, ...fields } : p)),
  })
  const next = (): Joined => {
    const last = shape.parts.at(-1)
    const width = last ? numbers.length(last.width) : 6
    const taken = new Set(shape.parts.map((p) => p.id))
    let n = 0
    while (taken.has(String.fromCharCode(97 + n))) n++
    const part = {
      id: String.fromCharCode(97 + n),
      x: last ? tidy(numbers.length(last.x) + width) : 0,
      y: last?.y ?? 0,
      width,
      depth: tidy((last ? numbers.length(last.depth) : 6) / 2),
    }
    return { ...shape, parts: [...shape.parts, part] }
  }
  return (
    <fieldset className="mb-1.5">
      <legend className="mb-1 text-[11px] text-ink2">joined rectangles</legend>
      {shape.parts.map((p, i) => (
        <div
          key={p.id}
          role="group"
          aria-label={`rectangle ${i + 1}`}
          className="mb-1 flex items-start gap-1 border-l-2 border-line pl-2"
        >
          <div className="grid min-w-0 flex-1 grid-cols-2 gap-1">
            {(['x', 'y', 'width', 'depth'] as const).map((key) => (
              <NumField
                key={key}
                compact
                label={key}
                value={p[key]}
                onAccept={(num: Num) => set(key, changed(p.id, { [key]: num }))}
                onTry={(num) => tried?.(num === null ? null : changed(p.id, { [key]: num }))}
              />
            ))}
          </div>
          <button
            className="cursor-pointer p-0.5 text-ink3 hover:text-error disabled:opacity-30"
            aria-label={`Take rectangle ${i + 1} off`}
            disabled={shape.parts.length === 1}
            onClick={() => set('rectangle', { ...shape, parts: shape.parts.filter((o) => o.id !== p.id) })}
          >
            <X size={12} />
          </button>
        </div>
      ))}
      <LinkButton onClick={() => set('rectangle', next())}>
        <Plus size={12} className="inline" /> rectangle
      </LinkButton>
    </fieldset>
  )
}
