import { useMemo } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { showNumber } from '@geotome/core/project'
import { useUnit, useUses, useViewState } from '../app/hooks'
import { useAppSelector } from '../app/store'
import type { StoredFloor } from './geometry-store'
import { toPane, type View } from './camera'
import { middleOf, placeLabels } from './label-places'

interface Props {
  floor: StoredFloor
  z: number
  view: View
  size: Vec2
}

/** The area on every piece of the floor, of one size at every zoom; labels move apart, with a line to what they are about. */
export function PlateLabels({ floor, z, view, size }: Props) {
  const uses = useUses()
  const unit = useUnit()
  const { hover, picked, labelSays } = useViewState('hover', 'picked', 'labelSays')
  const isNamed = labelSays.includes('name')
  const names = useAppSelector((s) => (isNamed ? s.view.study?.masses : undefined))
  const asked = useMemo(() => {
    const ids = new Set(picked.kind === 'mass' ? picked.ids : [])
    if (hover) ids.add(hover)
    return (mass: string) => ids.has(mass)
  }, [hover, picked])
  const { plates } = floor
  const inOrder = useMemo(
    () => [...plates].sort((a, b) => Number(asked(b.mass)) - Number(asked(a.mass)) || b.area - a.area),
    [plates, asked],
  )
  const labels = useMemo(
    () =>
      placeLabels(
        inOrder.map((plate) => ({
          mass: plate.mass,
          asked: asked(plate.mass),
          say: () => {
            const use = uses.find((u) => u.id === plate.use)?.name ?? ''
            const name = names?.find((m) => m.id === plate.mass)?.name ?? ''
            return [name, labelSays.includes('use') ? use : '', showNumber(plate.area, 'area', unit)]
              .filter(Boolean)
              .join(' ')
          },
          anchor: toPane(view, size, [...middleOf(plate), z]),
        })),
        size,
      ),
    [unit, labelSays, names, inOrder, uses, view, size, z, asked],
  )
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden>
      <svg className="absolute inset-0 h-full w-full">
        {labels
          .filter((l) => l.moved)
          .map((l, i) => (
            <g key={i}>
              <line x1={l.anchor[0]} y1={l.anchor[1]} x2={l.at[0]} y2={l.at[1]} stroke="var(--cut)" strokeWidth={1} />
              <circle cx={l.anchor[0]} cy={l.anchor[1]} r={2.2} fill="var(--cut)" />
            </g>
          ))}
      </svg>
      {labels.map((l, i) => (
        <div
          key={`${l.mass}-${i}`}
          data-label={l.mass}
          className="absolute left-0 top-0 whitespace-nowrap rounded border border-cut bg-panel px-2 py-px text-[11.5px] font-semibold"
          style={{ transform: `translate(${l.at[0]}px, ${l.at[1]}px) translate(-50%, -50%)` }}
        >
          {l.text}
        </div>
      ))}
    </div>
  )
}
