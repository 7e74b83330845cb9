import { Document, WebIO, type Material as GltfMaterial } from '@gltf-transform/core'
import { factLines, type Material } from '../project'
import { cornerAt, planeThrough, type Vec3 } from '../solid'
import type { Study } from '../study'
import { buildingBodies, type NamedBody } from './bodies'

/**
 * The building, and the forms that have no parts yet, as binary glTF 2.0: a node for each, metres, y up as the standard has it, flat
 * normals. A node's place holds what single precision cannot: sites at map coordinates keep their millimetres.
 */
export async function writeGlb(study: Study): Promise<Uint8Array> {
  const document = new Document()
  document.getRoot().getAsset().generator = 'Geotome'
  const buffer = document.createBuffer()
  const scene = document.createScene(study.scheme.name)
  const said = factLines(study.project)
  if (said.length) scene.setExtras({ project: study.project.name, facts: said })
  const materials = new Map<string, GltfMaterial>()
  const materialOf = (material: Material | null): GltfMaterial => {
    const key = material?.id ?? 'paper'
    let made = materials.get(key)
    if (!made) {
      const [r, g, b] = material ? linear(material.colour) : linear('#f4efe4')
      made = document
        .createMaterial(material?.name ?? 'paper')
        .setBaseColorFactor([r, g, b, material?.opacity ?? 1])
        .setMetallicFactor(0)
        .setRoughnessFactor(0.9)
      if (material && material.opacity < 1) made.setAlphaMode('BLEND').setDoubleSided(true)
      materials.set(key, made)
    }
    return made
  }
  for (const body of buildingBodies(study)) {
    const [ox, oy, oz] = [body.mesh.positions[0] ?? 0, body.mesh.positions[1] ?? 0, body.mesh.positions[2] ?? 0].map(
      Math.round,
    ) as [number, number, number]
    const mesh = document.createMesh(body.name)
    for (const [material, triangles] of byMaterial(body)) {
      const { positions, normals } = flat(body, triangles, [ox, oy, oz])
      const accessor = (array: Float32Array) =>
        document.createAccessor().setType('VEC3').setArray(array).setBuffer(buffer)
      mesh.addPrimitive(
        document
          .createPrimitive()
          .setAttribute('POSITION', accessor(positions))
          .setAttribute('NORMAL', accessor(normals))
          .setMaterial(materialOf(material)),
      )
    }
    scene.addChild(
      document.createNode(body.name).setMesh(mesh).setTranslation([ox, oz, -oy]).setExtras(saidOf(study, body.id)),
    )
  }
  return new WebIO().writeBinary(document)
}

/** What a thing is, for whoever opens the file: its use and level, and of a part its role, build-up and mass. */
function saidOf({ project, scheme, parts, levels }: Study, id: string): Record<string, string> {
  const part = parts.find((p) => p.id === id)
  const mass = scheme.masses[part?.part.host.mass ?? id]
  const level = levels.find((l) => l.id === (part?.part.base?.level ?? mass?.base.level))
  return {
    ...(part
      ? { kind: part.part.kind, role: part.role, buildUp: project.buildUps[part.part.buildUp]?.name ?? '' }
      : { kind: mass?.context ? 'context' : 'mass' }),
    ...(mass ? { mass: mass.name, use: project.uses[mass.use]?.name ?? '' } : {}),
    ...(level ? { level: level.name } : {}),
  }
}

/** The body's triangles by what they are drawn in. */
function byMaterial({ mesh, faceOf, faces, material }: NamedBody): Map<Material | null, number[]> {
  const groups = new Map<Material | null, number[]>()
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const own = (faceOf ? faces[faceOf[t] ?? 0]?.material : null) ?? material
    const list = groups.get(own)
    if (list) list.push(t)
    else groups.set(own, [t])
  }
  return groups
}

function flat(
  { mesh }: NamedBody,
  triangles: number[],
  [ox, oy, oz]: [number, number, number],
): { positions: Float32Array; normals: Float32Array } {
  const positions = new Float32Array(triangles.length * 9)
  const normals = new Float32Array(triangles.length * 9)
  triangles.forEach((t, i) => {
    const corners = [0, 1, 2].map((k): Vec3 => {
      const [x, y, z] = cornerAt(mesh.positions, mesh.triangles[t * 3 + k] ?? 0)
      return [x - ox, z - oz, oy - y]
    }) as [Vec3, Vec3, Vec3]
    const { n } = planeThrough(...corners)
    corners.forEach((p, k) => {
      positions.set(p, i * 9 + k * 3)
      normals.set(n, i * 9 + k * 3)
    })
  })
  return { positions, normals }
}

/** A screen colour in the linear light that the standard wants. */
const linear = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
