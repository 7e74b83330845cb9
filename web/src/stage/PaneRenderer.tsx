import { useFrame, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useRef } from 'react'
import { Color, OrthographicCamera, type Object3D, type WebGLRenderer } from 'three'
import { shorterTurn } from '@geotome/core/solid'
import { axesOf, type View } from './camera'
import { cutting, type Materials } from './materials'
import type { PaneCut } from './cuts'
import type { Sights } from './sights'
import { AT_REST, drawsInSoftware, HELD_STILL, Smoothing } from './smoothing'
import { isUpright, type PaneName } from './views'

/**
 * Where an object of the scene is drawn: in which pane ('space': in all but plans), upright only where a pane looks
 * from an azimuth, only where something is cut, only while nothing is buried, and, for lines that repeat, m between
 * two of them: closer than 4 px they are left out. What is empty is not drawn at all.
 */
export interface Marks {
  pane: PaneName | 'space' | null
  cutOnly: boolean
  aboveGround: boolean
  apart: number | null
  /** degrees: in upright panes that look from there, and in 3D */ from: number | null
  empty: boolean
}

/** Draws one scene into every pane, each with its own view and its own cut. */
export function PaneRenderer({
  panes,
  sights,
  materials,
  paper,
}: {
  panes: PaneCut[]
  sights: Sights
  materials: Materials
  paper: string
}) {
  const invalidate = useThree((s) => s.invalidate)
  const camera = useMemo(() => new OrthographicCamera(-1, 1, 1, -1, -20000, 20000), [])
  const background = useMemo(() => new Color(paper), [paper])
  useEffect(() => sights.onMoved(() => invalidate()), [invalidate, sights])
  useEffect(() => invalidate(), [invalidate, panes, materials, background])

  const smoothing = useMemo(() => new Smoothing(), [])
  const rest = useRef<{ timer: ReturnType<typeof setTimeout> | undefined; reached: boolean }>({
    timer: undefined,
    reached: false,
  })
  useEffect(() => {
    const { current } = rest
    return () => {
      clearTimeout(current.timer)
      smoothing.dispose()
    }
  }, [smoothing])
  const renderer = useThree((s) => s.gl)
  const isSlow = useMemo(() => drawsInSoftware(renderer), [renderer])

  useFrame(({ gl, scene }) => {
    // Where smooth pictures take long, whatever is new is drawn rough at once, and smooth when it has rested.
    const isSmooth = !isSlow || rest.current.reached
    clearTimeout(rest.current.timer)
    rest.current.reached = false
    if (!isSmooth)
      rest.current.timer = setTimeout(
        () => {
          rest.current.reached = true
          invalidate()
        },
        sights.isTried() ? HELD_STILL : AT_REST,
      )
    gl.setRenderTarget(null)
    gl.setScissorTest(true)
    gl.localClippingEnabled = true
    gl.setClearColor(background, 1)
    for (const pane of panes) {
      const part = sights.partOf(pane.name)
      if (!part || part[2] < 2) continue
      const view = sights.viewOf(pane.name)
      // Lines are as wide as the canvas's own part says, wherever they are drawn.
      gl.setRenderTarget(null)
      gl.setViewport(...part)
      gl.setScissor(...part)
      aim(camera, view, part[2], part[3])
      prepare(scene, pane, view, materials, gl)
      if (isSmooth) smoothing.aim(gl, part)
      gl.clear()
      gl.render(scene, camera)
    }
    if (isSmooth) smoothing.show(gl, ...sights.size())
  }, 1)
  return null
}

function aim(camera: OrthographicCamera, view: View, w: number, h: number): void {
  const { toward, up } = axesOf(view)
  const half = [w / 2 / view.scale, h / 2 / view.scale] as const
  Object.assign(camera, { left: -half[0], right: half[0], top: half[1], bottom: -half[1], near: -3000, far: 3000 })
  camera.position.set(view.target[0], view.target[1], view.target[2])
  camera.up.set(up[0], up[1], up[2])
  camera.lookAt(view.target[0] - toward[0], view.target[1] - toward[1], view.target[2] - toward[2])
  camera.updateProjectionMatrix()
  camera.updateMatrixWorld()
}

function prepare(
  scene: Object3D,
  pane: PaneCut,
  { scale, azimuth }: View,
  materials: Materials,
  gl: WebGLRenderer,
): void {
  const top = pane.cut ?? 1e6
  cutting.below.constant = top + 1e-3
  cutting.above.constant = -top - 1e-2
  cutting.overGround.constant = pane.buried || isUpright(pane.name) ? 1e6 : 1e-3
  const { toward } = axesOf({ target: [0, 0, 0], azimuth: pane.upright?.azimuth ?? 0, elevation: 0, scale: 1 })
  cutting.section.normal.set(-toward[0], -toward[1], 0)
  cutting.section.constant = pane.upright ? pane.upright.toward + 1e-3 : 1e6
  for (const material of [materials.ghost, materials.ghostFloors, materials.buried, materials.overGhost]) {
    material.dashSize = 5 / scale
    material.gapSize = 4 / scale
  }
  for (const material of [materials.cap, materials.low])
    if (material.uniforms.dpr) material.uniforms.dpr.value = gl.getPixelRatio()
  for (const child of scene.children) {
    const { pane: only, cutOnly, aboveGround, apart, from, empty } = child.userData as Marks
    child.visible =
      !empty &&
      (!only || only === pane.name || (only === 'space' && pane.name !== 'plan')) &&
      (from === null || from === undefined || pane.name === '3d' || (isUpright(pane.name) && sameWay(from, azimuth))) &&
      (!cutOnly || pane.cut !== null) &&
      (!aboveGround || !pane.buried) &&
      (!apart || apart * scale >= 4)
  }
}

/** Whether two directions are one, to half a degree. */
const sameWay = (a: number, b: number) => Math.abs(shorterTurn(a - b)) < 0.5
