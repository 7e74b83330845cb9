import { createHash } from 'node:crypto'
import type { DataSource } from 'typeorm'
import { isSurvey, refuse, type AssetBytes } from '@geotome/core/project'
import { AssetPieceRow, AssetRow } from '../db/entities'

/** A picture or survey may have so many bytes. */
export const MOST_ASSET_BYTES = 60 * 1024 * 1024
const PIECE = 512 * 1024

export interface Asset {
  hash: string
  type: string
  bytes: Buffer
}

/** Stores pictures and surveys once, by the hash of their content. */
export class AssetStore {
  constructor(private readonly source: DataSource) {}

  /** Errors: 'file' for what is no picture or survey, 'size'. */
  async put(bytes: Uint8Array): Promise<{ hash: string; type: string; bytes: number }> {
    if (bytes.length === 0) refuse('file', 'The picture is empty.', 'Choose another file.')
    if (bytes.length > MOST_ASSET_BYTES)
      refuse(
        'size',
        `The picture has ${Math.round(bytes.length / 1e6)} MB; up to 60 MB are kept.`,
        'Save it smaller, or crop it first.',
      )
    const type =
      typeOf(bytes) ??
      refuse(
        'file',
        'What was sent is no picture: it is neither PNG, JPEG nor WebP.',
        'Save it as PNG or JPEG, and choose it again.',
      )
    const hash = createHash('sha256').update(bytes).digest('hex')
    await this.source.transaction(async (manager) => {
      // One that is here already counts as new, so that it is not freed while it is on its way into a project.
      const { affected } = await manager.update(AssetRow, { hash }, { at: new Date() })
      if (affected) return
      for (let n = 0; n * PIECE < bytes.length; n++)
        await manager.upsert(
          AssetPieceRow,
          { hash, n, data: Buffer.from(bytes.subarray(n * PIECE, (n + 1) * PIECE)) },
          ['hash', 'n'],
        )
      await manager.upsert(AssetRow, { hash, type, bytes: bytes.length, at: new Date() }, ['hash'])
    })
    return { hash, type, bytes: bytes.length }
  }

  /** What it is and its pieces in order, each read when it is its turn. */
  async pieces(hash: string): Promise<{ type: string; bytes: number; pieces: () => AsyncGenerator<Buffer> } | null> {
    const { manager } = this.source
    const row = await manager.findOneBy(AssetRow, { hash })
    if (!row) return null
    const pieces = async function* () {
      for (let n = 0; n * PIECE < row.bytes; n++) yield (await manager.findOneByOrFail(AssetPieceRow, { hash, n })).data
    }
    return { type: row.type, bytes: row.bytes, pieces }
  }

  async get(hash: string): Promise<Asset | null> {
    const row = await this.source.manager.findOneBy(AssetRow, { hash })
    if (!row) return null
    const pieces = await this.source.manager.find(AssetPieceRow, { where: { hash }, order: { n: 'ASC' } })
    return { hash, type: row.type, bytes: Buffer.concat(pieces.map((p) => p.data)) }
  }

  /** Those that are here of some hashes. */
  async all(hashes: string[]): Promise<AssetBytes> {
    const found = await Promise.all(hashes.map((hash) => this.get(hash)))
    return Object.fromEntries(found.flatMap((a) => (a ? [[a.hash, new Uint8Array(a.bytes)]] : [])))
  }

  /** What came with a project file. Errors: 'file' where a name is not the hash of its content. */
  async putAll(assets: AssetBytes): Promise<void> {
    for (const [hash, bytes] of Object.entries(assets)) {
      const stored = await this.put(bytes)
      if (stored.hash !== hash)
        refuse(
          'file',
          'A picture in the project file is damaged: its content does not fit its name.',
          'Export the project once more.',
        )
    }
  }
}

/** By its first bytes: what a name or a browser says of a file is not asked. */
function typeOf(b: Uint8Array): string | null {
  const text = (from: number, to: number) => String.fromCharCode(...b.subarray(from, to))
  if (b[0] === 0x89 && text(1, 4) === 'PNG') return 'image/png'
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return 'image/jpeg'
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'image/webp'
  return isSurvey(b) ? 'application/x-geotome-survey' : null
}
