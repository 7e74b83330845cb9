import { numbersOf, type Project, type Scheme } from '../../project'
import { siteRing } from '../../ground'
import { sideNames } from '../../solid'
import { tidy } from '../../values'
import type { Mover } from './mover'

/** m that a side may be set back by at most */
const MOST = 60

/**
 * The setbacks of the site, by side, and of all sides at once where they are the same: where a rule grows within them. The site is the
 * project's: what is found holds for all schemes.
 */
export function siteMovers(project: Project, scheme: Scheme): Mover[] {
  const { site } = project
  const follows = Object.values(scheme.rules).some((r) => r.steps.some((s) => s.step === 'site' && s.on))
  if (!site || !follows) return []
  const numbers = numbersOf(project, scheme)
  const names = sideNames(siteRing(site, numbers))
  const given = site.corners.map((c) => numbers.length(c.setback))
  const mover = (key: string, label: string, now: number, sides: (i: number) => boolean): Mover => ({
    key: `setback:${key}`,
    label,
    quantity: 'length',
    whole: false,
    now,
    from: 0,
    to: MOST,
    edit: ({ site: is }, _, value) => ({
      edit: 'project.change',
      set: {
        site: is && { ...is, corners: is.corners.map((c, i) => (sides(i) ? { ...c, setback: tidy(value) } : c)) },
      },
    }),
  })
  const plain = site.corners.every((c) => typeof c.setback === 'number')
  const [first] = given
  return [
    ...(plain && first !== undefined && given.every((g) => g === first)
      ? [mover('all', 'site, setback of all sides', first, () => true)]
      : []),
    ...site.corners.flatMap(({ id, setback }, i) =>
      // What a formula gives is moved by the dials in it.
      typeof setback === 'number' ? [mover(id, `site, setback of the ${names[i]}`, setback, (k) => k === i)] : [],
    ),
  ]
}
