import type { Answers, Ask } from '@geotome/core/exchange'
import { ChoiceField } from './fields'

const LABELS: Record<Ask['what'], string> = {
  order: 'coordinates',
  unit: 'unit of the file',
  up: 'up in the file',
  contours: 'they are',
  surface: 'surface',
  band: 'band of heights',
  system: 'coordinates',
  take: 'take',
}

/** What a file leaves open, each with what was taken; another answer reads it again. */
export function FileAsks({
  asks,
  answers,
  answer,
}: {
  asks: Ask[]
  answers: Answers
  answer: (next: Answers) => void
}) {
  return asks.map((ask) => (
    <div key={ask.what} data-ask={ask.what}>
      <p className="text-[12px] text-warn">{ask.say}.</p>
      <ChoiceField
        label={LABELS[ask.what]}
        value={ask.taken}
        options={ask.options}
        onChange={(value) => answer({ ...answers, [ask.what]: value })}
      />
    </div>
  ))
}
