import { useEffect, useRef } from 'react'
import { useStudy } from '../app/hooks'
import { useAppSelector } from '../app/store'
import type { StoredView } from '../stage/geometry-store'

/** While a change is tried, before it is made: which parts follow it, and which drift or come loose. */
export function Dependents() {
  const study = useStudy()
  const trying = useAppSelector((s) => s.project.preview !== null)
  const before = useRef<StoredView | null>(null)
  useEffect(() => {
    if (!trying && study) before.current = study
  }, [trying, study])
  const was = before.current
  if (!trying || !study || !was || was.scheme !== study.scheme || study === was) return null
  const old = new Map(was.parts.map((p) => [p.id, p]))
  const off = (p: StoredView['parts'][number]) => p.bond.status !== 'bonded' && !p.bond.left
  const fresh = study.parts.filter((p) => off(p) && old.get(p.id)?.bond.status === 'bonded')
  const drifts = fresh.filter((p) => p.bond.status === 'drifted')
  const loose = fresh.filter((p) => p.bond.status === 'loose')
  const mended = study.parts.filter(
    (p) => p.bond.status === 'bonded' && old.get(p.id)?.bond.status !== 'bonded' && old.has(p.id),
  )
  const follows = study.parts.filter(
    (p) => p.bond.status === 'bonded' && old.get(p.id)?.bond.status === 'bonded' && old.get(p.id)?.mesh !== p.mesh,
  )
  const stood = new Map(was.masses.map((m) => [m.id, m]))
  const masses = study.masses.filter((m) => {
    const o = stood.get(m.id)
    return (
      o &&
      o !== m &&
      (o.base !== m.base ||
        o.top !== m.top ||
        o.body !== m.body ||
        o.at.x !== m.at.x ||
        o.at.y !== m.at.y ||
        o.at.turn !== m.at.turn)
    )
  })
  const say = [
    masses.length > 1 ? `${masses.length} masses change` : null,
    follows.length ? `${follows.length} ${follows.length === 1 ? 'part follows' : 'parts follow'}` : null,
    drifts.length ? `${drifts.length} would drift` : null,
    loose.length ? `${loose.length} would come loose` : null,
    mended.length ? `${mended.length} in line again` : null,
  ].filter((x) => x !== null)
  if (say.length === 0) return null
  return (
    <p
      role="status"
      data-dependents
      className="pointer-events-none absolute top-12 left-3 z-10 rounded-md border border-line bg-panel px-3 py-1 text-[12.5px] shadow-sm"
      title={[...drifts, ...loose].map((p) => p.name).join('\n')}
    >
      {say.map((s, i) => (
        <span key={s} className={s.includes('would') ? 'font-semibold text-warn' : ''}>
          {i ? ', ' : ''}
          {s}
        </span>
      ))}
    </p>
  )
}
