import { toast } from 'sonner'
import { nextOrder, PICTURE_TYPES, type Picture, freeName, namesOf } from '@geotome/core/project'
import { api, Problem } from '../app/api'
import { selectProject } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store } from '../app/store'
import { shadesOfBitmap } from './read-shades'
import { groundShown, picked } from '../app/view-slice'
import { tellFault } from '../common/tell'

const MOST = 60 * 1024 * 1024
/** dots to an inch that a PDF's page is drawn with */
const PDF_DPI = 200

/**
 * Takes a picture or a PDF's page into the project: stored on the server, laid in plan at the datum until it is
 * calibrated. Says what is wrong with one that cannot be taken.
 */
export async function addPicture(file: File, page = 1): Promise<void> {
  if (file.size > MOST) {
    tellFault(
      `${file.name} has ${Math.round(file.size / 1e6)} MB; up to 60 MB are taken. Save it smaller, or crop it first.`,
    )
    return
  }
  const pdf = file.type === 'application/pdf' || /\.pdf$/i.test(file.name)
  const working = toast.loading(`Taking ${file.name} ...`)
  try {
    const content = pdf ? await pageOf(file, page) : await pictureOf(file)
    const bitmap = await createImageBitmap(content).catch(() => null)
    if (!bitmap) {
      tellFault(
        `${file.name} is no picture that can be read: PNG, JPEG, WebP and PDF pages are taken. Save it as one of them.`,
      )
      return
    }
    const { hash, type } = await api.putAsset(content)
    const project = selectProject(store.getState())
    if (!project) return
    const base = file.name.replace(/\.[^.]+$/, '').slice(0, 100) || 'Picture'
    const name = freeName(base, namesOf(project.pictures))
    const thing: Picture = {
      id: crypto.randomUUID(),
      name,
      order: nextOrder(project.pictures),
      asset: hash,
      type: type as Picture['type'],
      width: bitmap.width,
      height: bitmap.height,
      crop: null,
      turn: 0,
      opacity: 1,
      locked: false,
      pairs: [],
      pin: { px: [0, bitmap.height], to: { kind: 'point', x: 0, y: 0, z: 0 } },
      stands: [{ id: crypto.randomUUID(), lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false }],
    }
    const shades = shadesOfBitmap(bitmap)
    if (shades) thing.shades = shades
    bitmap.close()
    if (makeEdit(`add picture ${name}`.slice(0, 190), { edit: 'picture.add', thing })) {
      store.dispatch(groundShown('pictures'))
      store.dispatch(picked({ kind: 'picture', ids: [thing.id] }))
    }
  } catch (e) {
    if (e instanceof Problem || e instanceof NoPicture) tellFault(e.message)
    else throw e
  } finally {
    toast.dismiss(working)
  }
}

class NoPicture extends Error {}

async function pictureOf(file: File): Promise<Blob> {
  if ((PICTURE_TYPES as readonly string[]).includes(file.type)) return file
  // Kinds that the browser reads and nobody stores become PNG.
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap)
    throw new NoPicture(
      `${file.name} is no picture that can be read: PNG, JPEG, WebP and PDF pages are taken. Save it as one of them.`,
    )
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height)
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0)
  return canvas.convertToBlob({ type: 'image/png' })
}

async function openPdf(file: File) {
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist')
  GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default
  return getDocument({ data: new Uint8Array(await file.arrayBuffer()) })
}

/** A page of a PDF as PNG. */
async function pageOf(file: File, number: number): Promise<Blob> {
  const task = await openPdf(file)
  try {
    const document = await task.promise
    if (number < 1 || number > document.numPages)
      throw new NoPicture(
        `${file.name} has ${document.numPages} ${document.numPages === 1 ? 'page' : 'pages'}; there is no page ${number}.`,
      )
    const page = await document.getPage(number)
    const size = page.getViewport({ scale: 1 })
    const viewport = page.getViewport({ scale: Math.min(PDF_DPI / 72, 6000 / Math.max(size.width, size.height)) })
    const canvas = Object.assign(window.document.createElement('canvas'), {
      width: Math.ceil(viewport.width),
      height: Math.ceil(viewport.height),
    })
    await page.render({ canvas, viewport }).promise
    return await new Promise<Blob>((done, failed) =>
      canvas.toBlob((b) => {
        if (b) done(b)
        else failed(new NoPicture(`${file.name} could not be drawn. Save its page as PNG.`))
      }, 'image/png'),
    )
  } catch (e) {
    if (e instanceof NoPicture) throw e
    throw new NoPicture(`${file.name} cannot be read as a PDF. Save its page as PNG.`)
  } finally {
    void task.destroy()
  }
}

/** How many pages a PDF has; 1 for what is none, or cannot be read. */
export async function pagesOf(file: File): Promise<number> {
  if (!/\.pdf$/i.test(file.name) && file.type !== 'application/pdf') return 1
  const task = await openPdf(file)
  return task.promise
    .then(
      (d) => d.numPages,
      () => 1,
    )
    .finally(() => void task.destroy())
}
