import type { PointerEvent as PE } from 'react'
import { Refusal, type Mass } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { useProjectNow, useStudy, useViewState } from '../app/hooks'
import { useHold } from '../tools/hold'
import { worldNow } from '../tools/at-work'
import type { Glyph, OnMass } from '../tools/handles/kind'
import { MASS_HANDLES, SPOT_HANDLES } from '../tools/handles/list'
import { CageMarks } from './CageMarks'
import type { View } from './camera'

const CURSORS: Record<Glyph, string> = {
  dot: 'cursor-move',
  'hidden-dot': 'cursor-move',
  up: 'cursor-ns-resize',
  round: 'cursor-grab',
  arrow: 'cursor-grab',
}

/** The handles of the picked mass, each as its glyph, and what is said of the one that is held. */
export function Handles({ mass: picked, view, size }: { mass: Mass; view: View; size: Vec2 }) {
  const { project, scheme } = useProjectNow()
  const mass = scheme.masses[picked.id] ?? picked
  const study = useStudy()
  const shown = study?.masses.find((m) => m.id === mass.id)
  const { held, hold, moves } = useHold<string>()
  const { spots, storeys } = useViewState('spots', 'storeys')
  const handles = spots.length ? SPOT_HANDLES : MASS_HANDLES
  if (!shown || !study) return null
  const on = (corner: Vec2, present?: Pick<OnMass, 'mass' | 'world'>): OnMass => ({
    mass,
    world: { project, scheme, level: '', edges: [], marks: [], id: () => '' },
    study,
    shown,
    view,
    size,
    spots,
    storeys,
    corner,
    ...present,
  })
  const begin = (handle: (typeof MASS_HANDLES)[number], i: number, key: string) => (e: PE<SVGGElement>) => {
    const world = worldNow()
    const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect()
    if (!world || !box) return
    e.stopPropagation()
    e.preventDefault()
    const present = { world, mass: world.scheme.masses[mass.id] ?? mass }
    hold(e, key, handle.begin(on([box.left, box.top], present), i, [e.clientX, e.clientY]))
  }
  const seen = on([0, 0])
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {shown.cage && <CageMarks mass={mass} shown={shown} view={view} size={size} />}
      {handles.flatMap((handle) =>
        spotsOf(handle, seen).map((spot, i) => {
          const key = `${handle.name} ${spot.key}`
          return (
            <g
              key={key}
              className={`pointer-events-auto ${CURSORS[spot.glyph]}`}
              data-handle={handle.name === spot.key ? handle.name : `${handle.name}-${i}`}
              onPointerDown={begin(handle, i, key)}
              {...moves}
            >
              <Drawn glyph={spot.glyph} at={spot.at} toward={spot.toward} />
              {held?.key === key && <Said at={held.at} say={held.say[0] ?? ''} />}
            </g>
          )
        }),
      )}
    </svg>
  )
}

/** The spots of a handle; none while a gesture makes of the mass what cannot be drawn. */
function spotsOf(handle: (typeof MASS_HANDLES)[number], on: OnMass) {
  try {
    return handle.spots(on)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return []
  }
}

/** What a held handle says, beside the pointer: `at` is in the window. */
function Said({ at, say }: { at: Vec2; say: string }) {
  return (
    <text
      ref={(text) => {
        const box = text?.ownerSVGElement?.getBoundingClientRect()
        if (!text || !box) return
        text.setAttribute('x', String(at[0] - box.left + 14))
        text.setAttribute('y', String(at[1] - box.top - 12))
      }}
      fontSize={12.5}
      fontWeight={650}
      fill="var(--ink)"
      style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 5 }}
    >
      {say}
    </text>
  )
}

function Drawn({
  glyph,
  at: [x, y],
  toward: [dx, dy] = [0, -30],
}: {
  glyph: Glyph
  at: Vec2
  toward?: Vec2 | undefined
}) {
  switch (glyph) {
    case 'dot':
      return (
        <>
          <circle cx={x} cy={y} r={11} fill="transparent" />
          <circle cx={x} cy={y} r={4} fill="var(--ink)" stroke="var(--paper)" strokeWidth={1.5} />
        </>
      )
    case 'hidden-dot':
      return (
        <>
          <circle cx={x} cy={y} r={11} fill="transparent" />
          <circle cx={x} cy={y} r={3.2} fill="var(--paper)" fillOpacity={0.6} stroke="var(--ink3)" strokeWidth={1.2} />
        </>
      )
    case 'up':
      return (
        <>
          <rect x={x - 12} y={y - 40} width={24} height={42} fill="transparent" />
          <path d={`M${x} ${y - 4}v-24m-5 7l5 -8l5 8`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        </>
      )
    case 'arrow': {
      const long = Math.hypot(dx, dy) || 1
      const [ux, uy] = [dx / long, dy / long]
      const head = (side: number) => `${x + dx - 8 * ux - side * 5 * uy} ${y + dy - 8 * uy + side * 5 * ux}`
      return (
        <>
          <line x1={x} y1={y} x2={x + dx} y2={y + dy} stroke="transparent" strokeWidth={22} strokeLinecap="round" />
          <path
            d={`M${x} ${y}L${x + dx} ${y + dy}M${head(1)}L${x + dx} ${y + dy}L${head(-1)}`}
            fill="none"
            stroke="var(--paper)"
            strokeWidth={4.5}
          />
          <path
            d={`M${x} ${y}L${x + dx} ${y + dy}M${head(1)}L${x + dx} ${y + dy}L${head(-1)}`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.8}
          />
          <circle cx={x} cy={y} r={2.6} fill="var(--ink)" />
        </>
      )
    }
    case 'round':
      return (
        <>
          <circle cx={x} cy={y} r={12} fill="transparent" />
          <path d={`M${x - 7} ${y + 3}a7.5 7.5 0 0 1 13.6 -4.6`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
          <path d={`M${x + 8.6} ${y + 2.2}l-5.4 -2.4l5.2 -4.2z`} fill="var(--ink)" />
        </>
      )
  }
}
