import { memo, useState } from 'react'
import { heightParts, setHeightPart, type HeightPart, type GivesWay } from '@geotome/core/levels'
import { showNumber, showQuantity, type Num } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { intoView, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { useSteady } from '../common/steady'
import { Consequence } from './Consequence'

/**
 * What a storey's height is made of, to scale, and its fields: each recomputes the others; what gives way is said once, and can be
 * changed.
 */
export function StoreyHeight({ level }: { level: string }) {
  const { project, scheme } = useProject()
  const parts = heightParts(project, scheme, level)
  return parts && <Parts level={level} parts={parts} />
}

function Parts({ level, parts: b }: { level: string; parts: NonNullable<ReturnType<typeof heightParts>> }) {
  const { project, scheme } = useProject()
  const [asked, setAsked] = useState<{ field: 'slab' | 'floor'; num: Num } | null>(null)
  const [ends, setEnds] = useState<{ field: 'storey' | 'clear'; num: Num } | null>(null)
  const gives: GivesWay = project.givesWay ?? 'clear'
  const z = (v: number) => showNumber(v, 'length', project)
  const label = `height of ${b.level.name}`
  const set = (
    field: HeightPart,
    num: Num,
    how: { gives: GivesWay; above: 'carried' | 'held'; keep?: 'lower' | 'upper' },
    remember = false,
  ) => {
    const edit = () => setHeightPart(project, scheme, level, field, num, how)
    if (!remember) return makeEdit(label, edit)
    return makeEdit(label, () => {
      const e = edit()
      return {
        edit: 'batch',
        edits: [...(e.edit === 'batch' ? e.edits : [e]), { edit: 'project.change', set: { givesWay: how.gives } }],
      }
    })
  }
  const slabOrFloor = (field: 'slab' | 'floor') => (num: Num) => {
    if (project.givesWay === null) {
      setAsked({ field, num })
      return true
    }
    return set(field, num, { gives, above: 'carried' })
  }
  const storeyOr = (field: 'storey' | 'clear') => (num: Num) => {
    setEnds({ field, num })
    return true
  }
  const setStorey = useSteady(storeyOr('storey'))
  const setFloor = useSteady(slabOrFloor('floor'))
  const setSlab = useSteady(slabOrFloor('slab'))
  const setClear = useSteady(storeyOr('clear'))
  const choices =
    ends &&
    [
      {
        text: `${b.level.name} stays, those above go along`,
        how: { gives, above: 'carried' as const, keep: 'lower' as const },
      },
      {
        text: `${b.above.name} stays, ${b.level.name} moves, with what hangs under it`,
        how: { gives, above: 'carried' as const, keep: 'upper' as const },
      },
      { text: `only ${b.above.name} moves`, how: { gives, above: 'held' as const, keep: 'lower' as const } },
    ]
      .flatMap((c) => {
        try {
          return [{ ...c, edit: setHeightPart(project, scheme, level, ends.field, ends.num, c.how) }]
        } catch {
          return []
        }
      })
      .filter((c, i, all) => all.findIndex((o) => JSON.stringify(o.edit) === JSON.stringify(c.edit)) === i)
  return (
    <Section title="Storey height">
      <div className="flex gap-2">
        <SectionPreview
          storey={b.storey}
          clear={b.clear}
          slab={b.slab}
          floor={b.floor}
          above={b.above.name}
          below={b.level.name}
        />
        <div className="min-w-0 flex-1">
          <NumField label="storey" compact value={b.storey} onAccept={setStorey} />
          <NumField label="floor" compact value={b.floor} onAccept={setFloor} />
          <NumField label="slab" compact value={b.slab} onAccept={setSlab} />
          <NumField label="clear" compact value={b.clear} onAccept={setClear} />
        </div>
      </div>
      {project.givesWay !== null && (
        <label className="flex items-center justify-between text-[11px] text-ink2">
          when slab or floor change
          <select
            aria-label="gives way"
            className="cursor-pointer bg-transparent text-right font-semibold text-ink"
            value={gives}
            onChange={(e) =>
              makeEdit('what gives way', { edit: 'project.change', set: { givesWay: e.target.value as GivesWay } })
            }
          >
            <option value="clear" className="bg-panel">
              the clear height gives way
            </option>
            <option value="storey" className="bg-panel">
              the storey gives way
            </option>
          </select>
        </label>
      )}
      {asked && (
        <div
          ref={intoView}
          role="group"
          aria-label="What gives way"
          className="mt-2 rounded-md border border-cut p-2.5"
        >
          <p className="mb-2 text-[12px] text-ink2">What gives way? It is asked once, and can be changed here.</p>
          {(['clear', 'storey'] as const).map((g) => {
            const after = after_(b, asked, g, (num) => (typeof num === 'number' ? num : b[asked.field]))
            return (
              <button
                key={g}
                className="btn btn-sm mb-1.5 h-auto w-full flex-col items-start gap-0 py-1.5"
                onClick={() => {
                  if (set(asked.field, asked.num, { gives: g, above: 'carried' }, true)) setAsked(null)
                }}
              >
                <span>{g === 'clear' ? 'The clear height' : 'The storey'}</span>
                <span className="text-[11px] font-normal text-ink2">
                  clear {z(after.clear)}, storey {z(after.storey)}
                </span>
              </button>
            )
          })}
          <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => setAsked(null)}>
            Leave it as it is
          </button>
        </div>
      )}
      {choices && ends && (
        <div ref={intoView} role="group" aria-label="What stays" className="mt-2 rounded-md border border-cut p-2.5">
          <p className="mb-2 text-[12px] text-ink2">
            {choices.length
              ? 'The storey changes. What stays where it is?'
              : 'That height leaves nothing of the storey.'}
          </p>
          {choices.map((c) => (
            <button
              key={c.text}
              className="btn btn-sm mb-1.5 h-auto w-full flex-col items-start gap-0 py-1.5 text-left"
              onClick={() => {
                if (set(ends.field, ends.num, c.how)) setEnds(null)
              }}
            >
              <span>{c.text}</span>
              <Consequence edit={c.edit} />
            </button>
          ))}
          <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => setEnds(null)}>
            Leave it as it is
          </button>
        </div>
      )}
    </Section>
  )
}

const after_ = (
  b: { storey: number; clear: number; slab: number; floor: number },
  asked: { field: 'slab' | 'floor'; num: Num },
  gives: GivesWay,
  valueOf: (num: Num) => number,
) => {
  const by = valueOf(asked.num) - b[asked.field]
  return gives === 'clear' ? { clear: b.clear - by, storey: b.storey } : { clear: b.clear, storey: b.storey + by }
}

/** A section through one storey, to scale: the floor below, the clear height, slab and floor above. */
const SectionPreview = memo(function SectionPreview({
  storey,
  clear,
  slab,
  floor,
  above,
  below,
}: {
  storey: number
  clear: number
  slab: number
  floor: number
  above: string
  below: string
}) {
  const { project } = useProject()
  const z = (v: number) => showQuantity(v, 'length', project)
  const [w, h] = [92, 148]
  const k = (h - 26) / Math.max(storey, 0.1)
  const top = 12
  const y = (fromTop: number) => top + fromTop * k
  return (
    <svg
      width={w}
      height={h}
      viewBox={`0 0 ${w} ${h}`}
      className="shrink-0 rounded-md border border-line bg-paper"
      role="img"
      aria-label={`section of the storey: clear ${z(clear)}, slab ${z(slab)}, floor ${z(floor)}`}
    >
      <defs>
        <pattern id="slab-hatch" width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1={0} x2={0} y1={0} y2={5} stroke="var(--ink2)" strokeWidth={0.9} />
        </pattern>
      </defs>
      {floor > 0 && (
        <rect
          x={20}
          y={y(0)}
          width={w - 20}
          height={Math.max(1, floor * k)}
          fill="var(--face-shade)"
          stroke="var(--ink3)"
          strokeWidth={0.6}
        />
      )}
      {slab > 0 && (
        <rect
          x={20}
          y={y(floor)}
          width={w - 20}
          height={Math.max(1, slab * k)}
          fill="url(#slab-hatch)"
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
      )}
      <line x1={14} x2={w} y1={y(0)} y2={y(0)} stroke="var(--ink)" strokeWidth={1.4} />
      <line x1={14} x2={w} y1={y(storey)} y2={y(storey)} stroke="var(--ink)" strokeWidth={1.4} />
      <g stroke="var(--ink3)" strokeWidth={0.8}>
        <line x1={52} x2={52} y1={y(floor + slab)} y2={y(storey)} />
        <line x1={49} x2={55} y1={y(floor + slab)} y2={y(floor + slab)} />
        <line x1={49} x2={55} y1={y(storey)} y2={y(storey)} />
        <line x1={9} x2={9} y1={y(0)} y2={y(storey)} />
        <line x1={6} x2={12} y1={y(0)} y2={y(0)} />
        <line x1={6} x2={12} y1={y(storey)} y2={y(storey)} />
      </g>
      <g fontSize={9} fill="var(--ink2)">
        <text x={56} y={y(floor + slab + clear / 2) + 3}>
          clear
        </text>
        <text x={w - 2} y={y(0) - 3} textAnchor="end">
          {above.slice(0, 14)}
        </text>
        <text x={w - 2} y={y(storey) + 10} textAnchor="end">
          {below.slice(0, 14)}
        </text>
      </g>
    </svg>
  )
})
