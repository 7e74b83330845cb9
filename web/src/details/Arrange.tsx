import { useState } from 'react'
import {
  ALIGN_BY,
  alignMasses,
  copyMasses,
  mirrorMasses,
  spreadMasses,
  type AlignBy,
  type Extent,
} from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import { showNumber } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { ChoiceField, Section } from '../common/fields'

const mint = () => crypto.randomUUID()

/** Copies and mirrors of what is picked; several are put in line, or spread. */
export function Arrange({ ids }: { ids: string[] }) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const [by, setBy] = useState<AlignBy>('west')
  const [level, setLevel] = useState('')
  const extents = ids.flatMap((id): Extent[] => {
    const mass = study?.masses.find((m) => m.id === id)
    return mass ? [{ id, ...mass.extent }] : []
  })
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
