import { zipSync } from 'fflate'
import { connect } from 'node:net'
import { manyMasses } from './many-masses'

/** Something huge or hostile that is sent to the server, and what its answer must be. */
export interface Attack {
  what: string
  /** statuses that are right; 0: nothing is answered */
  right: number[]
  send(url: string, project: string): Promise<{ status: number; detail?: string }>
}

/** Sends a body; long ones take as long as they take. */
export async function post(url: string, body: string | Uint8Array, type = 'application/json') {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': type },
    body: body as BodyInit,
    signal: AbortSignal.timeout(280_000),
  })
  const text = await response.text()
  const { detail, id } = (text.startsWith('{') ? JSON.parse(text) : {}) as { detail?: string; id?: string }
  return { status: response.status, ...(detail ? { detail } : {}), id: id ?? '' }
}

let n = 0
const asEdit = (edit: string) => `{"id":"hostile-${process.pid}-${++n}","author":"h","label":"x","edit":${edit}}`
const edit =
  (body: () => string): Attack['send'] =>
  (url, project) =>
    post(`${url}/api/projects/${project}/edits`, asEdit(body()))

interface Ids {
  scheme: string
  level: string
  use: string
}

/** What a project has to put a mass on. */
async function idsOf(url: string, project: string): Promise<Ids> {
  const { project: now } = (await (await fetch(`${url}/api/projects/${project}`)).json()) as {
    project: { schemes: Record<string, { id: string; levels: object }>; uses: object }
  }
  const [scheme] = Object.values(now.schemes)
  return {
    scheme: scheme?.id ?? '',
    level: Object.keys(scheme?.levels ?? {})[0] ?? '',
    use: Object.keys(now.uses)[0] ?? '',
  }
}

/** A mass of boxes that are joined to one another, nested so deep. */
function nestedJoins(deep: number, { scheme, level, use }: Ids): string {
  const box = (n: number) =>
    `{"id":"o${n}","move":"outline","on":true,"shape":{"kind":"rectangle","width":8,"depth":6},"holes":[]},{"id":"r${n}","move":"raise","on":true,"height":3,"upTo":null}`
  const join = (n: number) =>
    `,{"id":"j${n}","move":"join","on":true,"name":"J","place":{"x":1,"y":1,"turn":5},"lift":1,"recipe":[${box(n)}`
  const recipe = `[${box(0)}${Array.from({ length: deep }, (_, n) => join(n + 1)).join('')}${']}'.repeat(deep)}]`
  return `{"edit":"mass.add","scheme":"${scheme}","thing":{"id":"m","name":"M","order":0,"use":"${use}","base":{"level":"${level}","above":0},"place":{"x":0,"y":0,"turn":0},"takes":{"kind":"all-but","levels":[]},"recipe":${recipe}}}`
}

/** So many neighbours, each a star of so many corners. */
function neighbours(count: number, corners: number): string {
  const one = (i: number) => {
    const [cx, cy] = [300 + (i % 10) * 60, 300 + Math.floor(i / 10) * 60]
    const points = Array.from({ length: corners }, (_, k) => {
      const [angle, r] = [(2 * Math.PI * k) / corners, k % 2 ? 20 : 24]
      return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)]
    })
    return `{"edit":"neighbour.add","thing":{"id":"n-${process.pid}-${n}-${i}","name":"N ${i}","order":${i},"outline":${JSON.stringify(points)},"base":0,"height":9}}`
  }
  return `{"edit":"batch","edits":[${Array.from({ length: count }, (_, i) => one(i)).join(',')}]}`
}

const joins =
  (deep: number): Attack['send'] =>
  async (url, project) => {
    const ids = await idsOf(url, project)
    return edit(() => nestedJoins(deep, ids))(url, project)
  }

/** A zip that says that its project is small, and holds gigabytes of zeros. */
function lyingZip(): Uint8Array {
  const zip = zipSync({ 'project.json': [new Uint8Array(512 * 1024 * 1024), { level: 9 }] })
  // The size that it claims, in both of its headers.
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength)
  for (let i = 0; i + 4 < zip.length; i++) {
    const mark = view.getUint32(i, true)
    if (mark === 0x04034b50) view.setUint32(i + 22, 1000, true)
    if (mark === 0x02014b50) view.setUint32(i + 24, 1000, true)
  }
  return zip
}

/** Asks for a stream of events and never reads it. */
function neverReads(url: string, project: string): Promise<void> {
  const { port } = new URL(url)
  return new Promise((done) => {
    const socket = connect(Number(port), '127.0.0.1', () => {
      socket.pause()
      socket.write(`GET /api/projects/${project}/events?since=0 HTTP/1.1\r\nhost: localhost:${port}\r\n\r\n`)
      setTimeout(done, 200)
    })
    socket.on('error', () => {})
    socket.unref()
  })
}

const file = 'application/octet-stream'
export const ATTACKS: Attack[] = [
  { what: '45 MB of [] as an edit', right: [422], send: edit(() => `[${'[],'.repeat(15_000_000)}[]]`) },
  {
    what: 'a million unknown keys',
    right: [422],
    send: edit(
      () =>
        `{"edit":"project.change","set":{${Array.from({ length: 1_000_000 }, (_, i) => `"k${i}":${i}`).join(',')}}}`,
    ),
  },
  {
    what: 'a million wrong values in a list',
    right: [422],
    send: edit(() => `{"edit":"patch","changes":[${Array.from({ length: 1_000_000 }, () => '{"a":1}').join(',')}]}`),
  },
  { what: 'joins nested 400 deep', right: [422], send: joins(400) },
  { what: 'joins nested 40 deep', right: [201, 422], send: joins(40) },
  { what: '100 neighbours of 2,000 corners', right: [201, 422], send: edit(() => neighbours(100, 2000)) },
  {
    what: 'a file of 9,000 masses',
    right: [201],
    send: (url) => post(`${url}/api/projects/import`, manyMasses(9000, 1), file),
  },
  {
    what: 'a zip of 0.5 GB that says it is small',
    right: [422],
    send: (url) => post(`${url}/api/projects/import`, lyingZip(), file),
  },
  {
    what: 'a study of 500 masses on 199 levels, asked for twice',
    right: [200, 422],
    send: async (url) => {
      const { id } = await post(`${url}/api/projects/import`, manyMasses(500, 199), file)
      const asked = () => fetch(`${url}/api/projects/${id}/export/csv`, { signal: AbortSignal.timeout(280_000) })
      const [one] = await Promise.all([asked(), asked()])
      return { status: one.status }
    },
  },
  {
    what: 'six times the heights of the largest grid',
    right: [200, 422],
    send: async (url) => {
      const asked = () => fetch(`${url}/api/stand-ins/heights?x0=0&y0=0&x1=2000&y1=2000&latitude=53&longitude=9&step=1`)
      const [one] = await Promise.all(Array.from({ length: 6 }, asked))
      return { status: one?.status ?? 0 }
    },
  },
  {
    what: 'ten windows that never read a log of 20 MB',
    right: [200],
    send: async (url, project) => {
      for (let i = 0; i < 24; i++) await edit(() => neighbours(12, 2000))(url, project)
      await Promise.all(Array.from({ length: 10 }, () => neverReads(url, project)))
      return { status: 200 }
    },
  },
]
