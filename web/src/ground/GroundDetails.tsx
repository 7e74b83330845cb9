import { useProject } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { groundShown, picked, type GroundPart } from '../app/view-slice'
import { PictureDetails } from '../picture/PictureDetails'
import { PictureList } from '../picture/PictureList'
import { FactsFields } from './FactsFields'
import { SiteDetails } from './SiteDetails'
import { TerrainDetails } from './TerrainDetails'

const PARTS: { id: GroundPart; label: string }[] = [
  { id: 'project', label: 'Project' },
  { id: 'site', label: 'Site' },
  { id: 'terrain', label: 'Terrain' },
  { id: 'pictures', label: 'Pictures' },
]

/** The parts of the Ground desk, above whatever its details show. */
export function GroundTabs() {
  const dispatch = useAppDispatch()
  const part = useAppSelector((s) => s.view.ground)
  const now = useAppSelector((s) => s.view.picked)
  const elsewhere = now.kind === 'mass' || now.kind === 'level' || now.kind === 'part'
  const show = (id: GroundPart) => {
    dispatch(groundShown(id))
    if (now.kind !== 'nothing') dispatch(picked({ kind: 'nothing' }))
  }
  return (
    <div role="tablist" aria-label="Ground" className="tabs tabs-box mb-3 grid grid-cols-4">
      {PARTS.map((p) => (
        <button
          key={p.id}
          role="tab"
          aria-selected={part === p.id && !elsewhere}
          className={`tab px-1 text-[11.5px] ${part === p.id && !elsewhere ? 'tab-active' : ''}`}
          onClick={() => show(p.id)}
        >
          {p.label}
        </button>
      ))}
    </div>
  )
}

/** The Ground desk's details: project data and place, the site, terrain and neighbours, pictures with what was measured and traced on them. */
export function GroundDetails() {
  const { project } = useProject()
  const part = useAppSelector((s) => s.view.ground)
  const now = useAppSelector((s) => s.view.picked)
  const picture = now.kind === 'picture' ? project.pictures[now.ids[0] ?? ''] : undefined
  return part === 'project' ? (
    <FactsFields />
  ) : part === 'site' ? (
    <SiteDetails />
  ) : part === 'terrain' ? (
    <TerrainDetails />
  ) : picture ? (
    <PictureDetails key={picture.id} picture={picture} />
  ) : (
    <PictureList />
  )
}
