import type { Unit } from './schemas'

/** What is shown as an example where a person types, by the unit of the project: a plain number there is one of that unit. */
export interface Examples {
  /** a step of drags */ stride: string
  /** corners of a site of some 600 m2 */ corners: string
  /** legs of a walk around a site */ legs: string
  /** heights of first storeys */ heights: string
  /** an area that is sought */ area: string
  /** lines of a brief */ brief: string
}

const brief = (homes: string, flat: string) =>
  `homes\t${homes}\t5 %\nflats, homes\t80\t\tat least\t${flat}\nratio\t2.5\t\tat most`

export const EXAMPLES: Record<Unit, Examples> = {
  m: {
    stride: '0.1 m',
    corners: '0, 0\n28, 0\n31, 19\n2, 22',
    legs: '9.4 east\n5.6 north\n3.7 west',
    heights: '0.6, 5.1',
    area: '6200',
    brief: brief('6,200', '65'),
  },
  mm: {
    stride: '100 mm',
    corners: '0, 0\n28000, 0\n31000, 19000\n2000, 22000',
    legs: '9400 east\n5600 north\n3700 west',
    heights: '600, 5100',
    area: '6200',
    brief: brief('6,200', '65'),
  },
  ft: {
    stride: '6"',
    corners: `0, 0\n92', 0\n101' 6", 62'\n6' 6", 72'`,
    legs: `31' east\n18' 6" north\n12' west`,
    heights: `2', 16' 9"`,
    area: '66700',
    brief: brief('66,700', '700'),
  },
}
