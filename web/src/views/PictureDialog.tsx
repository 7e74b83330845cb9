import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useRef, useState } from 'react'
import { factLines, showQuantity, type KeptView } from '@geotome/core/project'
import { uprightFrame } from '@geotome/core/slice'
import { useDress, useProject, useShades, useStudy } from '../app/hooks'
import { Dialog } from '../common/Dialog'
import { axesOf, toPane } from '../stage/camera'
import type { StoredView } from '../stage/geometry-store'
import { middleOf, placeLabels } from '../stage/label-places'
import { makeMaterials } from '../stage/materials'
import { PaneRenderer } from '../stage/PaneRenderer'
import { Scene } from '../stage/Scene'
import { UNMARKED } from '../stage/scene-items'
import { STAGE } from '../stage/shows'
import { sightsOnPage } from '../stage/sights'
import { paletteOf, useTheme } from '../stage/theme'
import { cameraOf } from './open-kept'
import { tellFault } from '../common/tell'

const SIZES = [
  { value: '1600x1000', label: '1600 x 1000' },
  { value: '2400x1500', label: '2400 x 1500' },
  { value: '3508x2480', label: 'A4 at 300 dpi' },
  { value: '1080x1080', label: 'square, 1080' },
]

const WHOLE = 'Type whole numbers of pixels from 64 to 4096.'
const PixelsSchema = v.pipe(
  v.string(),
  v.transform(Number),
  v.integer(WHOLE),
  v.minValue(64, WHOLE),
  v.maxValue(4096, WHOLE),
)
const SizeSchema = v.object({ width: PixelsSchema, height: PixelsSchema, titled: v.boolean() })

/** A presentation picture of a kept view, as PNG at a chosen size. */
export default function PictureDialog({ view, onClose }: { view: KeptView; onClose: () => void }) {
  const { register, handleSubmit, setValue, watch, formState } = useForm({
    defaultValues: { width: '1600', height: '1000', titled: false },
    resolver: valibotResolver(SizeSchema),
    mode: 'onChange',
  })
  const [drawn, setDrawn] = useState<v.InferOutput<typeof SizeSchema> | null>(null)
  const size = watch(['width', 'height']).join('x')
  const fault = formState.errors.width ?? formState.errors.height
  const field = 'input input-sm w-24 text-right font-semibold'
  return (
    <Dialog
      title={`Picture of ${view.name}`}
      onClose={onClose}
      onAccept={() => void handleSubmit(setDrawn)()}
      accept={drawn ? 'Drawing ...' : 'Save PNG'}
    >
      <div className="mb-2 flex flex-wrap gap-1.5">
        {SIZES.map((s) => (
          <button
            key={s.value}
            type="button"
            className="btn btn-xs rounded-full font-normal"
            aria-pressed={size === s.value}
            onClick={() => {
              const [a = '', b = ''] = s.value.split('x')
              setValue('width', a, { shouldValidate: true })
              setValue('height', b, { shouldValidate: true })
            }}
          >
            {s.label}
          </button>
        ))}
      </div>
      <div className="flex items-center gap-2">
        <input aria-label="width in pixels" className={field} {...register('width')} /> by{' '}
        <input aria-label="height in pixels" className={field} {...register('height')} /> pixels
      </div>
      <label className="mt-3 flex cursor-pointer items-center justify-between text-ink2">
        with the project's data below
        <input type="checkbox" className="checkbox checkbox-xs" {...register('titled')} />
      </label>
      {fault && (
        <p role="alert" className="mt-1 text-[12px] text-error">
          {fault.message}
        </p>
      )}
      {drawn && (
        <PictureMaker
          view={view}
          size={[drawn.width, drawn.height]}
          titled={drawn.titled}
          done={(blob) => {
            setDrawn(null)
            if (!blob) {
              tellFault('The picture could not be drawn at this size. Try a smaller one.')
              return
            }
            save(blob, `${view.name}.png`)
            onClose()
          }}
        />
      )}
    </Dialog>
  )
}

/** Draws the view out of sight at its size and gives the picture. */
function PictureMaker({
  view,
  size: [w, h],
  titled,
  done,
}: {
  view: KeptView
  size: [number, number]
  titled: boolean
  done: (blob: Blob | null) => void
}) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const theme = useTheme()
  const palette = useMemo(() => paletteOf(theme), [theme])
  const materials = useMemo(() => makeMaterials(palette), [palette])
  const box = useRef<HTMLDivElement>(null)
  const boxes = useRef(new Map<KeptView['pane'], HTMLDivElement>())
  const dress = useDress(view.shows.materials)
  const pictures = useShades()
  const camera = useMemo(() => cameraOf(view, w), [view, w])
  const sights = useMemo(
    () =>
      sightsOnPage(
        () => box.current,
        boxes.current,
        () => camera,
      ),
    [camera],
  )
  const z = study?.levels.find((l) => l.id === view.blade)?.height ?? null
  const at = view.shows.fabric ? STAGE.fabric : view.blade ? STAGE.slice : STAGE.form
  const cuts = useMemo(
    () => [
      {
        name: view.pane,
        buried: (z ?? 0) < -1e-6,
        cut: z === null ? null : view.pane === 'plan' ? z + at.planCut : at.blade && view.pane === '3d' ? z : null,
        upright:
          view.pane === 'section' && view.upright && study
            ? {
                azimuth: view.upright.azimuth,
                toward:
                  view.upright.toward -
                  uprightFrame(view.upright.azimuth).toward.reduce((sum, c, i) => sum + c * (study.origin[i] ?? 0), 0),
              }
            : null,
      },
    ],
    [view.pane, view.upright, z, at, study],
  )
  if (!study) return null
  const labels =
    view.shows.labels && at.plates && z !== null ? (study.floors.find((f) => f.level === view.blade) ?? null) : null
  return (
    <div
      ref={(element) => {
        box.current = element
        if (element) boxes.current.set(view.pane, element)
      }}
      style={{ position: 'fixed', left: -20000, top: 0, width: w, height: h }}
      aria-hidden
    >
      <Canvas
        linear
        flat
        legacy
        frameloop="demand"
        dpr={1}
        gl={{ antialias: true, preserveDrawingBuffer: true, localClippingEnabled: true } as never}
      >
        <Scene
          view={study}
          at={at}
          materials={materials}
          palette={palette}
          shows={view.shows}
          hidden={view.hidden}
          level={view.blade}
          marked={UNMARKED}
          dress={dress}
          pictures={pictures}
          direction={() => axesOf(camera).toward}
        />
        <PaneRenderer panes={cuts} sights={sights} materials={materials} paper={palette.paper} />
        <Shot
          size={[w, h]}
          done={(canvas) => {
            void composed(canvas, [w, h], (g) => {
              if (labels)
                writeLabels(
                  g,
                  labels,
                  camera,
                  [w, h],
                  z ?? 0,
                  palette.ink,
                  palette.paper,
                  (a) => `${showQuantity(a, 'area', project)}`,
                )
              if (titled)
                writeTitle(
                  g,
                  [w, h],
                  [`${project.name}, ${scheme.name}: ${view.name}`, factLines(project).join('   ')],
                  palette.ink,
                  palette.paper,
                )
            }).then(done)
          }}
        />
      </Canvas>
    </div>
  )
}

/** Waits until the scene has been drawn a few times, then takes it. */
function Shot({ size, done }: { size: [number, number]; done: (canvas: HTMLCanvasElement) => void }) {
  const { gl, invalidate, size: now } = useThree()
  const taken = useRef(false)
  useEffect(() => {
    if (now.width !== size[0] || taken.current) return
    let frames = 0
    const step = () => {
      invalidate()
      if (++frames < 6) {
        requestAnimationFrame(step)
        return
      }
      taken.current = true
      done(gl.domElement)
    }
    requestAnimationFrame(step)
  }, [gl, invalidate, now.width, size, done])
  return null
}

async function composed(
  canvas: HTMLCanvasElement,
  [w, h]: [number, number],
  draw: (g: CanvasRenderingContext2D) => void,
): Promise<Blob | null> {
  const out = Object.assign(document.createElement('canvas'), { width: w, height: h })
  const g = out.getContext('2d')
  if (!g) return null
  g.drawImage(canvas, 0, 0, w, h)
  draw(g)
  return new Promise((give) => out.toBlob(give, 'image/png'))
}

function writeLabels(
  g: CanvasRenderingContext2D,
  floor: StoredView['floors'][number],
  camera: Parameters<typeof toPane>[0],
  size: [number, number],
  z: number,
  ink: string,
  paper: string,
  show: (area: number) => string,
): void {
  const px = Math.max(12, size[0] / 100)
  g.font = `650 ${px}px "Archivo Variable", sans-serif`
  g.textAlign = 'center'
  g.textBaseline = 'middle'
  g.lineJoin = 'round'
  // Places are found for labels of the stage's size; the picture's are larger.
  const k = px / 11.5
  const wanted = [...floor.plates]
    .sort((a, b) => b.area - a.area)
    .map((p) => {
      const [x, y] = toPane(camera, size, [...middleOf(p), z])
      return { mass: p.mass, say: () => show(p.area), anchor: [x / k, y / k] as [number, number] }
    })
  for (const {
    text,
    at: [x, y],
  } of placeLabels(wanted, [size[0] / k, size[1] / k])) {
    const at = [x * k, y * k] as const
    g.strokeStyle = paper
    g.lineWidth = px / 2.4
    g.strokeText(text, at[0], at[1])
    g.fillStyle = ink
    g.fillText(text, at[0], at[1])
  }
}

/** The project's data as a strip along the foot of a picture. */
function writeTitle(
  g: CanvasRenderingContext2D,
  [w, h]: [number, number],
  [title = '', facts = '']: string[],
  ink: string,
  paper: string,
): void {
  const px = Math.max(12, w / 90)
  g.fillStyle = paper
  g.fillRect(0, h - px * 3.6, w, px * 3.6)
  g.fillStyle = ink
  g.fillRect(px, h - px * 3.6, w - 2 * px, Math.max(1, px / 12))
  g.textAlign = 'left'
  g.textBaseline = 'alphabetic'
  g.font = `650 ${px}px "Archivo Variable", sans-serif`
  g.fillText(title, px, h - px * 2.1)
  g.font = `450 ${px * 0.8}px "Archivo Variable", sans-serif`
  g.fillText(facts, px, h - px * 0.8, w - 2 * px)
}

function save(blob: Blob, name: string): void {
  const link = Object.assign(document.createElement('a'), {
    href: URL.createObjectURL(blob),
    download: name.replace(/[^\p{L}\p{N}. -]/gu, ''),
  })
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10000)
}
