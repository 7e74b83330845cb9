import { MEASURES, showQuantity } from '../../project'
import { type Check } from '../types'
import { finding } from '../finding'

/** % that two measures of one thing may differ before it is said */
const AGREE = 0.5

/** Two measures of one thing, on two pictures or a picture and the model, that do not come to the same. */
export const picturesDisagree: Check = {
  kind: 'pictures disagree',
  why: 'What is drawn after one of them is off in the other.',
  run: ({ project, context }) =>
    Object.values(project.measures).flatMap((m) => {
      const other = m.same ? project.measures[m.same] : undefined
      if (!other || MEASURES[other.kind].quantity !== MEASURES[m.kind].quantity) return []
      const { quantity } = MEASURES[m.kind]
      const value = (id: string) => context.numbers.value({ formula: `{${id}}` }, quantity)
      const [a, b] = [value(other.id), value(m.id)]
      const percent = a === 0 ? 0 : (100 * (b - a)) / a
      if (Math.abs(percent) < AGREE) return []
      const where = (x: typeof m) => (x.picture ? (project.pictures[x.picture]?.name ?? 'a picture') : 'the model')
      return [
        finding(
          'pictures disagree',
          m.id,
          `${m.name} on ${where(m)} is ${Math.abs(percent).toFixed(1)} % ${percent > 0 ? 'more' : 'less'} than ${other.name} on ${where(other)}`,
          `${showQuantity(b, quantity, project)} against ${showQuantity(a, quantity, project)}. Calibrate the one that you trust less again, or add a pair to it.`,
        ),
      ]
    }),
}
