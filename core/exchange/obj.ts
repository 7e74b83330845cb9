import { strToU8, zipSync } from 'fflate'
import { factLines, tidy, type Material } from '../project'
import type { Study } from '../study'
import { formBodies } from './bodies'

/**
 * The forms as OBJ: an object for each mass, a group for each face, coordinates in metres with z up, as exact as they are.
 * Triangles run counter-clockwise seen from outside.
 */
export function writeObj(study: Study, library: string | null = null): string {
  const facts = factLines(study.project)
  const lines = [
    `# ${oneLine(study.project.name)}, ${oneLine(study.scheme.name)}; metres, z up`,
    ...facts.map((l) => `# ${oneLine(l)}`),
  ]
  if (library) lines.push(`mtllib ${library}`)
  let from = 1
  for (const { name, mesh, faceOf, faces, material } of formBodies(study)) {
    lines.push(`o ${oneLine(name)}`)
    let drawn: string | null = null
    const { positions: p, triangles } = mesh
    for (let i = 0; i < p.length; i += 3)
      lines.push(`v ${tidy(p[i] ?? 0)} ${tidy(p[i + 1] ?? 0)} ${tidy(p[i + 2] ?? 0)}`)
    let group = -1
    const order = Array.from({ length: triangles.length / 3 }, (_, t) => t).sort(
      (a, b) => (faceOf?.[a] ?? 0) - (faceOf?.[b] ?? 0) || a - b,
    )
    for (const t of order) {
      if (faceOf && faceOf[t] !== group) {
        group = faceOf[t] ?? 0
        lines.push(`g ${oneLine(faces[group]?.name ?? 'face')}`)
      }
      const now = materialName(faces[faceOf?.[t] ?? -1]?.material ?? material)
      if (library && now !== drawn) {
        drawn = now
        lines.push(`usemtl ${now}`)
      }
      lines.push(`f ${[0, 1, 2].map((k) => (triangles[t * 3 + k] ?? 0) + from).join(' ')}`)
    }
    from += p.length / 3
  }
  return `${lines.join('\n')}\n`
}

/** The forms as OBJ with its materials beside it, in a zip: forms.obj and forms.mtl. */
export function writeObjWithMaterials(study: Study): Uint8Array {
  const used = new Map<string, Material | null>([['paper', null]])
  for (const { material, faces } of formBodies(study))
    for (const m of [material, ...faces.map((f) => f.material)]) used.set(materialName(m), m)
  const mtl = [...used]
    .flatMap(([name, m]) => {
      const [r, g, b] = [1, 3, 5].map((i) => (parseInt((m?.colour ?? '#f4efe4').slice(i, i + 2), 16) / 255).toFixed(4))
      return [`newmtl ${name}`, `Kd ${r} ${g} ${b}`, `d ${m?.opacity ?? 1}`, 'illum 1', '']
    })
    .join('\n')
  const mtime = new Date('2000-01-01T00:00:00')
  return zipSync({
    'forms.obj': [strToU8(writeObj(study, 'forms.mtl')), { mtime }],
    'forms.mtl': [strToU8(mtl), { mtime }],
  })
}

const materialName = (m: Material | null | undefined): string => (m ? oneLine(m.name).replace(/\s/g, '_') : 'paper')
const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim()
