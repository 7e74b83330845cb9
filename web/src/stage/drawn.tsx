import { useEffect, useMemo } from 'react'
import { InstancedMesh, Matrix4, type BufferGeometry, type Material as Paint } from 'three'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import type { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import { linesOf } from './batches'
import type { Instances } from './instances'
import type { Marks } from './PaneRenderer'

/** In what order a thing is drawn, and in which panes; see Marks. */
export type DrawnHow = { order: number } & { [K in keyof Marks]?: Marks[K] | undefined }
export const marks = ({ pane, cutOnly, aboveGround, apart, from, empty }: DrawnHow): Marks => ({
  pane: pane ?? null,
  cutOnly: cutOnly ?? false,
  aboveGround: aboveGround ?? false,
  apart: apart ?? null,
  from: from ?? null,
  empty: empty ?? false,
})

export function Faces({ geometry, material, ...m }: { geometry: BufferGeometry; material: Paint } & DrawnHow) {
  useEffect(() => () => geometry.dispose(), [geometry])
  return (
    <mesh geometry={geometry} material={material} renderOrder={m.order} userData={marks(m)} frustumCulled={false} />
  )
}

/** One form drawn at many places. */
export function Many({ faces, places, material, ...m }: Instances & { material: Paint } & DrawnHow) {
  const mesh = useMemo(() => {
    const many = new InstancedMesh(faces, material, places.length / 3)
    const at = new Matrix4()
    for (let i = 0; i < places.length; i += 3)
      many.setMatrixAt(i / 3, at.makeTranslation(places[i] ?? 0, places[i + 1] ?? 0, places[i + 2] ?? 0))
    many.frustumCulled = false
    return many
  }, [faces, places, material])
  useEffect(
    () => () => {
      mesh.dispose()
      mesh.geometry.dispose()
    },
    [mesh],
  )
  mesh.renderOrder = m.order
  mesh.userData = marks(m)
  return <primitive object={mesh} />
}

export function Lines({ segments, material, ...m }: { segments: Float32Array; material: LineMaterial } & DrawnHow) {
  const object = useMemo(() => new LineSegments2(), [])
  const geometry = useMemo(() => linesOf(segments, material.dashed), [segments, material.dashed])
  useEffect(() => () => geometry.dispose(), [geometry])
  object.geometry = geometry
  object.material = material
  object.userData = marks({ ...m, empty: segments.length === 0 })
  object.renderOrder = m.order
  object.frustumCulled = false
  return <primitive object={object} />
}
