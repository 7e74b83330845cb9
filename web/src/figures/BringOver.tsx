import { useState } from 'react'
import { bringOver } from '@geotome/core/groundwork'
import { levelHeights } from '@geotome/core/levels'
import { inOrder, showNumber } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'

/** Masses and levels of the other scheme that are brought over into this one, the parts of the masses with them if wanted. */
export function BringOver({ from }: { from: string }) {
  const { project, scheme } = useProject()
  const other = project.schemes[from]
  const [masses, setMasses] = useState<string[]>([])
  const [levels, setLevels] = useState<string[]>([])
  const [parts, setParts] = useState(false)
  if (!other) return null
  const differs = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b)
  const strange = inOrder(other.masses).filter((m) => differs(m, scheme.masses[m.id]))
  const heights = levelHeights(project, scheme)
  const odd = levelHeights(project, other)
    .filter((l) => {
      const mine = heights.find((h) => h.id === l.id) ?? heights.find((h) => h.name === l.name)
      return !mine || Math.abs(mine.height - l.height) > 1e-5
    })
    .reverse()
  const bring = () => {
    const what = { masses, levels, parts }
    if (makeEdit(`bring over from ${other.name}`, () => bringOver(project, other, scheme, what))) {
      setMasses([])
      setLevels([])
    }
  }
  if (strange.length + odd.length === 0) return null
  return (
    <section className="px-3 pt-4 pb-3" aria-label="bring over">
      <h3 className="eyebrow pb-1">Bring over from {other.name}</h3>
      <div className="flex flex-wrap items-start gap-3 text-[12.5px]">
        <CheckList
          label="masses to bring over"
          things={strange.map((m) => ({
            id: m.id,
            name: m.name,
            says: scheme.masses[m.id] ? 'differs here' : 'not here',
          }))}
          chosen={masses}
          choose={setMasses}
        />
        <CheckList
          label="levels to bring over"
          things={odd.map((l) => ({ id: l.id, name: l.name, says: showNumber(l.height, 'length', project) }))}
          chosen={levels}
          choose={setLevels}
        />
        <div className="flex flex-col gap-2">
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={parts}
              onChange={(e) => setParts(e.target.checked)}
            />
            with their walls, slabs and roofs
          </label>
          <button className="btn btn-sm h-7 text-[12px]" disabled={masses.length + levels.length === 0} onClick={bring}>
            Bring over
          </button>
        </div>
      </div>
    </section>
  )
}

/** Things to be ticked; nothing where there are none. */
function CheckList({
  label,
  things,
  chosen,
  choose,
}: {
  label: string
  things: readonly { id: string; name: string; says: string }[]
  chosen: readonly string[]
  choose: (ids: string[]) => void
}) {
  if (things.length === 0) return null
  return (
    <ul
      className="max-h-40 min-w-52 overflow-auto rounded-md border border-line bg-field px-2.5 py-1"
      aria-label={label}
    >
      {things.map(({ id, name, says }) => (
        <li key={id}>
          <label className="flex cursor-pointer items-center gap-2 py-[3px]">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={chosen.includes(id)}
              onChange={() => choose(chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id])}
            />
            {name} <span className="text-ink2">{says}</span>
          </label>
        </li>
      ))}
    </ul>
  )
}
