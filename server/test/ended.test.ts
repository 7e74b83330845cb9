import { describe, expect, it } from 'vitest'
import { Sheet } from '../../demo/raster'
import { freeUnshown } from '../src/assets/unshown'
import { AssetRow, ENTITIES } from '../src/db/entities'
import { connect } from '../src/db/source'
import { call, databaseUrl, edit, make, named, servers, withServers } from './api'

withServers()

const picture = (asset: string) => ({
  edit: 'picture.add',
  thing: {
    id: 'p',
    name: 'Sketch',
    order: 0,
    asset,
    type: 'image/png',
    width: 60,
    height: 40,
    crop: null,
    turn: 0,
    opacity: 1,
    locked: false,
    pairs: [],
    pin: { px: [0, 0], to: { kind: 'point', x: 0, y: 0, z: 0 } },
    stands: [],
  },
})
let drawn = 0
/** Stores a picture that differs from all others; its hash. */
async function stored(): Promise<string> {
  const response = await fetch(`${servers[0]?.url}/api/assets`, {
    method: 'POST',
    body: new Sheet(60, 40).specks(10 + ++drawn).png() as unknown as BodyInit,
    headers: { 'content-type': 'application/octet-stream' },
  })
  return ((await response.json()) as { hash: string }).hash
}
const isThere = async (hash: string) => (await fetch(`${servers[0]?.url}/api/assets/${hash}`)).status === 200

describe('a removed project', () => {
  it('is ended for good only after it was taken away, and leaves nothing in any table', async () => {
    const id = await make('Ended')
    await edit(id, 'a', named('Ended, changed'))
    await call('POST', `/api/projects/${id}/restore-points`, { id: 'p', name: 'then' })
    const early = await call('DELETE', `/api/projects/${id}/for-good`)
    expect([early.status, early.body.detail]).toEqual([409, expect.stringMatching(/Take it away first/)])
    await call('DELETE', `/api/projects/${id}`)
    expect((await call('DELETE', `/api/projects/${id}/for-good`)).status).toBe(204)
    expect((await call('POST', `/api/projects/${id}/restore`)).status).toBe(404)
    const source = await connect(databaseUrl(), 1)
    for (const entity of ENTITIES) {
      const meta = source.getMetadata(entity)
      const key = meta.columns.find((c) => c.propertyName === 'projectId')
        ? 'projectId'
        : meta.tableName === 'project'
          ? 'id'
          : null
      if (key)
        expect([meta.tableName, await source.manager.countBy(entity, { [key]: id })]).toEqual([meta.tableName, 0])
    }
    await source.destroy()
  })
})

describe('pictures that nothing shows', () => {
  it('are freed after a time; those of a project, of its past, and of one that can be brought back stay', async () => {
    const [unshown, shown, past, away, ended, fresh] = [
      await stored(),
      await stored(),
      await stored(),
      await stored(),
      await stored(),
      await stored(),
    ]
    const [one, two, three] = [await make('Shows'), await make('Away'), await make('To end')]
    await edit(one, 'a', picture(past))
    await edit(one, 'a', { edit: 'picture.remove', id: 'p' })
    await edit(one, 'a', picture(shown))
    await edit(two, 'a', picture(away))
    await edit(three, 'a', picture(ended))
    await call('DELETE', `/api/projects/${two}`)
    await call('DELETE', `/api/projects/${three}`)
    await call('DELETE', `/api/projects/${three}/for-good`)
    const source = await connect(databaseUrl(), 2)
    const old = new Date(Date.now() - 40 * 24 * 3600 * 1000)
    for (const hash of [unshown, shown, past, away, ended]) await source.manager.update(AssetRow, { hash }, { at: old })
    expect(await freeUnshown(source)).toBe(2)
    expect(await Promise.all([unshown, shown, past, away, ended, fresh].map(isThere))).toEqual([
      false,
      true,
      true,
      true,
      false,
      true,
    ])
    await source.destroy()
  })
})
