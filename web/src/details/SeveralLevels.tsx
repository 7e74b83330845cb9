import { Trash2 } from 'lucide-react'
import { levelHeights } from '@geotome/core/levels'
import { areaSign, showNumber } from '@geotome/core/project'
import { useProject, useStudy, useUses } from '../app/hooks'
import { Figure, Section } from '../common/fields'
import { UseMark } from '../common/use-marks'
import { deleteLevels } from '../spine/delete-level'

/** Several floors picked in the spine: what they come to together. */
export function SeveralLevels({ ids }: { ids: string[] }) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const levels = levelHeights(project, scheme).filter((l) => ids.includes(l.id))
  const floors = (study?.floors ?? []).filter((f) => ids.includes(f.level))
  const sum = (of: (f: (typeof floors)[number]) => number) => floors.reduce((s, f) => s + of(f), 0)
  return (
    <>
      <Section title={`${ids.length} levels`}>
        <p className="text-[30px] leading-9 font-bold tracking-tight" data-figure="several">
          {showNumber(
            sum((f) => f.area),
            'area',
            project,
          )}{' '}
          <span className="text-[15px] font-medium text-ink2">{areaSign(project)}</span>
        </p>
        <p className="mb-3 text-ink2">gross, to the mass face, together</p>
        {uses
          .filter((u) => sum((f) => f.uses[u.id] ?? 0) > 0.005)
          .map((u) => (
            <Figure
              key={u.id}
              label={
                <span className="inline-flex items-center gap-2">
                  <UseMark use={u} order={uses.indexOf(u)} />
                  {u.name}
                </span>
              }
            >
              {showNumber(
                sum((f) => f.uses[u.id] ?? 0),
                'area',
                project,
              )}
            </Figure>
          ))}
        <Figure label="low, not counted">
          {showNumber(
            sum((f) => f.low),
            'area',
            project,
          )}
        </Figure>
      </Section>
      <Section title="Each">
        {[...levels].reverse().map((l) => (
          <Figure key={l.id} label={l.name}>
            {showNumber(floors.find((f) => f.level === l.id)?.area ?? 0, 'area', project)}
          </Figure>
        ))}
      </Section>
      <button className="btn btn-sm w-full text-error" onClick={() => void deleteLevels(ids)}>
        <Trash2 size={14} /> Delete {ids.length} levels
      </button>
    </>
  )
}
