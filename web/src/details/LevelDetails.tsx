import { Trash2 } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import type { Edit } from '@geotome/core/edits'
import { carriedBy, levelHeights, moveLevel, retieLevel, tieAs, type Above, levelExamples } from '@geotome/core/levels'
import { areaSign, showNumber, showQuantity, type Level, type Num } from '@geotome/core/project'
import { useOf, useProject, useStudy, useUses } from '../app/hooks'
import { makeEdit, tryEdit } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelMoved } from '../app/view-slice'
import { ChoiceField, Figure, intoView, NameField, Section } from '../common/fields'
import { useSteady } from '../common/steady'
import { UseMark } from '../common/use-marks'
import { NumField } from '../common/NumField'
import { deleteLevel } from '../spine/delete-level'
import { StoreyHeight } from '../spine/StoreyHeight'
import { Consequence } from '../spine/Consequence'
import { PlateFigure } from './PlateFigure'
import { Plates } from './Plates'

const TRASH = <Trash2 size={14} />
const KINDS: { value: Level['kind']; label: string }[] = [
  { value: 'storey', label: 'storey' },
  { value: 'mark', label: 'mark' },
]
const TIES: { value: Level['tie']['kind']; label: string }[] = [
  { value: 'stacked', label: 'stacked on a level' },
  { value: 'fixed', label: 'fixed, from the datum' },
]

/** A picked level: its floor's figures, its height and what it stands on; a change that could go two ways shows both first. */
export function LevelDetails({ level }: { level: Level }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const uses = useUses()
  const [choice, setChoice] = useState<{ label: string; carried: Edit; held: Edit } | null>(null)
  const levels = levelHeights(project, scheme)
  const own = levels.find((l) => l.id === level.id)
  const floor = study?.floors.find((f) => f.level === level.id)
  const on = level.tie.kind === 'stacked' ? scheme.levels[level.tie.on] : undefined
  const above = levels.find((l) => l.kind === 'storey' && l.height > (own?.height ?? 0) + 1e-6)
  const set = (label: string, fields: Partial<Level>) =>
    makeEdit(`${label} of ${level.name}`, { edit: 'level.change', scheme: scheme.id, id: level.id, set: fields })

  /** Made at once where there is one way; otherwise both results are shown first. */
  const decide = (label: string, make: (how: Above) => Edit): boolean => {
    const [carried, held] = [make('carried'), make('held')]
    if (JSON.stringify(carried) === JSON.stringify(held)) return makeEdit(label, carried)
    setChoice({ label, carried, held })
    return true
  }
  /** A formula makes a level fixed, at what it gives; a plain height keeps its tie. */
  const toHeight = (num: Num, value: number, how: Above): Edit =>
    level.tie.kind === 'fixed' || typeof num !== 'number'
      ? retieLevel(project, scheme, level.id, { kind: 'fixed', height: num }, how)
      : moveLevel(project, scheme, level.id, value, how)
  const moving = useAppSelector((s) => s.view.moving)
  useEffect(() => {
    if (moving?.level !== level.id) return
    dispatch(levelMoved(null))
    decide(`move ${level.name}`, (how) => toHeight(moving.num, moving.height, how))
  })
  const carried = carriedBy(scheme, level.id)
  const several = (n: number, one: string, many: string) => (n ? [`${n} ${n === 1 ? one : many}`] : [])
  const along = [
    ...several(carried.levels.length, 'level', 'levels'),
    ...several(carried.masses, 'mass', 'masses'),
    ...several(carried.parts, 'part', 'parts'),
  ]
  // These stay the same objects, so that fields which show the same are not drawn again while something is dragged.
  const rename = useSteady((name: string) => set('name', { name }))
  const setKind = useSteady((kind: Level['kind']) => {
    set('kind', { kind })
  })
  const setHeight = useSteady((num: Num, value: number) =>
    decide(`move ${level.name}`, (how) => toHeight(num, value, how)),
  )
  const setAbove = useSteady((num: Num) =>
    decide(`move ${level.name}`, (how) =>
      retieLevel(
        project,
        scheme,
        level.id,
        { kind: 'stacked', on: level.tie.kind === 'stacked' ? level.tie.on : '', above: num },
        how,
      ),
    ),
  )
  const setTie = useSteady((kind: Level['tie']['kind']) => {
    makeEdit(`tie of ${level.name}`, () =>
      retieLevel(project, scheme, level.id, tieAs(project, scheme, level.id, kind), 'held'),
    )
  })
  const standOn = useSteady((id: string) => {
    const above = own ? Math.round((own.height - (levels.find((l) => l.id === id)?.height ?? 0)) * 1e9) / 1e9 : 0
    set('tie', { tie: { kind: 'stacked', on: id, above } })
  })
  const ids = useOf((at) => levelHeights(at.project, at.scheme).map((l) => l.id))
  const names = useOf((at) => ids.map((id) => at.scheme.levels[id]?.name ?? ''))
  const others = useMemo(
    () => ids.map((value, i) => ({ value, label: names[i] ?? '' })).filter((o) => o.value !== level.id),
    [ids, names, level.id],
  )
  const setSlab = useSteady((slab: Num) => set('slab', { slab }))
  const setFloor = useSteady((floorBuildUp: Num) => set('floor build-up', { floorBuildUp }))
  return (
    <>
      {floor ? (
        <Section
          title={`Plate · ${level.name}, ${own && own.height > 0 ? '+' : ''}${own ? showNumber(own.height, 'length', project) : ''}`}
        >
          <p className="text-[30px] leading-9 font-bold tracking-tight" data-figure="plate">
            {showNumber(floor.area, 'area', project)}{' '}
            <span className="text-[15px] font-medium text-ink2">{areaSign(project)}</span>
          </p>
          <p className="mb-3 text-ink2">gross, to the mass face</p>
          <PlateFigure plates={floor.plates} lows={floor.lows} />
          {uses
            .filter((u) => (floor.uses[u.id] ?? 0) > 0.005)
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
                {showNumber(floor.uses[u.id] ?? 0, 'area', project)}
              </Figure>
            ))}
          <Figure label="low, not counted">{showNumber(floor.low, 'area', project)}</Figure>
          {floor.net !== null && (
            <Figure label="net, inside outer walls">
              <span data-figure="level-net">{showNumber(floor.net, 'area', project)}</span>
            </Figure>
          )}
          <Figure label="perimeter">{showQuantity(floor.perimeter, 'length', project)}</Figure>
        </Section>
      ) : (
        <p className="eyebrow mb-2">Mark</p>
      )}
      {floor && <Plates level={level.id} />}
      <Section title="Level">
        <NameField label="name" value={level.name} onAccept={rename} />
        <ChoiceField label="kind" value={level.kind} options={KINDS} onChange={setKind} />
        <NumField
          label="height"
          value={level.tie.kind === 'fixed' ? level.tie.height : (own?.height ?? 0)}
          onAccept={setHeight}
          hint={
            level.tie.kind === 'stacked'
              ? `A formula that names another level, Ground + ${levelExamples(project.unit).above}, follows that level.`
              : undefined
          }
        />
        {level.tie.kind === 'stacked' && (
          <NumField label={`above ${on?.name ?? ''} by`} value={level.tie.above} onAccept={setAbove} />
        )}
        <ChoiceField label="height is" value={level.tie.kind} options={TIES} onChange={setTie} />
        {level.tie.kind === 'stacked' && (
          <ChoiceField label="stands on" value={level.tie.on} options={others} onChange={standOn} />
        )}
        {level.kind === 'storey' && !above && (
          <div className="grid grid-cols-2 gap-1.5">
            <NumField label="slab" compact value={level.slab} onAccept={setSlab} />
            <NumField label="floor" compact value={level.floorBuildUp} onAccept={setFloor} />
          </div>
        )}
        {along.length > 0 && (
          <p className="mt-1.5 px-1 text-[12px] text-ink2">
            Moving it carries{' '}
            {along.length > 1 ? `${along.slice(0, -1).join(', ')} and ${along.at(-1) ?? ''}` : along[0]}.
          </p>
        )}
        {choice && (
          <div ref={intoView} role="group" aria-label="Two ways" className="mt-2 rounded-md border border-cut p-2.5">
            <p className="mb-2 text-[12px] text-ink2">The levels that stand on it can go with it, or stay:</p>
            {(['carried', 'held'] as const).map((how) => (
              <button
                key={how}
                className="btn btn-sm mb-1.5 h-auto w-full flex-col items-start gap-0 py-1.5"
                onPointerEnter={() => tryEdit(() => choice[how])}
                onPointerLeave={() => tryEdit(null)}
                onFocus={() => tryEdit(() => choice[how])}
                onBlur={() => tryEdit(null)}
                onClick={() => {
                  makeEdit(choice.label, choice[how])
                  setChoice(null)
                }}
              >
                <span>{how === 'carried' ? 'Carry those above' : 'Hold those above'}</span>
                <Consequence edit={choice[how]} />
              </button>
            ))}
            <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => setChoice(null)}>
              Leave it as it is
            </button>
          </div>
        )}
      </Section>
      <StoreyHeight level={level.id} />
      <button className="btn btn-sm w-full text-error" onClick={() => void deleteLevel(level.id)}>
        {TRASH} Delete level
      </button>
    </>
  )
}
