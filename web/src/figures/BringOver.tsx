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
  const toggle = (list: string[], id: string) => (list.includes(id) ? list.filter((x) => x !== id) : [...list, id])
  const bring = () => {
    const what = { masses, levels, parts }
    if (makeEdit(`bring over from ${other.name}`, () => bringOver(project, other, scheme, what))) {
      setMasses([])
      setLevels([])
    }
  }
  if (strange.length + odd.length === 0) return null
  const box = 'max-h-40 min-w-52 overflow-auto rounded-md border border-line bg-field px-2.5 py-1'
  return (
    <section className="px-3 pt-4 pb-3" aria-label="bring over">
      <h3 className="eyebrow pb-1">Bring over from {other.name}</h3>
      <div className="flex flex-wrap items-start gap-3 text-[12.5px]">
        {strange.length > 0 && (
          <ul className={box} aria-label="masses to bring over">
            {strange.map((m) => (
              <li key={m.id}>
                <label className="flex cursor-pointer items-center gap-2 py-[3px]">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={masses.includes(m.id)}
                    onChange={() => setMasses(toggle(masses, m.id))}
                  />
                  {m.name}
                  <span className="text-ink2">{scheme.masses[m.id] ? 'differs here' : 'not here'}</span>
                </label>
              </li>
            ))}
          </ul>
        )}
        {odd.length > 0 && (
          <ul className={box} aria-label="levels to bring over">
            {odd.map((l) => (
              <li key={l.id}>
                <label className="flex cursor-pointer items-center gap-2 py-[3px]">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={levels.includes(l.id)}
                    onChange={() => setLevels(toggle(levels, l.id))}
                  />
                  {l.name} <span className="text-ink2">{showNumber(l.height, 'length', project)}</span>
                </label>
              </li>
            ))}
          </ul>
        )}
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
