import { showNumber, Refusal } from '@geotome/core/project'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useRef, useState, type ChangeEvent } from 'react'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import { toast } from 'sonner'
import { addBodies } from '@geotome/core/form'
import { levelHeights } from '@geotome/core/levels'
import type { Answers, BodiesRead } from '@geotome/core/exchange'
import { useProject, useUses } from '../app/hooks'
import { makeEdit } from '../app/session'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { ChoiceField } from '../common/fields'
import { Dialog } from '../common/Dialog'
import { accepts, useExchange } from '../common/use-exchange'
import { FileAsks } from '../common/FileAsks'
import { readInWorker } from '../worker/reader'
import { inUnits } from '../common/tell'

const FormSchema = v.object({
  together: v.boolean(),
  as: v.picklist(['mass', 'context']),
  use: v.string(),
  level: v.string(),
})

/** Brings bodies in from IFC, OBJ or GLB, as masses of the scheme or as context; what was read is said before it is taken. */
export function ImportDialog({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const uses = useUses()
  const list = useExchange()
  const levels = levelHeights(project, scheme)
  const [file, setFile] = useState<File | null>(null)
  const [read, setRead] = useState<BodiesRead | Refusal | 'reading' | null>(null)
  const [answers, setAnswers] = useState<Answers>({})
  const { watch, setValue, register } = useForm({
    resolver: valibotResolver(FormSchema),
    defaultValues: {
      together: false,
      as: 'mass',
      use: uses[0]?.id ?? '',
      level: (levels.find((l) => Math.abs(l.height) < 1e-6) ?? levels[0])?.id ?? '',
    } as v.InferOutput<typeof FormSchema>,
  })
  const { together, as, use, level } = watch()
  const newest = useRef(0)
  const take = async (chosen: File | null, one: boolean, told: Answers = {}) => {
    setAnswers(told)
    setFile(chosen)
    setValue('together', one)
    if (!chosen) return
    const mine = ++newest.current
    setRead('reading')
    const found = await readInWorker(chosen, (reader, bytes) => reader.bodies(chosen.name, bytes, one, told)).catch(
      (e: unknown) => {
        if (e instanceof Refusal) return e
        throw e
      },
    )
    if (mine === newest.current) setRead(found)
  }
  const { bodies, remarks, asks } = read && typeof read === 'object' && 'bodies' in read ? read : NOTHING
  const faulty = bodies.filter((b) => b.fault)
  const accept = () => {
    const height = levels.find((l) => l.id === level)?.height ?? 0
    let n = 0
    const ids: string[] = []
    const mint = () => {
      const id = crypto.randomUUID()
      if (n++ % 2 === 0) ids.push(id)
      return id
    }
    if (
      bodies.length &&
      makeEdit(`import ${file?.name ?? 'bodies'}`, () =>
        addBodies(scheme, mint, bodies, { use, level, levelHeight: height, context: as === 'context' }),
      )
    ) {
      toast(`${bodies.length} ${bodies.length === 1 ? 'body is' : 'bodies are'} in.`)
      dispatch(picked({ kind: 'mass', ids }))
      onClose()
    }
  }
  return (
    <Dialog
      title="Import bodies"
      onClose={onClose}
      onAccept={accept}
      accept={bodies.length ? `Bring in ${bodies.length}` : 'Bring in'}
    >
      <label
        className="mb-3 block cursor-pointer rounded-md border border-dashed border-ink3 p-3 text-center"
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault()
          void take(e.dataTransfer.files[0] ?? null, together)
        }}
      >
        <span className="font-medium">{file ? file.name : 'Choose or drop a file'}</span>
        <span className="block text-[12px] text-ink2">{list?.bodies.map((e) => e.toUpperCase()).join(', ')}</span>
        <input
          type="file"
          aria-label="File with bodies"
          accept={accepts(list?.bodies ?? [])}
          className="sr-only"
          onChange={(e) => {
            void take(e.target.files?.[0] ?? null, together)
            e.target.value = ''
          }}
        />
      </label>
      {read === 'reading' && (
        <p role="status" className="mb-2 text-ink2">
          Reading ...
        </p>
      )}
      {read instanceof Refusal && (
        <p role="alert" className="mb-2 text-error">
          {inUnits(read.message)}
        </p>
      )}
      {bodies.length > 0 && (
        <p className="mb-2 text-ink2" data-read>
          {bodies.length} {bodies.length === 1 ? 'body' : 'bodies'},{' '}
          {bodies.reduce((s, b) => s + b.body.faces.length, 0)} faces
          {faulty.length ? (
            <b className="text-warn">, {faulty.length} not closed or crossing: better as context</b>
          ) : (
            ', closed'
          )}
        </p>
      )}
      {remarks.map((r) => (
        <p key={r} className="mb-1 text-[12px] text-ink2" data-remark>
          {r}
        </p>
      ))}
      <FileAsks asks={asks} answers={answers} answer={(next) => void take(file, together, next)} />
      <ChoiceField
        label="as"
        value={as}
        options={[
          { value: 'mass', label: 'masses, counted' },
          { value: 'context', label: 'context, not counted' },
        ]}
        onChange={(next) => setValue('as', next)}
      />
      {as === 'mass' && (
        <ChoiceField
          label="use"
          value={use}
          options={uses.map((u) => ({ value: u.id, label: u.name }))}
          onChange={(next) => setValue('use', next)}
        />
      )}
      <ChoiceField
        label="hang on"
        value={level}
        options={[...levels]
          .reverse()
          .map((l) => ({ value: l.id, label: `${l.name}  ${showNumber(l.height, 'length', project)}` }))}
        onChange={(next) => setValue('level', next)}
      />
      <label className="flex cursor-pointer items-center justify-between py-1">
        all of it as one body
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          {...register('together', {
            onChange: (e: ChangeEvent<HTMLInputElement>) => void take(file, e.target.checked, answers),
          })}
        />
      </label>
    </Dialog>
  )
}

const NOTHING: BodiesRead = { bodies: [], remarks: [], asks: [] }
