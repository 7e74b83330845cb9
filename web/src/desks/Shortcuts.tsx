import { Dialog } from '../common/Dialog'
import { GESTURES } from '../stage/gestures'
import { HANDLE_HELP } from '../tools/handles/list'
import { TOOLS } from '../tools/list'
import { isAt, labelOf, VERBS } from '../verbs/list'
import type { Verb } from '../verbs/kind'
import { useNow } from '../verbs/use-now'
import { DESKS } from './list'

type Row = readonly [string, string]

/** Every key and gesture, read from the lists of verbs, tools and handles. */
export function Shortcuts({ onClose }: { onClose: () => void }) {
  const now = useNow()
  const row = (v: Verb): Row[] =>
    v.key && v.help !== ''
      ? [[[v.key, v.also].filter(Boolean).join(', '), v.help ?? labelOf(v, now).toLowerCase()]]
      : []
  const groups: [string, Row[]][] = [
    [
      'Everywhere',
      [
        ...VERBS.filter((v) => v.desks === 'all').flatMap(row),
        ['1 to 6', 'the desks'],
        ['Escape', 'one step back'],
        ['Enter', 'accept'],
      ],
    ],
    ...DESKS.map((d): [string, Row[]] => [
      `At ${d.label}`,
      VERBS.filter((v) => v.desks !== 'all' && isAt(v, d.name)).flatMap(row),
    ]),
    ['Drawing', TOOLS.flatMap((t) => t.help)],
    ['Dragging', [...HANDLE_HELP]],
    ['Views, spine, bench', [...GESTURES]],
  ]
  return (
    <Dialog title="Shortcuts" className="max-w-[1060px] text-[12.5px]" onClose={onClose}>
      <div className="columns-3 gap-7">
        {groups
          .filter(([, rows]) => rows.length)
          .map(([group, rows]) => (
            <section key={group} className="mb-4 break-inside-avoid">
              <h3 className="eyebrow mb-1.5">{group}</h3>
              <dl className="grid grid-cols-[minmax(5.5rem,auto)_1fr] gap-x-3 gap-y-0.5">
                {rows.map(([k, say]) => (
                  <div key={k} className="contents">
                    <dt className="font-semibold">{k}</dt>
                    <dd className="text-ink2">{say}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
      </div>
      <p className="mt-2 text-[12px] text-ink2">
        <a className="underline" href="/notices.txt" target="_blank" rel="noreferrer">
          Notices
        </a>{' '}
        of the libraries and the font that Geotome ships with.
      </p>
    </Dialog>
  )
}
