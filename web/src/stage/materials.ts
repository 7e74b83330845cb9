import {
  BackSide,
  Color,
  ColorManagement,
  DoubleSide,
  LineBasicMaterial,
  type Material,
  MeshBasicMaterial,
  Plane,
  ShaderMaterial,
  Vector3,
} from 'three'
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import type { Palette } from './theme'

// The tokens are screen colours and are drawn as they are.
ColorManagement.enabled = false

/** The planes that the blade and the ground cut by; set for each pane just before it is drawn. */
export const cutting = {
  below: new Plane(new Vector3(0, 0, -1), 1e6),
  above: new Plane(new Vector3(0, 0, 1), -1e6),
  overGround: new Plane(new Vector3(0, 0, 1), 0),
  underGround: new Plane(new Vector3(0, 0, -1), -0.01),
  /** what lies nearer to the viewer than an upright cut */
  section: new Plane(new Vector3(0, 0, 0), 1e6),
}

export type Materials = ReturnType<typeof makeMaterials>

/** All materials of the stage: unlit, since the shading is in the colours. */
export function makeMaterials(p: Palette) {
  const line = (color: string, linewidth: number, clippingPlanes: Plane[], dashed = false) => {
    const material = new LineMaterial({ color: new Color(color).getHex(), linewidth, dashed })
    material.clippingPlanes = [...clippingPlanes, cutting.section]
    return material
  }
  const solid = [cutting.below, cutting.overGround, cutting.section]
  const flat = (color: string, opacity = 1) =>
    new MeshBasicMaterial({ color, side: DoubleSide, transparent: opacity < 1, opacity, depthWrite: opacity === 1 })
  const faces = new MeshBasicMaterial({
    vertexColors: true,
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
    clippingPlanes: solid,
  })
  const offered = new MeshBasicMaterial({
    vertexColors: true,
    side: DoubleSide,
    polygonOffset: true,
    polygonOffsetFactor: 0.5,
    polygonOffsetUnits: 0.5,
    clippingPlanes: [cutting.below, cutting.section],
  })
  const seeThrough = new MeshBasicMaterial({
    vertexColors: true,
    side: DoubleSide,
    transparent: true,
    opacity: 0.3,
    depthWrite: false,
    clippingPlanes: solid,
  })
  return {
    faces,
    offered,
    seeThrough,
    around: line(p.ghost, 0.9, solid),
    // What is seen of a closed body from within is seen through a cut: painted in one tone, over the lines inside, it is the cut's face.
    aroundCut: new MeshBasicMaterial({
      color: p.lit,
      side: BackSide,
      polygonOffset: true,
      polygonOffsetFactor: -2,
      polygonOffsetUnits: -40,
      clippingPlanes: solid,
    }),
    ink: line(p.ink, 1.3, solid),
    soft: behind(line(p.ghost, 1, solid)),
    picked: forward(line(p.ink, 3, solid)),
    hovered: forward(line(p.ink2, 2.2, solid)),
    planPicked: onTop(line(p.ink, 3, solid)),
    planHovered: onTop(line(p.ink2, 2.2, solid)),
    offeredLines: line(p.cut, 0.9, [cutting.below]),
    floors: line(p.ink3, 0.6, solid),
    ghost: line(p.ghost, 1, [cutting.above], true),
    ghostFloors: line(p.ghost, 0.6, [cutting.above], true),
    buried: line(p.ghost, 1, [cutting.underGround, cutting.below], true),
    cutLine: line(p.cut, 2, []),
    planLine: onTop(line(p.ink, 2.2, [])),
    planCutLine: onTop(line(p.cut, 2, [])),
    untakenLine: line(p.ink, 1.3, []),
    litLine: onTop(line(p.ink, 2.2, [])),
    siteLine: onTop(line(p.ink, 2, [])),
    siteLineInSpace: line(p.ink, 1.8, []),
    setback: line(p.ink2, 1, [], true),
    envelope: line(p.warn, 1, [], true),
    contour: new LineBasicMaterial({ color: p.ghost, clippingPlanes: [cutting.section] }),
    behind: onTop(line(p.ghost, 1.4, [])),
    levelPlane: line(p.ink3, 0.8, [], true),
    ground: new MeshBasicMaterial({
      vertexColors: true,
      side: DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 2,
      polygonOffsetUnits: 4,
      clippingPlanes: [cutting.section],
    }),
    over: new MeshBasicMaterial({
      color: p.warn,
      side: DoubleSide,
      transparent: true,
      opacity: 0.72,
      depthWrite: false,
      polygonOffset: true,
      polygonOffsetFactor: -1,
      polygonOffsetUnits: -2,
      clippingPlanes: [cutting.below, cutting.section],
    }),
    overLine: forward(line(p.warn, 1.6, [cutting.below])),
    overGhost: line(p.warn, 1, [cutting.above], true),
    sectionLine: onTop(line(p.cut, 2, [])),
    spot: new MeshBasicMaterial({
      color: p.cutsoft,
      side: DoubleSide,
      transparent: true,
      opacity: 0.6,
      depthWrite: false,
      polygonOffset: true,
      polygonOffsetFactor: -1,
      polygonOffsetUnits: -2,
      clippingPlanes: solid,
    }),
    spotLine: forward(line(p.cut, 2.4, solid)),
    shadow: flat(p.shadow),
    poche: onTop(flat(p.ink)),
    untaken: new MeshBasicMaterial({
      color: p.lit,
      side: DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    }),
    low: hatch(p.paper, p.warn, 5, 1),
    litOn: hatch(p.cutsoft, p.cut, 4, 2),
    litOff: hatch(p.paper, p.ink, 6, 1.2),
    cap: hatch(p.cutsoft, p.cut, 7, 1.25),
  }
}

/** In plan nothing hides what is cut: it is drawn over all that lies above or below. */
function onTop<M extends Material>(material: M): M {
  return Object.assign(material, { depthTest: false })
}

/** Drawn a hair farther than the ink lines that lie on it, nearer than the faces. */
function behind(material: LineMaterial): LineMaterial {
  return Object.assign(material, { polygonOffset: true, polygonOffsetFactor: 0.5, polygonOffsetUnits: 0.5 })
}

/** Drawn a hair nearer than the ink lines that it lies on. */
function forward(material: LineMaterial): LineMaterial {
  return Object.assign(material, { polygonOffset: true, polygonOffsetFactor: -2, polygonOffsetUnits: -6 })
}

/** Slanted lines of a constant distance in pixels, whatever the zoom. */
function hatch(ground: string, line: string, apart: number, width: number): ShaderMaterial {
  return new ShaderMaterial({
    side: DoubleSide,
    uniforms: { ground: { value: new Color(ground) }, line: { value: new Color(line) }, dpr: { value: 1 } },
    vertexShader: 'void main() { gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }',
    fragmentShader: `uniform vec3 ground; uniform vec3 line; uniform float dpr;
      void main() {
        float across = mod((gl_FragCoord.x - gl_FragCoord.y) / dpr, ${apart.toFixed(1)});
        float on = 1.0 - smoothstep(${(width / 2).toFixed(2)}, ${(width / 2 + 0.7).toFixed(2)}, min(across, ${apart.toFixed(1)} - across));
        gl_FragColor = vec4(mix(ground, line, on * 0.85), 1.0);
      }`,
  })
}
