import express, { Router } from 'express'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import * as v from 'valibot'
import { AssetSchema, refuse } from '@geotome/core/project'
import type { AssetStore } from '../assets/store'
import type { LogThreads } from '../log/log-threads'
import { askerOf, bodyOf } from './bodies'
import { checked } from './problems'

/** /api/assets: pictures and surveys, kept for ever under the hash of their content. */
export function assetRoutes(store: AssetStore, log: LogThreads): Router {
  const routes = Router()
  routes.post('/', express.raw({ type: () => true, limit: '64mb' }), async (request, response) => {
    response.status(201).json(await log.putAsset(askerOf(request), bodyOf(request)))
  })
  routes.get('/:hash', async (request, response) => {
    const asset =
      (await store.pieces(checked(v.pipe(AssetSchema), request.params.hash))) ??
      refuse('unknown-id', 'That picture is not stored here.', 'Add it once more.')
    response
      .set({ 'cache-control': 'private, max-age=31536000, immutable', 'content-security-policy': "default-src 'none'" })
      .type(asset.type)
      .set('content-length', String(asset.bytes))
    // Piece by piece: of a large one little is held at a time.
    await pipeline(Readable.from(asset.pieces()), response)
  })
  return routes
}
