import { useRef, useState, type PointerEvent as PE } from 'react'
import { changeRecipe, moveCorner, moveMasses } from '@geotome/core/form'
import { corners as cornersOf, polygonOf, raisedBy, withMove } from '@geotome/core/moves'
import type { Edit } from '@geotome/core/edits'
import { heightsOf, numbersOf, showQuantity, standingNumbers, tidy, type Mass } from '@geotome/core/project'
import { placePoint, type Vec2 } from '@geotome/core/solid'
import { useProjectNow, useStudy } from '../app/hooks'
import { selectProject } from '../app/project-slice'
import { makeEdit, tryEdit } from '../app/session'
import { onEscape } from '../common/on-escape'
import { store } from '../app/store'
import { atHeight, axesOf, toPane, type View } from '../stage/camera'
import { isHidden } from '../stage/picking'

/** Handles on the picked mass: ink dots at its corners, an arrow for its height, a ring for its turn; drags move in strides. */
export function Handles({ mass: picked, view, size }: { mass: Mass; view: View; size: Vec2 }) {
  const { project, scheme } = useProjectNow()
  const mass = scheme.masses[picked.id] ?? picked
  const study = useStudy()
  const shown = study?.masses.find((m) => m.id === mass.id)
  const [value, setValue] = useState<{ text: string; at: Vec2 } | null>(null)
  const grip = useRef<((e: PE) => { edit: () => Edit; text: string } | null) | null>(null)
  const last = useRef<{ edit: () => Edit } | null>(null)
  const letGo = useRef<(() => void) | null>(null)
  const outline = mass.recipe.find((m) => m.move === 'outline')
  const raise = mass.recipe.find((m) => m.move === 'raise')
  if (!shown || !study || outline?.move !== 'outline' || raise?.move !== 'raise') return null
  const numbers = numbersOf(project, scheme)
  const place = {
    x: numbers.length(mass.place.x) - study.origin[0],
    y: numbers.length(mass.place.y) - study.origin[1],
    z: 0,
    turn: numbers.angle(mass.place.turn),
  }
  // A circle has one dot, on its rim.
  const { shape } = outline
  const local: Vec2[] = shape.kind === 'circle' ? [[numbers.length(shape.radius), 0]] : cornersOf(shape, numbers)
  const ids = shape.kind === 'circle' ? ['round'] : polygonOf(shape, numbers).map((c) => c.id)
  const middle: Vec2 = placePoint(
    shape.kind === 'circle'
      ? [0, 0]
      : local.reduce<Vec2>((s, p) => [s[0] + p[0] / local.length, s[1] + p[1] / local.length], [0, 0]),
    place,
  )
  const heights = heightsOf(scheme, numbers)
  const height = raisedBy(raise, standingNumbers(mass, numbers, heights))
  const stride = project.stride
  const px = (p: Vec2, z: number) => toPane(view, size, [p[0], p[1], z])
  const inPane = (e: PE): Vec2 => {
    const box = (e.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect()
    return [e.clientX - (box?.left ?? 0), e.clientY - (box?.top ?? 0)]
  }
  const base = () => {
    const p = selectProject(store.getState())
    const s = p?.schemes[scheme.id]
    return p && s ? { project: p, scheme: s, mass: s.masses[mass.id] ?? mass } : { project, scheme, mass }
  }

  const drop = () => {
    grip.current = null
    last.current = null
    setValue(null)
    tryEdit(null)
  }
  const drag = (start: (e: PE) => NonNullable<typeof grip.current>) => ({
    onPointerDown: (e: PE) => {
      e.stopPropagation()
      e.preventDefault()
      ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
      grip.current = start(e)
      letGo.current = onEscape(drop)
    },
    onPointerMove: (e: PE) => {
      const made = grip.current?.(e)
      if (!made) return
      last.current = made
      setValue({ text: made.text, at: inPane(e) })
      tryEdit(made.edit)
    },
    onPointerUp: () => {
      letGo.current?.()
      grip.current = null
      setValue(null)
      const made = last.current
      last.current = null
      if (made) makeEdit(`change ${mass.name}`, made.edit)
    },
    onPointerCancel: () => {
      letGo.current?.()
      drop()
    },
  })

  const cornerDrag = (i: number) =>
    drag(() => (e) => {
      const world = atHeight(view, size, inPane(e), shown.base)
      const [x, y] = placePoint([world[0] - place.x, world[1] - place.y], { x: 0, y: 0, z: 0, turn: -place.turn })
      if (shape.kind === 'circle') {
        const radius = Math.max(stride.length, snap(Math.hypot(x, y), stride.length))
        return {
          text: showQuantity(radius, 'length', project),
          edit: () => {
            const b = base()
            return changeRecipe(b.scheme, b.mass, (recipe) =>
              withMove(recipe, outline, { shape: { ...shape, radius } }),
            )
          },
        }
      }
      const to: Vec2 = [snap(x, stride.length), snap(y, stride.length)]
      return {
        text: `${showQuantity(to[0], 'length', project)}, ${showQuantity(to[1], 'length', project)}`,
        edit: () => {
          const b = base()
          return moveCorner(b.project, b.scheme, mass.id, ids[i] ?? '', to)
        },
      }
    })
  const heightDrag = drag((e0) => {
    const y0 = inPane(e0)[1]
    const up = Math.max(0.2, axesOf(view).up[2])
    return (e) => {
      const to = Math.max(stride.length, snap(height + (y0 - inPane(e)[1]) / view.scale / up, stride.length))
      return {
        text: showQuantity(to, 'length', project),
        edit: () => {
          const b = base()
          return changeRecipe(b.scheme, b.mass, (recipe) =>
            withMove(
              recipe,
              raise,
              raise.upTo
                ? { upTo: { ...raise.upTo, above: tidy(numbers.length(raise.upTo.above) + to - height) } }
                : { height: tidy(to) },
            ),
          )
        },
      }
    }
  })
  const turnDrag = drag((e0) => {
    const a0 = angleAt(atHeight(view, size, inPane(e0), shown.base), middle)
    return (e) => {
      const by = snap(angleAt(atHeight(view, size, inPane(e), shown.base), middle) - a0, stride.angle)
      return by === 0
        ? null
        : {
            text: `${by.toFixed(0)}°`,
            edit: () => {
              const b = base()
              return moveMasses(b.project, b.scheme, [mass.id], [0, 0], by, [
                middle[0] + study.origin[0],
                middle[1] + study.origin[1],
              ])
            },
          }
    }
  })

  const flat = view.elevation === 90
  const top = px(middle, shown.top)
  const far = local
    .map((p) => placePoint(p, place))
    .reduce((a, b) => (px(b, shown.base)[0] > px(a, shown.base)[0] ? b : a))
  const [centre, end] = [px(middle, shown.base), px(far, shown.base)]
  const reach = Math.hypot(end[0] - centre[0], end[1] - centre[1]) || 1
  const ring: Vec2 = [
    Math.min(size[0] - 16, end[0] + ((end[0] - centre[0]) / reach) * 24),
    end[1] + ((end[1] - centre[1]) / reach) * 24,
  ]
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {local.map((p, i) => {
        const corner = placePoint(p, place)
        const [x, y] = px(corner, shown.base)
        const hidden = !flat && isHidden(view, [...corner, shown.base])
        return (
          <g key={ids[i]} className="pointer-events-auto cursor-move" data-handle={`corner-${i}`} {...cornerDrag(i)}>
            <circle cx={x} cy={y} r={11} fill="transparent" />
            {hidden ? (
              <circle
                cx={x}
                cy={y}
                r={3.2}
                fill="var(--paper)"
                fillOpacity={0.6}
                stroke="var(--ink3)"
                strokeWidth={1.2}
              />
            ) : (
              <circle cx={x} cy={y} r={4} fill="var(--ink)" stroke="var(--paper)" strokeWidth={1.5} />
            )}
          </g>
        )
      })}
      {!flat && (
        <g className="pointer-events-auto cursor-ns-resize" data-handle="height" {...heightDrag}>
          <rect x={top[0] - 12} y={top[1] - 40} width={24} height={42} fill="transparent" />
          <path d={`M${top[0]} ${top[1] - 4}v-24m-5 7l5 -8l5 8`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        </g>
      )}
      <g className="pointer-events-auto cursor-grab" data-handle="turn" {...turnDrag}>
        <circle cx={ring[0]} cy={ring[1]} r={12} fill="transparent" />
        <path
          d={`M${ring[0] - 7} ${ring[1] + 3}a7.5 7.5 0 0 1 13.6 -4.6`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.8}
        />
        <path d={`M${ring[0] + 8.6} ${ring[1] + 2.2}l-5.4 -2.4l5.2 -4.2z`} fill="var(--ink)" />
      </g>
      {value && (
        <text
          x={value.at[0] + 14}
          y={value.at[1] - 12}
          fontSize={12.5}
          fontWeight={650}
          fill="var(--ink)"
          style={{ paintOrder: 'stroke', stroke: 'var(--paper)', strokeWidth: 5 }}
        >
          {value.text}
        </text>
      )}
    </svg>
  )
}

const snap = (v: number, stride: number) => tidy(Math.round(v / stride) * stride)
const angleAt = (p: Vec2, m: Vec2) => (Math.atan2(p[1] - m[1], p[0] - m[0]) * 180) / Math.PI
