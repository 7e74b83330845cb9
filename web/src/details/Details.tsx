import { showQuantity } from '@geotome/core/project'
import { useEffect, useRef } from 'react'
import { useNavigate } from 'react-router'
import { joinMasses, massOf } from '@geotome/core/form'
import { useProject, usePickedMasses, usePickedPart, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import { BuildingPreview } from '../fabric/BuildingPreview'
import { FabricList } from '../fabric/FabricList'
import { GroundDetails, GroundTabs } from '../ground/GroundDetails'
import { deleteMasses } from '../form/delete-masses'
import { LevelDetails } from './LevelDetails'
import { SeveralLevels } from './SeveralLevels'
import { MassDetails } from './MassDetails'
import { PartDetails } from './PartDetails'
import { ProjectDetails } from './ProjectDetails'

/** What is picked, in typed fields; what the desk is about when nothing is. */
export function Details({ desk }: { desk: string }) {
  const { scheme } = useProject()
  const now = useAppSelector((s) => s.view.picked)
  const proposing = useAppSelector((s) => s.view.proposing)
  const shown = useAppSelector((s) => s.view.level)
  const masses = usePickedMasses()
  const part = usePickedPart()
  const box = useRef<HTMLElement>(null)
  const about = `${desk} ${now.kind} ${now.kind === 'nothing' ? '' : now.ids.join()}`
  useEffect(() => {
    if (box.current) box.current.scrollTop = 0
  }, [about])
  const level =
    now.kind === 'level'
      ? scheme.levels[now.ids[0] ?? '']
      : desk === 'slice' && now.kind === 'nothing' && shown
        ? scheme.levels[shown]
        : undefined
  return (
    <aside
      ref={box}
      className="w-[264px] shrink-0 overflow-y-auto border-l border-line bg-panel px-4 py-3.5"
      aria-label="Details"
    >
      {desk === 'ground' && <GroundTabs />}
      {desk === 'fabric' && proposing ? (
        <BuildingPreview />
      ) : part ? (
        <PartDetails key={part.id} part={part} />
      ) : masses.length > 1 ? (
        <SeveralMasses ids={masses.map((m) => m.id)} />
      ) : masses[0] ? (
        <MassDetails key={masses[0].id} mass={masses[0]} />
      ) : now.kind === 'level' && now.ids.length > 1 ? (
        <SeveralLevels ids={now.ids} />
      ) : level ? (
        <LevelDetails key={level.id} level={level} />
      ) : desk === 'fabric' ? (
        <FabricList />
      ) : desk === 'ground' ? (
        <GroundDetails />
      ) : (
        <>
          <MassList />
          <ProjectDetails />
        </>
      )}
    </aside>
  )
}

/** Every mass by name, for the keyboard and for those who do not see the stage. */
function MassList() {
  const { project } = useProject()
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const study = useStudy()
  if (!study) return null
  if (study.masses.length === 0)
    return (
      <div className="mb-4 rounded-md border border-line bg-field p-3 text-ink2">
        <p className="mb-2.5">
          Nothing is drawn yet. Set the levels in the spine first, or begin with a form: click two corners in the plan,
          or type them.
        </p>
        <button
          className="act act-main w-full"
          onClick={() => {
            void navigate('../form', { relative: 'path' })
            setTimeout(() => dispatch(toolTaken('rectangle')))
          }}
        >
          Draw a rectangle
        </button>
      </div>
    )
  return (
    <section className="mb-4">
      <h3 className="eyebrow mb-1.5">Masses</h3>
      <ul>
        {study.masses.map((m) => (
          <li key={m.id}>
            <button
              className="flex w-full cursor-pointer justify-between rounded px-1.5 py-1 text-left hover:bg-field"
              onClick={() => dispatch(picked({ kind: 'mass', ids: [m.id] }))}
            >
              <span>{m.name}</span>
              <span className="text-ink2">{showQuantity(m.top - m.base, 'length', project)} high</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

function SeveralMasses({ ids }: { ids: string[] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const [a, b] = ids
  const join = () => {
    if (
      a &&
      b &&
      makeEdit(`join ${massOf(scheme, b).name} to ${massOf(scheme, a).name}`, () =>
        joinMasses(project, scheme, () => crypto.randomUUID(), a, b),
      )
    )
      dispatch(picked({ kind: 'mass', ids: [a] }))
  }
  return (
    <>
      <p className="eyebrow mb-2">{ids.length} masses</p>
      <ul className="mb-4">
        {ids.map((id) => (
          <li key={id} className="row">
            {scheme.masses[id]?.name}
          </li>
        ))}
      </ul>
      {ids.length === 2 && (
        <button className="act act-main mb-2 w-full" onClick={join}>
          Join into one
        </button>
      )}
      <button className="act w-full text-error" onClick={() => void deleteMasses(ids)}>
        Delete all {ids.length}
      </button>
    </>
  )
}
