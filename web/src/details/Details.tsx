import { useEffect, useRef } from 'react'
import { useProject, usePickedMasses, usePickedPart } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { BuildingPreview } from '../fabric/BuildingPreview'
import type { Desk } from '../desks/list'
import { deleteMasses } from '../verbs/delete-masses'
import { joinPicked } from '../verbs/moves'
import { Arrange } from './Arrange'
import { LevelDetails } from './LevelDetails'
import { SeveralLevels } from './SeveralLevels'
import { MassDetails } from './MassDetails'
import { RepeatDetails } from './RepeatDetails'
import { RuleDetails } from './rules/RuleDetails'
import { SpotDetails } from './SpotDetails'
import { PartDetails } from './PartDetails'
import { UsesSection } from './UsesSection'

/** What is picked, in typed fields; what the desk is about when nothing is. */
export function Details({ desk }: { desk: Desk }) {
  const { scheme } = useProject()
  const now = useAppSelector((s) => s.view.picked)
  const proposing = useAppSelector((s) => s.view.proposing)
  const shown = useAppSelector((s) => s.view.level)
  const masses = usePickedMasses()
  const part = usePickedPart()
  const rule = now.kind === 'rule' ? scheme.rules[now.ids[0] ?? ''] : undefined
  const repeat = now.kind === 'repeat' ? scheme.repeats[now.ids[0] ?? ''] : undefined
  const box = useRef<HTMLElement>(null)
  const scrolled = useRef(false)
  const about = `${desk.name} ${now.kind} ${now.kind === 'nothing' ? '' : now.ids.join()}`
  useEffect(() => {
    // Where nothing was scrolled it is not asked for: that would lay out the page at once.
    if (box.current && scrolled.current) box.current.scrollTop = 0
  }, [about])
  const level =
    now.kind === 'level'
      ? scheme.levels[now.ids[0] ?? '']
      : desk.showsLevel && now.kind === 'nothing' && shown
        ? scheme.levels[shown]
        : undefined
  return (
    <aside
      ref={box}
      onScroll={(e) => (scrolled.current = e.currentTarget.scrollTop > 0)}
      className="w-[264px] shrink-0 overflow-y-auto border-l border-line bg-panel px-4 py-3.5"
      aria-label="Details"
    >
      {desk.Above && <desk.Above />}
      {proposing ? (
        <BuildingPreview />
      ) : part ? (
        <PartDetails key={part.id} part={part} />
      ) : repeat ? (
        <RepeatDetails key={repeat.id} repeat={repeat} one={now.kind === 'repeat' ? now.one : null} />
      ) : rule ? (
        <RuleDetails key={rule.id} rule={rule} one={now.kind === 'rule' ? now.one : null} />
      ) : masses.length > 1 ? (
        <SeveralMasses ids={masses.map((m) => m.id)} />
      ) : masses[0] ? (
        <MassDetails key={masses[0].id} mass={masses[0]} />
      ) : now.kind === 'level' && now.ids.length > 1 ? (
        <SeveralLevels ids={now.ids} />
      ) : level ? (
        <>
          <LevelDetails key={level.id} level={level} />
          {now.kind === 'nothing' && (
            <div className="mt-5">
              <UsesSection />
            </div>
          )}
        </>
      ) : (
        <desk.Details />
      )}
    </aside>
  )
}

function SeveralMasses({ ids }: { ids: string[] }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  return (
    <>
      <SpotDetails />
      <p className="eyebrow mb-2">{ids.length} masses</p>
      <ul className="mb-4">
        {ids.map((id) => (
          <li key={id} className="row">
            {scheme.masses[id]?.name}
          </li>
        ))}
      </ul>
      <Arrange ids={ids} />
      {ids.length === 2 && (
        <button
          className="btn btn-sm btn-primary mb-2 w-full"
          onClick={() => joinPicked({ project, scheme, dispatch }, ids)}
        >
          Join into one
        </button>
      )}
      <button className="btn btn-sm w-full text-error" onClick={() => void deleteMasses(ids)}>
        Delete all {ids.length}
      </button>
    </>
  )
}
