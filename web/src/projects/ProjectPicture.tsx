import type { Sketch } from '@geotome/core/study'
import { useEffect, useState } from 'react'
import { api } from '../app/api'

const TONES: Record<Sketch['shapes'][number]['tone'], { fill: string; stroke: string }> = {
  ground: { fill: 'var(--field)', stroke: 'var(--ghost)' },
  up: { fill: 'var(--face-up)', stroke: 'var(--ink2)' },
  lit: { fill: 'var(--face-lit)', stroke: 'var(--ink2)' },
  shade: { fill: 'var(--face-shade)', stroke: 'var(--ink2)' },
}

/** The small picture of a project, as the server drew it of the edit `seq`. */
export function ProjectPicture({ id, seq }: { id: string; seq: number | null }) {
  const [sketch, setSketch] = useState<Sketch | null>(null)
  useEffect(() => {
    if (seq === null) return
    let here = true
    api.sketch(id, seq).then(
      (s) => here && setSketch(s),
      () => undefined,
    )
    return () => {
      here = false
    }
  }, [id, seq])
  return <SketchPicture sketch={sketch} />
}

/** A sketch of a scheme, as it is drawn. */
export function SketchPicture({ sketch }: { sketch: Sketch | null }) {
  return (
    <svg viewBox="0 0 200 132" className="block w-full bg-paper" aria-hidden data-picture={sketch?.shapes.length}>
      {sketch?.shapes.map((s, i) => (
        <path
          key={i}
          d={s.loops.map(pathOf).join('')}
          fillRule="evenodd"
          fill={TONES[s.tone].fill}
          stroke={s.soft ? TONES[s.tone].fill : TONES[s.tone].stroke}
          strokeWidth={0.5}
          strokeLinejoin="round"
        />
      ))}
      {sketch?.shapes.length === 0 && <path d="M60 92H140" stroke="var(--ghost)" strokeWidth={1.2} />}
    </svg>
  )
}

const pathOf = (flat: number[]) => `${flat.map((v, i) => `${i === 0 ? 'M' : i % 2 ? ' ' : 'L'}${v}`).join('')}Z`
