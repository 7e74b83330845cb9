import { describe, expect, it } from 'vitest'
import { readProjectPackage } from '@geotome/core/project'
import { Sheet } from '../../demo/raster'

import { withServers, call, make, edit, named, servers } from './api'

withServers()

describe('the API', () => {
  it('says that server and database are up, and lists the demo with the total it computed', async () => {
    expect((await call('GET', '/api/health')).body).toMatchObject({ server: 'up', database: 'up' })
    for (let tries = 0; ; tries++) {
      const [demo] = (await (await fetch(`${servers[0]?.url}/api/projects`)).json()) as {
        name: string
        totalArea: number | null
      }[]
      expect(demo?.name).toBe('Kiln Quay')
      if (demo?.totalArea) {
        expect(demo.totalArea).toBeCloseTo(12548.29, 2)
        break
      }
      expect(tries).toBeLessThan(100)
      await new Promise((done) => setTimeout(done, 200))
    }
  })
  it('seeds the demo once, also when two servers start at one moment', async () => {
    const list = (await (await fetch(`${servers[1]?.url}/api/projects`)).json()) as { name: string }[]
    expect(list.filter((p) => p.name === 'Kiln Quay')).toHaveLength(1)
  })
  it('keeps edits in order and gives them to whoever asks, whichever server took them', async () => {
    const id = await make('Log')
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) => edit(id, `author${i % 3}`, named(`Name ${i}`), i % 2)),
    )
    expect(answers.map((a) => a.body.seq).sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, i) => i + 1))
    const [one, two] = await Promise.all([
      call('GET', `/api/projects/${id}`, undefined, 0),
      call('GET', `/api/projects/${id}`, undefined, 1),
    ])
    expect(one.body.project).toEqual(two.body.project)
    const log = (await (await fetch(`${servers[1]?.url}/api/projects/${id}/edits?since=10`)).json()) as {
      seq: number
    }[]
    expect(log.map((e) => e.seq)).toEqual([11, 12])
  })
  it('stores an edit that is sent twice once', async () => {
    const id = await make('Twice')
    const [first, second] = [
      await edit(id, 'a', named('Once'), 0, 'same'),
      await edit(id, 'a', named('Once'), 1, 'same'),
    ]
    expect([first.body.seq, second.body.seq]).toEqual([1, 1])
    // Also when others have come in between: the project goes on from where it is, not from there.
    await edit(id, 'b', named('Later'), 1)
    await edit(id, 'a', named('Once'), 1, 'same')
    expect((await edit(id, 'b', named('Last'), 1)).body.seq).toBe(3)
    expect((await call('GET', `/api/projects/${id}`, undefined, 1)).body).toMatchObject({
      seq: 3,
      project: { name: 'Last' },
    })
  })
  it("undoes each author's own edits against the present, and refuses with the reason what no longer fits", async () => {
    const id = await make('Undo')
    const opened = (await call('GET', `/api/projects/${id}`)).body
    const scheme = Object.keys(opened.project.schemes)[0] ?? ''
    const ground = Object.keys(opened.project.schemes[scheme]?.levels ?? {})[0]
    await edit(id, 'ann', {
      edit: 'level.add',
      scheme,
      thing: {
        id: 'first',
        name: 'First',
        kind: 'storey',
        tie: { kind: 'stacked', on: ground, above: 3 },
        floorBuildUp: 0,
        slab: 0,
      },
    })
    await edit(id, 'ben', named('Ben was here'), 1)
    await edit(
      id,
      'ben',
      {
        edit: 'level.add',
        scheme,
        thing: {
          id: 'second',
          name: 'Second',
          kind: 'storey',
          tie: { kind: 'stacked', on: 'first', above: 3 },
          floorBuildUp: 0,
          slab: 0,
        },
      },
      1,
    )
    const refused = await call('POST', `/api/projects/${id}/undo`, { id: 'u1', author: 'ann' })
    expect(refused.status).toBe(409)
    expect(refused.body.detail).toMatch(/"test" cannot be taken back any more: .*Somebody has changed/)
    expect((await call('POST', `/api/projects/${id}/undo`, { id: 'u2', author: 'ben' }, 1)).body.history).toEqual({
      undo: 'test',
      redo: 'test',
    })
    expect((await call('POST', `/api/projects/${id}/undo`, { id: 'u3', author: 'ann' })).status).toBe(201)
    const now = (await call('GET', `/api/projects/${id}?author=ann`)).body
    expect(now.project.name).toBe('Ben was here')
    expect(Object.keys(now.project.schemes[scheme]?.levels ?? {})).toEqual([ground])
    expect(now.history.redo).toBe('test')
    expect((await call('POST', `/api/projects/${id}/redo`, { id: 'r1', author: 'ann' })).status).toBe(201)
    expect((await call('POST', `/api/projects/${id}/redo`, { id: 'r2', author: 'ann' })).body.detail).toMatch(
      /nothing to redo/,
    )
  })
  it('sends every window the edits of all servers as they come', async () => {
    const id = await make('Events')
    const stop = new AbortController()
    const stream = await fetch(`${servers[0]?.url}/api/projects/${id}/events?since=0`, { signal: stop.signal })
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader()
    await edit(id, 'x', named('One'), 1)
    await edit(id, 'x', named('Two'), 0)
    let heard = ''
    while (!heard.includes('id: 2')) heard += (await reader?.read())?.value ?? ''
    expect(heard.indexOf('id: 1\nevent: edit')).toBeGreaterThan(-1)
    stop.abort()
  })
  it('keeps named moments of the log, shows the project as it was at one, and brings it back by an edit that can be taken back', async () => {
    const id = await make('Moments')
    await edit(id, 'a', named('As it was'))
    expect((await call('POST', `/api/projects/${id}/restore-points`, { id: 'p1', name: 'before' })).status).toBe(201)
    for (const name of ['Later', 'Last']) await edit(id, 'a', named(name), 1)
    expect(await (await fetch(`${servers[1]?.url}/api/projects/${id}/restore-points`)).json()).toMatchObject([
      { id: 'p1', name: 'before', seq: 1 },
    ])
    const then = await call('GET', `/api/projects/${id}/at/1`, undefined, 1)
    expect(then.body).toMatchObject({ seq: 1, project: { name: 'As it was' } })
    expect(await (await fetch(`${servers[0]?.url}/api/projects/${id}/export/json?at=1`)).text()).toContain(
      '"name":"As it was"',
    )
    expect((await edit(id, 'a', { edit: 'whole.set', project: then.body.project })).status).toBe(201)
    expect((await call('GET', `/api/projects/${id}`, undefined, 1)).body).toMatchObject({
      seq: 4,
      project: { name: 'As it was' },
    })
    await call('POST', `/api/projects/${id}/undo`, { id: 'back', author: 'a' })
    expect((await call('GET', `/api/projects/${id}`)).body.project.name).toBe('Last')
    expect((await call('GET', `/api/projects/${id}/at/99`)).body.detail).toMatch(
      /has had 5 edits; there is no moment 99/,
    )
    expect(
      (await edit(id, 'a', { edit: 'whole.set', project: { ...then.body.project, id: 'another' } })).body.detail,
    ).toMatch(/another project/)
    expect((await call('DELETE', `/api/projects/${id}/restore-points/p1`)).status).toBe(204)
  })
  it('keeps pictures once, by the hash of their content; a project file takes them along and brings them back', async () => {
    const png = new Sheet(1200, 900).specks(90000).png()
    expect(png.length).toBeGreaterThan(600_000)
    const put = (bytes: Uint8Array, server = 0) =>
      fetch(`${servers[server]?.url}/api/assets`, {
        method: 'POST',
        body: bytes as unknown as BodyInit,
        headers: { 'content-type': 'application/octet-stream' },
      })
    const stored = (await (await put(png)).json()) as { hash: string; type: string }
    expect(stored.type).toBe('image/png')
    expect(await (await put(png, 1)).json()).toEqual(stored)
    const back = await fetch(`${servers[1]?.url}/api/assets/${stored.hash}`)
    expect(back.headers.get('cache-control')).toContain('immutable')
    expect(Buffer.compare(Buffer.from(await back.arrayBuffer()), Buffer.from(png))).toBe(0)
    const id = await make('With a picture')
    await edit(id, 'a', {
      edit: 'picture.add',
      thing: {
        id: 'p',
        name: 'Sketch',
        order: 0,
        asset: stored.hash,
        type: 'image/png',
        width: 1200,
        height: 900,
        crop: null,
        turn: 0,
        opacity: 1,
        locked: false,
        pairs: [],
        pin: { px: [0, 0], to: { kind: 'point', x: 0, y: 0, z: 0 } },
        stands: [],
      },
    })
    const file = new Uint8Array(
      await (await fetch(`${servers[0]?.url}/api/projects/${id}/export/geotome`)).arrayBuffer(),
    )
    const { assets } = readProjectPackage(file)
    expect(Object.keys(assets)).toEqual([stored.hash])
    const again = await fetch(`${servers[1]?.url}/api/projects/import`, {
      method: 'POST',
      body: file as unknown as BodyInit,
      headers: { 'content-type': 'application/octet-stream' },
    })
    expect(again.status).toBe(201)
    for (const [bytes, sentence] of [
      [new TextEncoder().encode('<svg onload="x">'), /neither PNG, JPEG nor WebP/],
      [new Uint8Array(), /empty/],
      [new Uint8Array(66 * 1024 * 1024), /larger than is taken here/],
    ] as const) {
      const refused = await put(bytes)
      expect(refused.status).toBeGreaterThanOrEqual(413)
      expect(((await refused.json()) as { detail: string }).detail).toMatch(sentence)
    }
    expect((await call('GET', `/api/assets/${'0'.repeat(64)}`)).body.detail).toMatch(/not stored here/)
  })
  it('has stand-ins for a scanner that sends points as it turns, and for a service that knows heights around a place', async () => {
    const scan = await fetch(`${servers[0]?.url}/api/stand-ins/scanner?x0=0&y0=0&x1=50&y1=30&count=200`)
    const points = (await scan.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as number[])
    expect(points).toHaveLength(200)
    expect(points.every(([x = -1, y = -1, z]) => x >= 0 && x <= 50 && y >= 0 && y <= 30 && Math.abs(z ?? 99) < 3)).toBe(
      true,
    )
    const grid = (await (
      await fetch(`${servers[0]?.url}/api/stand-ins/heights?latitude=53.5&longitude=10&x0=0&y0=0&x1=50&y1=30&step=10`)
    ).json()) as { nx: number; ny: number; heights: number[] }
    expect([grid.nx, grid.ny, grid.heights.length]).toEqual([6, 4, 24])
    const large = await call('GET', '/api/stand-ins/heights?latitude=53&longitude=10&x0=0&y0=0&x1=2000&y1=2000&step=1')
    expect([large.status, large.body.detail]).toEqual([422, expect.stringMatching(/4004001 heights.*larger step/)])
    expect(
      (await call('GET', '/api/stand-ins/heights?latitude=153&longitude=10&x0=0&y0=0&x1=50&y1=30&step=10')).status,
    ).toBe(422)
  })
  it('can remove a project and take that back', async () => {
    const id = await make('Gone')
    expect((await call('DELETE', `/api/projects/${id}`)).status).toBe(204)
    expect((await call('GET', `/api/projects/${id}`)).status).toBe(404)
    expect((await call('POST', `/api/projects/${id}/restore`)).status).toBe(204)
    expect((await call('GET', `/api/projects/${id}`)).status).toBe(200)
  })
  it.each([
    ['GET', '/api/projects/nobody', undefined, 404, /no project at this address/],
    ['GET', '/api/elsewhere', undefined, 404, /nothing at/],
    ['POST', '/api/projects', { name: '', unit: 'm', siteArea: null }, 422, /malformed at name/],
    ['POST', '/api/projects', { name: 'A', unit: 'm', siteArea: -3 }, 422, /above zero/],
    ['POST', '/api/projects', '{"name":', 400, /no JSON/],
    ['POST', '/api/projects/import', '{}', 422, /no Geotome project/],
    ['POST', '/api/projects/nobody/edits', { id: 'a', author: 'b', label: '', edit: named('x') }, 404, /no project/],
    ['POST', '/api/projects/nobody/undo', { id: 'a b', author: 'b' }, 422, /letters, digits and dashes/],
    ['GET', '/api/projects/nobody/export/clay', undefined, 422, /no format "clay"/],
  ] as const)('%s %s is answered with a problem and a sentence', async (method, path, body, status, sentence) => {
    const answer = await call(method, path, body)
    expect(answer.status).toBe(status)
    expect(answer.type).toContain('application/problem+json')
    expect(answer.body.detail).toMatch(sentence)
  })
  it('stores nothing of an edit that is refused', async () => {
    const id = await make('Whole')
    const answer = await edit(id, 'a', { edit: 'batch', edits: [named('Half'), { edit: 'use.remove', id: 'nobody' }] })
    expect(answer.status).toBe(404)
    expect((await call('GET', `/api/projects/${id}`)).body).toMatchObject({ seq: 0, project: { name: 'Whole' } })
  })
})

describe('undo beside others', () => {
  const parts = (p: unknown) => {
    const project = p as {
      schemes: Record<string, { id: string; levels: Record<string, unknown>; masses: Record<string, unknown> }>
      uses: Record<string, { id: string }>
    }
    const scheme = Object.values(project.schemes)[0]
    return {
      scheme: scheme?.id ?? '',
      level: Object.keys(scheme?.levels ?? {})[0] ?? '',
      use: Object.keys(project.uses)[0] ?? '',
      mass: scheme?.masses.m as { recipe: { move: string; height?: number }[] } | undefined,
    }
  }
  it('a height that is taken back leaves the taper of another; what another has changed again can be passed over', async () => {
    const id = await make('Beside')
    const now = async () => parts((await call('GET', `/api/projects/${id}`)).body.project)
    const { scheme, level, use } = await now()
    const moves = (height: number, more: object[] = []) => [
      { id: 'o', move: 'outline', on: true, shape: { kind: 'rectangle', width: 20, depth: 10 }, holes: [] },
      { id: 'r', move: 'raise', on: true, height, upTo: null },
      ...more,
    ]
    const set = (recipe: object[]) => ({ edit: 'mass.change', scheme, id: 'm', set: { recipe } })
    const taper = { id: 't', move: 'taper', on: true, by: { kind: 'scale', scale: 0.5 } }
    await edit(id, 'cleo', {
      edit: 'mass.add',
      scheme,
      thing: {
        id: 'm',
        name: 'Bar',
        order: 0,
        use,
        base: { level, above: 0 },
        place: { x: 0, y: 0, turn: 0 },
        takes: { kind: 'all-but', levels: [] },
        recipe: moves(6),
      },
    })
    await edit(id, 'ann', { edit: 'project.change', set: { headroom: 2.2 } })
    await edit(id, 'ann', set(moves(9)))
    await edit(id, 'ben', set(moves(9, [taper])), 1)
    await call('POST', `/api/projects/${id}/undo`, { id: 'back', author: 'ann' })
    expect((await now()).mass?.recipe.map((m) => [m.move, m.height])).toEqual([
      ['outline', undefined],
      ['raise', 6],
      ['taper', undefined],
    ])
    await call('POST', `/api/projects/${id}/redo`, { id: 'again', author: 'ann' }, 1)
    await edit(id, 'ben', set(moves(12, [taper])))
    const refused = await call('POST', `/api/projects/${id}/undo`, { id: 'no', author: 'ann' })
    expect(refused.body.detail).toMatch(/height of the raise of "Bar" is not as it was then: it has been changed since/)
    expect((await now()).mass?.recipe[1]?.height).toBe(12)
    const passed = await call('POST', `/api/projects/${id}/undo`, { id: 'pass', author: 'ann', pass: true })
    expect(passed.body.history).toEqual({ undo: 'test', redo: null })
    await call('POST', `/api/projects/${id}/undo`, { id: 'then', author: 'ann' })
    expect((await call('GET', `/api/projects/${id}`)).body.project).toMatchObject({ headroom: 2 })
    expect((await now()).mass?.recipe[1]?.height).toBe(12)
  })
})
