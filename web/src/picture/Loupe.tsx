import type { Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'

const SIZE = 148
const TIMES = 6

/** The picture around the pointer, six times as large as its pixels, with a cross on the point that would be picked. */
export function Loupe({ picture: p, at, right }: { picture: Picture; at: Vec2; right: boolean }) {
  return (
    <div
      className={`pointer-events-none absolute bottom-8 overflow-hidden rounded-full border-2 border-ink bg-paper shadow-md ${right ? 'right-4' : 'left-4'}`}
      style={{ width: SIZE, height: SIZE }}
      aria-hidden
    >
      <img
        src={`/api/assets/${p.asset}`}
        alt=""
        className="absolute top-0 left-0 max-w-none origin-top-left"
        style={{
          width: p.width,
          height: p.height,
          imageRendering: 'pixelated',
          transform: `translate(${SIZE / 2 - at[0] * TIMES}px, ${SIZE / 2 - at[1] * TIMES}px) scale(${TIMES})`,
        }}
      />
      <svg className="absolute inset-0" width={SIZE} height={SIZE}>
        <path
          d={`M0 ${SIZE / 2}H${SIZE / 2 - 6}M${SIZE / 2 + 6} ${SIZE / 2}H${SIZE}M${SIZE / 2} 0V${SIZE / 2 - 6}M${SIZE / 2} ${SIZE / 2 + 6}V${SIZE}`}
          stroke="var(--cut)"
          strokeWidth={1.2}
        />
        <circle cx={SIZE / 2} cy={SIZE / 2} r={1.5} fill="var(--cut)" />
      </svg>
    </div>
  )
}
