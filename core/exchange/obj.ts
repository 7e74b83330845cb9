import { factLines, tidy } from '../project'
import type { Study } from '../study'
import { formBodies } from './bodies'

/**
 * The forms as OBJ: an object for each mass, a group for each face, coordinates in metres with z up, as exact as they are.
 * Triangles run counter-clockwise seen from outside.
 */
export function writeObj(study: Study): string {
  const facts = factLines(study.project)
  const lines = [`# ${oneLine(study.project.name)}, ${oneLine(study.scheme.name)}; metres, z up`, ...facts.map((l) => `# ${oneLine(l)}`)]
  let from = 1
  for (const { name, mesh, faceOf, faces } of formBodies(study)) {
    lines.push(`o ${oneLine(name)}`)
    const { positions: p, triangles } = mesh
    for (let i = 0; i < p.length; i += 3) lines.push(`v ${tidy(p[i] ?? 0)} ${tidy(p[i + 1] ?? 0)} ${tidy(p[i + 2] ?? 0)}`)
    let group = -1
    const order = Array.from({ length: triangles.length / 3 }, (_, t) => t).sort((a, b) => (faceOf?.[a] ?? 0) - (faceOf?.[b] ?? 0) || a - b)
    for (const t of order) {
      if (faceOf && faceOf[t] !== group) { group = faceOf[t] ?? 0; lines.push(`g ${oneLine(faces[group]?.name ?? 'face')}`) }
      lines.push(`f ${[0, 1, 2].map((k) => (triangles[t * 3 + k] ?? 0) + from).join(' ')}`)
    }
    from += p.length / 3
  }
  return `${lines.join('\n')}\n`
}

const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim()
