import { useThree } from '@react-three/fiber'
import { useEffect, useMemo, useState } from 'react'
import {
  BufferAttribute,
  BufferGeometry,
  CustomBlending,
  DoubleSide,
  LinearFilter,
  MeshBasicMaterial,
  NormalBlending,
  ImageBitmapLoader,
  Texture,
} from 'three'
import type { Vec3 } from '@geotome/core/solid'
import type { LaidView } from '../worker/protocol'
import type { Shades } from './drawing/told'
import { marks } from './drawn'
import type { StoredView } from './geometry-store'

/** Pictures where they are laid: in plan in the plan and in 3D, upright ones in 3D and where one looks at them squarely. */
export function Pictures({ view, shown, shades }: { view: StoredView; shown: boolean; shades: Shades }) {
  if (!shown) return null
  return (
    <>
      {view.pictures.map((laid) => {
        const picture = shades[laid.picture]
        return picture ? (
          <Quad key={`${laid.picture}/${laid.stand}`} laid={laid} asset={picture.asset} opacity={picture.opacity} />
        ) : null
      })}
    </>
  )
}

function Quad({ laid, asset, opacity }: { laid: LaidView; asset: string; opacity: number }) {
  const texture = useAsset(asset)
  const invalidate = useThree((s) => s.invalidate)
  const geometry = useMemo(() => {
    const g = new BufferGeometry()
    const [a, b, c, d] = [0, 1, 2, 3].map((i) => laid.shown[i] ?? [0, 0, 0]) as [Vec3, Vec3, Vec3, Vec3]
    const [u0, v0, u1, v1] = laid.part
    g.setAttribute('position', new BufferAttribute(Float32Array.from([...a, ...d, ...c, ...a, ...c, ...b]), 3))
    g.setAttribute(
      'uv',
      new BufferAttribute(
        Float32Array.from([u0, 1 - v0, u0, 1 - v1, u1, 1 - v1, u0, 1 - v0, u1, 1 - v1, u1, 1 - v0]),
        2,
      ),
    )
    return g
  }, [laid])
  const { front } = laid
  // Behind the model is over the ground: what lies in plan is drawn on the terrain, what stands upright before all else.
  const order = front ? 9 : laid.upright === null ? 0.5 : -1
  // What is seen through is drawn after all else, whatever its order; what lies behind must come before, and still be faded.
  const material = useMemo(
    () =>
      new MeshBasicMaterial({
        map: texture,
        side: DoubleSide,
        transparent: front,
        blending: front ? NormalBlending : CustomBlending,
        depthWrite: false,
        depthTest: false,
      }),
    [texture, front],
  )
  material.opacity = opacity
  useEffect(() => () => geometry.dispose(), [geometry])
  useEffect(() => () => material.dispose(), [material])
  useEffect(() => invalidate(), [invalidate, texture, geometry, opacity, order])
  if (!texture) return null
  return (
    <mesh
      geometry={geometry}
      material={material}
      renderOrder={order}
      frustumCulled={false}
      userData={marks({ order: 0, from: laid.upright ?? undefined })}
    />
  )
}

/** Reads pictures without a page. */
const loader = new ImageBitmapLoader().setOptions({ imageOrientation: 'flipY', premultiplyAlpha: 'none' })
const textures = new Map<string, Promise<Texture>>()

/** A stored picture as a texture; null while it is on its way, or not to be had. */
function useAsset(hash: string): Texture | null {
  const [texture, setTexture] = useState<Texture | null>(null)
  useEffect(() => {
    let here = true
    let coming = textures.get(hash)
    if (!coming)
      textures.set(
        hash,
        (coming = loader.loadAsync(`/api/assets/${hash}`).then((bitmap) => {
          const t = new Texture(bitmap)
          // Turned over while it was read: what is drawn from a bitmap cannot be turned then.
          t.flipY = false
          t.generateMipmaps = true
          t.magFilter = LinearFilter
          t.anisotropy = 4
          t.needsUpdate = true
          return t
        })),
      )
    coming.then(
      (t) => {
        if (here) setTexture(t)
      },
      () => textures.delete(hash),
    )
    return () => {
      here = false
    }
  }, [hash])
  return texture
}
