import { useState } from 'react'
import {
  ALIGN_BY,
  alignMasses,
  copyMasses,
  massFromRegion,
  mirrorMasses,
  spreadMasses,
  type AlignBy,
  type Extent,
} from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { showNumber, tidy } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProject, useStudy, useViewState } from '../app/hooks'
import { makeEdit } from '../app/session'
import { ChoiceField, Section } from '../common/fields'

const mint = () => crypto.randomUUID()

/** Copies and mirrors of what is picked; several are put in line, or spread. */
export function Arrange({ ids }: { ids: string[] }) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const [by, setBy] = useState<AlignBy>('west')
  const [level, setLevel] = useState('')
  // The worker's coordinates count from an origin of their own.
  const [ox, oy] = study?.origin ?? [0, 0]
  const extents = ids.flatMap((id): Extent[] => {
    const extent = study?.masses.find((m) => m.id === id)?.extent
    return extent ? [{ id, x0: extent.x0 + ox, y0: extent.y0 + oy, x1: extent.x1 + ox, y1: extent.y1 + oy }] : []
  })
  const { level: at } = useViewState('level')
  const only = ids.length === 1 ? scheme.masses[ids[0] ?? ''] : undefined
  const floor = study?.floors
    .find((f) => f.level === at)
    ?.plates.filter((p) => p.mass === only?.id)
    .flatMap((p) => p.region.map((l) => l.map(([x, y]): Vec2 => [x + ox, y + oy])))
  const taken = () => {
    const levels = levelHeights(project, scheme)
    const here = levels.find((l) => l.id === at)
    const above = levels.filter((l) => here && l.height > here.height + 1e-3)[0]
    if (!only || !here) return
    makeEdit(`new mass from a floor of ${only.name}`, () =>
      massFromRegion(scheme, mint, {
        name: `${only.name}, floor`,
        use: only.use,
        level: here.id,
        height: above ? tidy(above.height - here.height) : 3,
        region: floor ?? [],
      }),
    )
  }
  const what = ids.length === 1 ? (scheme.masses[ids[0] ?? '']?.name ?? 'it') : `${ids.length} masses`
  const copy = (levels?: string[]) =>
    makeEdit(`copy ${what}`, () =>
      copyMasses(scheme, mint, ids, levels ? { by: [0, 0], levels } : { by: [0, 0] }, project),
    )
  const middle = (k: 'x' | 'y') =>
    (Math.min(...extents.map((e) => e[`${k}0`])) + Math.max(...extents.map((e) => e[`${k}1`]))) / 2
  const mirror = (direction: number) =>
    makeEdit(`mirror ${what}`, () =>
      mirrorMasses(project, scheme, mint, ids, { at: [middle('x'), middle('y')], direction }),
    )
  const button = 'btn btn-sm h-7 grow px-2 text-[12px]'
  return (
    <Section title="Arrange">
      <div className="mb-1.5 flex flex-wrap gap-1">
        <button className={button} onClick={() => copy()}>
          Copy in place
        </button>
        {only && (
          <button
            className={button}
            disabled={!floor?.length}
            title={floor?.length ? undefined : 'It has no floor at the level that is looked at'}
            onClick={taken}
          >
            New mass from this floor
          </button>
        )}
        <button className={button} disabled={extents.length === 0} onClick={() => mirror(90)}>
          Mirror west to east
        </button>
        <button className={button} disabled={extents.length === 0} onClick={() => mirror(0)}>
          Mirror south to north
        </button>
      </div>
      <ChoiceField
        label="copy to"
        value={level}
        options={[
          { value: '', label: 'a level' },
          ...[...levelHeights(project, scheme)]
            .reverse()
            .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` })),
        ]}
        onChange={(id) => {
          if (id) copy([id])
          setLevel('')
        }}
      />
      {ids.length > 1 && (
        <>
          <ChoiceField
            label="in line by"
            value={by}
            options={ALIGN_BY.map((b) => ({ value: b, label: b }))}
            onChange={setBy}
          />
          <div className="flex flex-wrap gap-1">
            <button
              className={button}
              onClick={() => makeEdit(`put ${what} in line`, () => alignMasses(project, scheme, extents, by))}
            >
              Put in line
            </button>
            {(['west to east', 'south to north'] as const).map((along) => (
              <button
                key={along}
                className={button}
                disabled={ids.length < 3}
                title={ids.length < 3 ? 'Pick three or more' : undefined}
                onClick={() => makeEdit(`spread ${what}`, () => spreadMasses(project, scheme, extents, along))}
              >
                Spread {along}
              </button>
            ))}
          </div>
        </>
      )}
    </Section>
  )
}
