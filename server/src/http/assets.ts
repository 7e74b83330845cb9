import express, { Router } from 'express'
import * as v from 'valibot'
import { AssetSchema, refuse } from '@geotome/core/project'
import type { AssetStore } from '../assets/store'
import { checked } from './problems'

/** /api/assets: pictures and surveys, kept for ever under the hash of their content. */
export function assetRoutes(store: AssetStore): Router {
  const routes = Router()
  routes.post('/', express.raw({ type: () => true, limit: '64mb' }), async (request, response) => {
    response.status(201).json(await store.put(new Uint8Array(Buffer.isBuffer(request.body) ? request.body : [])))
  })
  routes.get('/:hash', async (request, response) => {
    const asset =
      (await store.get(checked(v.pipe(AssetSchema), request.params.hash))) ??
      refuse('unknown-id', 'That picture is not stored here.', 'Add it once more.')
    response
      .set({ 'cache-control': 'private, max-age=31536000, immutable', 'content-security-policy': "default-src 'none'" })
      .type(asset.type)
      .send(asset.bytes)
  })
  return routes
}
