import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { heightParts, levelHeights, moveLevel, retieLevel, setHeightPart } from '@geotome/core/levels'
import { areaSign, showNumber, type Level } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import { NumField } from '../common/NumField'
import { AddLevels } from './AddLevels'
import { deleteLevel } from './delete-level'

/**
 * All levels in a table, the topmost first; everything of a level is typed here. Levels that stand on a changed one are carried, or held,
 * as chosen above.
 */
export function LevelTable() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const shown = useAppSelector((s) => s.view.level)
  const [adding, setAdding] = useState(false)
  const [above, setAbove] = useState<'carried' | 'held'>('carried')
  const levels = levelHeights(project, scheme)
  const areas = new Map((study?.floors ?? []).map((f) => [f.level, f.area]))
  const wings = study?.ledger.wings ?? []
  const change = (l: Level, label: string, set: Partial<Level>) =>
    makeEdit(`${label} of ${l.name}`, { edit: 'level.change', scheme: scheme.id, id: l.id, set })
  const cell = 'px-1 py-0.5 align-middle'
  return (
    <div className="overflow-auto px-3 pb-3">
      <div className="mb-2 flex items-center gap-4 text-[12px] text-ink2">
        <label className="flex items-center gap-1.5">
          levels that stand on a changed one
          <select
            aria-label="levels above"
            className="select select-sm cursor-pointer rounded font-semibold"
            value={above}
            onChange={(e) => setAbove(e.target.value as 'held')}
          >
            <option value="carried">are carried</option>
            <option value="held">are held</option>
          </select>
        </label>
        <span className="flex-1" />
        <button className="btn btn-sm h-7 text-[12px]" onClick={() => setAdding(true)}>
          <Plus size={13} /> Add level
        </button>
      </div>
      <table className="table table-xs w-full text-[12px]" aria-label="All levels">
        <thead className="text-left text-ink2">
          <tr>
            {[
              'name',
              'kind',
              'height is',
              'height',
              'storey',
              'clear',
              'slab',
              'floor',
              areaSign(project),
              ...wings.map((w) => w.name),
              '',
            ].map((h, i) => (
              <th key={`${h}${i}`} className={`${cell} font-medium`}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...levels].reverse().map((l) => {
            const level = scheme.levels[l.id]
            if (!level) return null
            const b = heightParts(project, scheme, l.id)
            const move = (num: Level['floorBuildUp'], value: number) =>
              makeEdit(`move ${l.name}`, () =>
                level.tie.kind === 'fixed'
                  ? retieLevel(project, scheme, l.id, { kind: 'fixed', height: num }, above)
                  : typeof num === 'number'
                    ? moveLevel(project, scheme, l.id, value, above)
                    : retieLevel(project, scheme, l.id, { kind: 'fixed', height: num }, above),
              )
            return (
              <tr
                key={l.id}
                data-level-row={l.name}
                className={`border-t border-line ${l.id === shown ? 'bg-field' : ''} ${l.kind === 'mark' ? 'italic' : ''}`}
                onClick={() => {
                  dispatch(levelShown(l.id))
                  dispatch(picked({ kind: 'level', ids: [l.id] }))
                }}
              >
                <td className={cell}>
                  <input
                    aria-label={`name of ${l.name}`}
                    key={l.name}
                    defaultValue={l.name}
                    maxLength={120}
                    className="w-28 rounded bg-transparent px-1 py-1 font-medium outline-none focus:bg-paper"
                    onBlur={(e) => {
                      const name = e.target.value.trim()
                      if (name && name !== l.name) change(level, 'name', { name })
                    }}
                    onKeyDown={(e) => {
                      e.stopPropagation()
                      if (e.key === 'Enter') e.currentTarget.blur()
                    }}
                  />
                </td>
                <td className={cell}>
                  <select
                    aria-label={`kind of ${l.name}`}
                    className="cursor-pointer bg-transparent"
                    value={l.kind}
                    onChange={(e) => change(level, 'kind', { kind: e.target.value as 'mark' })}
                  >
                    <option value="storey" className="bg-panel">
                      storey
                    </option>
                    <option value="mark" className="bg-panel">
                      mark
                    </option>
                  </select>
                </td>
                <td className={`${cell} text-ink2`}>
                  {level.tie.kind === 'fixed' ? 'fixed' : `on ${scheme.levels[level.tie.on]?.name ?? ''}`}
                </td>
                <td className={cell}>
                  <Cell
                    label={`height of ${l.name}`}
                    value={level.tie.kind === 'fixed' ? level.tie.height : l.height}
                    onAccept={move}
                  />
                </td>
                <td className={cell}>
                  {b && (
                    <Cell
                      label={`storey of ${l.name}`}
                      value={b.storey}
                      onAccept={(num) =>
                        makeEdit(`height of ${l.name}`, () =>
                          setHeightPart(project, scheme, l.id, 'storey', num, {
                            gives: project.givesWay ?? 'clear',
                            above,
                          }),
                        )
                      }
                    />
                  )}
                </td>
                <td className={cell}>
                  {b && (
                    <Cell
                      label={`clear of ${l.name}`}
                      value={b.clear}
                      onAccept={(num) =>
                        makeEdit(`height of ${l.name}`, () =>
                          setHeightPart(project, scheme, l.id, 'clear', num, {
                            gives: project.givesWay ?? 'clear',
                            above,
                          }),
                        )
                      }
                    />
                  )}
                </td>
                <td className={cell}>
                  <Cell
                    label={`slab of ${l.name}`}
                    value={level.slab}
                    onAccept={(slab) => change(level, 'slab', { slab })}
                  />
                </td>
                <td className={cell}>
                  <Cell
                    label={`floor of ${l.name}`}
                    value={level.floorBuildUp}
                    onAccept={(floorBuildUp) => change(level, 'floor build-up', { floorBuildUp })}
                  />
                </td>
                <td className={`${cell} text-right font-semibold`}>
                  {areas.has(l.id) ? showNumber(areas.get(l.id) ?? 0, 'area', project) : ''}
                </td>
                {wings.map((w) => (
                  <td key={w.id ?? 'none'} className={`${cell} text-right`}>
                    {showNumber(w.areas[l.id] ?? 0, 'area', project)}
                  </td>
                ))}
                <td className={cell}>
                  <button
                    className="cursor-pointer p-1 text-ink2 hover:text-error"
                    aria-label={`Delete ${l.name}`}
                    onClick={(e) => {
                      e.stopPropagation()
                      void deleteLevel(l.id)
                    }}
                  >
                    <Trash2 size={12} />
                  </button>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {adding && <AddLevels how="one" above={shown} onClose={() => setAdding(false)} />}
    </div>
  )
}

const Cell = ({
  label,
  value,
  onAccept,
}: {
  label: string
  value: Level['slab']
  onAccept: (num: Level['slab'], value: number) => boolean
}) => (
  <div className="w-20 [&>div]:mb-0" onClick={(e) => e.stopPropagation()} onKeyDown={(e) => e.stopPropagation()}>
    <NumField label="" name={label} compact value={value} onAccept={onAccept} />
  </div>
)
