import { Refusal, refuse } from '../../project'
import type { FlatMesh } from 'web-ifc'
import type { BodyClass, Reader, ReadMesh } from './kind'

interface IfcLine {
  type: number
  Name?: { value?: string } | null
  ObjectType?: { value?: string } | null
  Representation?: { value: number } | null
}
interface IfcShape {
  Representations: { value: number }[]
}
interface IfcRepresentation {
  RepresentationType?: { value?: string } | null
}
/** Representation types whose bodies are flat faces, by the standard. */
const FACETED = /^(Brep|Tessellation|SurfaceModel|BoundingBox|Curve.*|Point.*|Geometric.*)$/i

/** What a product is, by its class (in capitals) and its object type. */
function classOf(name: string, objectType: string): BodyClass {
  if (name === 'IFCSPACE') return 'spaces'
  if (name === 'IFCGEOGRAPHICELEMENT' || name === 'IFCSITE') return 'ground'
  if (name !== 'IFCBUILDINGELEMENTPROXY')
    return /^IFC(FURN|FLOW|DISTRIBUTION|TRANSPORT|CIVIL|ANNOTATION|GRID)/.test(name) ? 'others' : 'parts'
  return objectType === 'context' || objectType === 'neighbour' ? 'context' : 'forms'
}

/** IFC4 (and IFC2x3): every product with a shape, openings cut, with its class. */
export const ifc: Reader = {
  id: 'ifc',
  label: 'IFC',
  extensions: ['ifc'],
  read: async (bytes, wasm) => {
    const text = (part: Uint8Array) => new TextDecoder('latin1').decode(part)
    const head = text(bytes.slice(0, 4000))
    if (!head.trimStart().startsWith('ISO-10303-21'))
      refuse('file', 'The file is no IFC file in STEP form.', 'Choose a .ifc file; zipped or XML ones are not read.')
    if (!/END-ISO-10303-21\s*;\s*$/.test(text(bytes.slice(-400))))
      refuse('file', 'The IFC file ends before its end: a part of it is missing.', 'Export or copy it once more.')
    if (!/FILE_SCHEMA\s*\(/i.test(head) || !/#\d+\s*=/.test(text(bytes.slice(0, 200_000))))
      refuse('file', 'There is no body in the IFC file.', 'Export the forms as surfaces or solids.')
    const { IfcAPI, IFCSPACE } = await import('web-ifc')
    const api = new IfcAPI()
    if (wasm) api.SetWasmPath(wasm.replace(/[^/]*$/, ''), true)
    await api.Init(wasm ? () => wasm : undefined, true)
    api.SetLogLevel(6)
    const model = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: false, CIRCLE_SEGMENTS: 48 })
    if (model < 0) return refuse('file', 'The IFC file cannot be read.', 'Export it once more as IFC4.')
    /** Whether a product's shape is said otherwise than by facets. */
    const mayBeRound = ({ Representation }: IfcLine): boolean => {
      if (!Representation) return false
      // Each line by itself: put together they would hold all triangles of the body.
      const { Representations } = api.GetLine(model, Representation.value) as IfcShape
      return !Representations.every(({ value }) => {
        const { RepresentationType } = api.GetLine(model, value) as IfcRepresentation
        return FACETED.test(RepresentationType?.value ?? '')
      })
    }
    try {
      const meshes: ReadMesh[] = []
      const take = (product: FlatMesh) => {
        const line = api.GetLine(model, product.expressID) as IfcLine
        const of = classOf(api.GetNameFromTypeCode(line.type).toUpperCase(), line.ObjectType?.value ?? '')
        const out: ReadMesh = {
          name: line.Name?.value || 'body',
          of,
          isFaceted: mayBeRound(line),
          corners: [],
          triangles: [],
        }
        for (let g = 0; g < product.geometries.size(); g++) {
          const placed = product.geometries.get(g)
          const geometry = api.GetGeometry(model, placed.geometryExpressID)
          const vertices = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize())
          const indices = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize())
          const m = placed.flatTransformation
          const from = out.corners.length / 3
          for (let i = 0; i < vertices.length; i += 6) {
            const p = [vertices[i] ?? 0, vertices[i + 1] ?? 0, vertices[i + 2] ?? 0] as const
            const [x, y, z] = [0, 1, 2].map(
              (k) => (m[k] ?? 0) * p[0] + (m[4 + k] ?? 0) * p[1] + (m[8 + k] ?? 0) * p[2] + (m[12 + k] ?? 0),
            ) as [number, number, number]
            out.corners.push(x, -z, y)
          }
          for (const index of indices) out.triangles.push(from + index)
        }
        if (out.triangles.length) meshes.push(out)
      }
      api.StreamAllMeshes(model, take)
      api.StreamAllMeshesWithTypes(model, [IFCSPACE], take)
      return { meshes, remarks: [], asks: [] }
    } catch (e) {
      return e instanceof Refusal
        ? refuse('file', e.say, e.remedy)
        : refuse('file', 'The IFC file is damaged.', 'Export it once more as IFC4.')
    } finally {
      api.CloseModel(model)
    }
  },
}
