import { shadesOf, type Picture } from '@geotome/core/project'

/** px that a picture is drawn down to along its longer side before its shades are read */
const DRAWN = 512

/** How dark a picture is, coarsely. Null where it cannot be drawn. */
export function shadesOfBitmap(bitmap: ImageBitmap): Picture['shades'] | null {
  const scale = Math.min(1, DRAWN / Math.max(bitmap.width, bitmap.height))
  const [width, height] = [bitmap.width, bitmap.height].map((n) => Math.max(1, Math.round(n * scale))) as [
    number,
    number,
  ]
  const g = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })
  if (!g) return null
  g.imageSmoothingQuality = 'high'
  g.drawImage(bitmap, 0, 0, width, height)
  return shadesOf(g.getImageData(0, 0, width, height))
}

/** The same of a picture of the project, from what the server keeps of it. */
export async function readShades({ asset }: Picture): Promise<Picture['shades'] | null> {
  const answer = await fetch(`/api/assets/${asset}`).catch(() => null)
  if (!answer?.ok) return null
  const bitmap = await createImageBitmap(await answer.blob()).catch(() => null)
  if (!bitmap) return null
  const shades = shadesOfBitmap(bitmap)
  bitmap.close()
  return shades
}
