import { useFrame } from '@react-three/fiber'
import { useMemo, useRef } from 'react'
import type { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import { contoursSeen, linesOf } from './batches'
import { marks } from './drawn'

/** The lines along which round things turn out of sight in the 3D view, found anew when it turns. */
export function Contours({
  contours,
  material,
  direction,
}: {
  contours: Float32Array
  material: LineMaterial
  direction: () => readonly [number, number, number]
}) {
  const object = useMemo(() => new LineSegments2(), [])
  const last = useRef<{ contours: Float32Array; key: string } | null>(null)
  useFrame(() => {
    const toward = direction()
    const key = toward.map((c) => c.toFixed(4)).join()
    if (last.current?.contours === contours && last.current.key === key) return
    last.current = { contours, key }
    const seen = contoursSeen(contours, toward)
    object.geometry.dispose()
    object.geometry = linesOf(seen)
  })
  object.material = material
  object.userData = marks({ order: 2, pane: '3d' })
  object.renderOrder = 2
  object.frustumCulled = false
  return <primitive object={object} />
}
