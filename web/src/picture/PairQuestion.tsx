import type { Pair, PairDoubt } from '@geotome/core/picture'
import type { Calibrating } from './tasks/calibrate'

/** Asks how a pair lies that contradicts what is told of it; each answer calibrates. */
export function PairQuestion({
  doubt: { tilt, others, better },
  lies,
  disabled,
  change,
  accept,
}: {
  doubt: PairDoubt
  lies: Pair['lies']
  disabled: boolean
  change: (set: Partial<Calibrating>) => void
  accept: () => void
}) {
  const answer = (set: Partial<Calibrating>) => () => {
    change({ ...set, sure: true })
    accept()
  }
  const degrees = Math.abs(tilt).toFixed(1)
  return (
    <div role="alert" data-question className="mb-4 rounded-md border border-line p-2 text-[12px]">
      <p className="mb-2">
        You said that the two points lie {lies}, but they are {degrees}° off it
        {others === null ? '' : `, and the other pairs tilt the picture by ${others.toFixed(1)}°`}. Which is right?
      </p>
      <div className="grid gap-1">
        <button
          type="button"
          className="btn btn-sm btn-primary h-auto min-h-8 py-1"
          disabled={disabled}
          onClick={answer({ lies: better })}
        >
          {better === 'anyhow' ? 'They lie anyhow: take the length only' : `They lie ${better}`}
        </button>
        <button type="button" className="btn btn-sm h-auto min-h-8 py-1" disabled={disabled} onClick={answer({})}>
          They lie {lies}: the picture is tilted by {degrees}°
        </button>
      </div>
    </div>
  )
}
