import { request } from 'node:http'
import { describe, expect, it } from 'vitest'

import { onlyOurHosts } from '../src/http/strangers'
import { withServers, make, servers } from './api'

withServers()

describe('strangers', () => {
  const at = (path: string, headers: Record<string, string>, method = 'GET', body?: string) =>
    new Promise<{ status: number; type: string; text: string; headers: Record<string, unknown> }>((done, failed) => {
      const { port } = new URL(servers[0]?.url ?? '')
      const asked = request({ host: '127.0.0.1', port, path, method, headers }, (response) => {
        let text = ''
        response.on('data', (d: Buffer) => {
          text += String(d)
        })
        response.on('end', () =>
          done({
            status: response.statusCode ?? 0,
            type: response.headers['content-type'] ?? '',
            text,
            headers: response.headers,
          }),
        )
      })
      asked.on('error', failed)
      asked.end(body)
    })
  const json = { 'content-type': 'application/json' }
  it('a host name that is not ours is not answered: somebody has pointed it here', async () => {
    const answer = await at('/api/projects', { host: 'evil.example:4180' })
    expect([answer.status, answer.type]).toEqual([421, 'application/problem+json; charset=utf-8'])
    expect((await at('/api/projects', { host: 'localhost:4180' })).status).toBe(200)
  })
  it('answers to the names that it was given, and to no other one, however open it is', () => {
    const asked = (host: string) => {
      let failed: unknown = null
      onlyOurHosts(['geotome.office.lan', '192.168.0.10'])(
        { headers: { host } } as never,
        {} as never,
        (e) => (failed = e),
      )
      return failed === undefined
    }
    expect(['geotome.office.lan', 'GEOTOME.office.lan:4180', '192.168.0.10:4180', 'localhost'].map(asked)).toEqual(
      Array(4).fill(true),
    )
    expect(['evil.example', 'geotome.office.lan.evil.example', '', '192.168.0.1'].map(asked)).toEqual(
      Array(4).fill(false),
    )
  })
  it("another site's page changes nothing and hears nothing", async () => {
    const id = await make('Own')
    const body = JSON.stringify({ name: 'Theirs', unit: 'm', siteArea: null })
    for (const headers of [
      { origin: 'https://evil.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ] as Record<string, string>[]) {
      expect((await at('/api/projects', { ...json, ...headers }, 'POST', body)).status).toBe(403)
      for (const path of [
        `/api/projects/${id}/events`,
        `/api/projects/${id}/export/csv`,
        '/api/stand-ins/heights?x0=0&y0=0&x1=2000&y1=2000&latitude=53&longitude=9&step=1',
      ])
        expect((await at(path, headers)).status).toBe(403)
    }
    expect((await at('/api/projects', { ...json, 'sec-fetch-site': 'same-origin' }, 'POST', body)).status).toBe(201)
  })
  it('what a form or any page may send is not taken', async () => {
    for (const type of ['text/plain', 'application/x-www-form-urlencoded', '']) {
      const answer = await at(
        '/api/projects',
        type ? { 'content-type': type } : {},
        'POST',
        '{"name":"A","unit":"m","siteArea":null}',
      )
      expect([answer.status, answer.type.split(';')[0]]).toEqual([415, 'application/problem+json'])
    }
    expect((await at('/api/assets', { 'content-type': 'text/plain' }, 'POST', 'x')).status).toBe(415)
  })
  it.each([
    '/api/projects/%C3%A9',
    '/api/projects/%E0%A4%A',
    '/api/projects/a b',
    `/api/projects/${'x'.repeat(300)}`,
    '/api/projects/%00',
    '/api/assets/nothing',
    '/api/%ff',
    '/api/projects/abc/export/clay',
    '/api/projects/abc/at/1e99',
    '/api/stand-ins/none',
  ])("%s is the client's mistake, and says so", async (path) => {
    const answer = await at(path.replace(' ', '%20'), {})
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.status).toBeLessThan(500)
    expect(answer.type).toContain('application/problem+json')
  })
  it('the page may not be framed, nor run what is not its own', async () => {
    expect(String((await at('/api/health', {})).headers['content-security-policy'])).toMatch(/frame-ancestors 'none'/)
  })
  it('health answers while a large file is read in: that happens away from the request loop', async () => {
    let done = false
    const heavy = fetch(`${servers[0]?.url}/api/projects/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: JSON.stringify({
        format: 'geotome',
        version: 1,
        project: Array.from({ length: 250_000 }, (_, i) => ({ i, text: 'x'.repeat(60) })),
      }),
    }).finally(() => {
      done = true
    })
    let meanwhile = 0
    while (!done) {
      expect((await at('/api/health', {})).status).toBe(200)
      meanwhile++
    }
    expect((await heavy).status).toBe(422)
    expect(meanwhile).toBeGreaterThan(5)
  })
})
