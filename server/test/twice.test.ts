import { describe, expect, it } from 'vitest'
import { call, edit, make, named, servers, withServers } from './api'

withServers()

describe('what comes twice, or at the same moment', () => {
  it('an edit that comes twice is stored once; another one of its id is refused, whoever sends it', async () => {
    const id = await make('Twice')
    expect((await edit(id, 'a', named('One'), 0, 'same')).body.seq).toBe(1)
    expect((await edit(id, 'a', named('One'), 1, 'same')).body.seq).toBe(1)
    for (const other of [edit(id, 'a', named('Two'), 0, 'same'), edit(id, 'b', named('One'), 0, 'same')])
      expect(await other).toMatchObject({
        status: 409,
        body: { detail: expect.stringMatching(/Another edit has this id/) as string },
      })
    const undo = (author: string) => call('POST', `/api/projects/${id}/undo`, { id: 'same', author })
    expect((await undo('a')).status).toBe(409)
    expect((await call('GET', `/api/projects/${id}`)).body).toMatchObject({ seq: 1, project: { name: 'One' } })
  })
  it('a restore point that is sent twice keeps its first moment', async () => {
    const id = await make('Kept')
    const point = (name: string) => call('POST', `/api/projects/${id}/restore-points`, { id: 'p', name })
    expect((await point('before')).body.seq).toBe(0)
    await edit(id, 'a', named('Later'))
    expect((await point('before')).body.seq).toBe(0)
    expect((await point('after')).status).toBe(409)
  })
  it('duplicates that are made at one moment, by two servers, get names of their own', async () => {
    const id = await make('Double')
    const made = await Promise.all(
      [0, 1, 0, 1, 0].map((server) => call('POST', `/api/projects/${id}/duplicate`, {}, server)),
    )
    expect(made.map((m) => (m.body as unknown as { name: string }).name).sort()).toEqual(
      [2, 3, 4, 5, 6].map((n) => `Double, ${n}`),
    )
  })
  it('tells the windows of a project that it was taken away, also those at another server', async () => {
    const id = await make('Gone')
    const heard = [0, 1].map(async (server) => {
      const response = await fetch(`${servers[server]?.url}/api/projects/${id}/events?since=0`)
      return response.text()
    })
    await new Promise((done) => setTimeout(done, 200))
    await call('DELETE', `/api/projects/${id}`)
    for (const text of await Promise.all(heard)) expect(text).toContain('event: gone')
  })
})
