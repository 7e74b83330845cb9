/** An image of a TIFF for tests: pixel-interleaved bands without compression. */
export interface TestImage {
  width: number
  height: number
  /** a list of values row by row, for each band */
  bands: number[][]
  /** bytes as whole numbers, or floats of 32 bits */
  kind?: 'bytes' | 'floats'
  /** PhotometricInterpretation of TIFF 6.0: 1 grey, 2 colours, 4 mask */
  photometric?: number
  /** NewSubfileType: 1 overview, 4 mask */
  subfile?: number
  /** GeoKeys by number */
  keys?: Record<number, number>
  /** XML of GDAL_METADATA */
  metadata?: string
  /** left, top and size of pixels, m */
  at?: [number, number, number]
}

type Tag = [tag: number, type: 2 | 3 | 4 | 12, values: number[] | string]
const SIZES = { 2: 1, 3: 2, 4: 4, 12: 8 }

/** A little-endian TIFF of several images, as other writers make them (TIFF 6.0, GeoTIFF 1.1). */
export function tiffOf(images: TestImage[]): Uint8Array {
  const bytes: number[] = [0x49, 0x49, 42, 0, 0, 0, 0, 0]
  const put = (value: number, size: number, at = bytes.length, float = false) => {
    const view = new DataView(new ArrayBuffer(8))
    if (float && size === 4) view.setFloat32(0, value, true)
    else if (float) view.setFloat64(0, value, true)
    else view.setUint32(0, value, true)
    for (let i = 0; i < size; i++) bytes[at + i] = view.getUint8(i)
  }
  let link = 4
  for (const image of images) {
    const pixels = bytes.length
    for (let i = 0; i < image.width * image.height; i++)
      for (const band of image.bands)
        put(band[i] ?? 0, image.kind === 'bytes' ? 1 : 4, undefined, image.kind !== 'bytes')
    const tags = tagsOf(image, pixels, bytes.length - pixels)
    // Values of more than four bytes lie before the directory.
    const entries = tags.map(([tag, type, values]) => {
      const list = typeof values === 'string' ? [...`${values}\0`].map((c) => c.charCodeAt(0)) : values
      const size = SIZES[type]
      if (list.length * size <= 4) return { tag, type, list, at: null }
      while (bytes.length % 8) bytes.push(0)
      const at = bytes.length
      for (const v of list) put(v, size, undefined, type === 12)
      return { tag, type, list, at }
    })
    while (bytes.length % 2) bytes.push(0)
    put(bytes.length, 4, link)
    put(entries.length, 2)
    for (const { tag, type, list, at } of entries) {
      put(tag, 2)
      put(type, 2)
      put(list.length, 4)
      const field = bytes.length
      put(at ?? 0, 4)
      if (at === null) list.forEach((v, i) => put(v, SIZES[type], field + i * SIZES[type]))
    }
    link = bytes.length
    put(0, 4)
  }
  return Uint8Array.from(bytes)
}

function tagsOf(image: TestImage, pixels: number, length: number): Tag[] {
  const count = image.bands.length
  const keys = Object.entries(image.keys ?? {}).map(([k, v]) => [Number(k), 0, 1, v])
  const [left, top, size] = image.at ?? [0, image.height * 10, 10]
  const tags: Tag[] = [
    [254, 4, [image.subfile ?? 0]],
    [256, 4, [image.width]],
    [257, 4, [image.height]],
    [258, 3, image.bands.map(() => (image.kind === 'bytes' ? 8 : 32))],
    [259, 3, [1]],
    [262, 3, [image.photometric ?? 1]],
    [273, 4, [pixels]],
    [277, 3, [count]],
    [278, 4, [image.height]],
    [279, 4, [length]],
    [284, 3, [1]],
    [339, 3, image.bands.map(() => (image.kind === 'bytes' ? 1 : 3))],
    [33550, 12, [size, size, 0]],
    [33922, 12, [0, 0, 0, left, top, 0]],
  ]
  if (keys.length) tags.push([34735, 3, [1, 1, 0, keys.length, ...keys.flat()]])
  if (image.metadata) tags.push([42112, 2, image.metadata])
  return tags
}
