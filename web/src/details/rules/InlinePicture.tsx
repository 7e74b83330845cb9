import type { SingleEdit } from '@geotome/core/edits'
import { inOrder, type Id } from '@geotome/core/project'
import { useProject } from '../../app/hooks'
import { readShades } from '../../picture/read-shades'
import { InlineChoice } from './inline-choices'
import { tellFault } from '../../common/tell'

/** A picture whose darkness counts: once it is chosen, how dark it is is read and kept with it. */
export function InlinePicture({
  label,
  value,
  none,
  set,
}: {
  label: string
  value: Id | null
  none: string
  set: (picture: Id | null, also?: SingleEdit[]) => boolean
}) {
  const { project } = useProject()
  const pictures = inOrder(project.pictures)
  const choose = async (id: string) => {
    const picture = pictures.find((p) => p.id === id)
    if (!picture || picture.shades) return void set(id || null)
    const shades = await readShades(picture)
    if (!shades) {
      tellFault(`"${picture.name}" cannot be read now. Try once more, or choose another picture.`)
      return
    }
    set(id, [{ edit: 'picture.change', id, set: { shades } }])
  }
  return (
    <InlineChoice
      label={label}
      value={value ?? ''}
      options={[{ value: '', label: none }, ...pictures.map((p) => ({ value: p.id, label: p.name }))]}
      onChange={(id) => void choose(id)}
    />
  )
}
