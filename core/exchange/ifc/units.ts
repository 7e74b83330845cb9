import { StepWriter, type Reference, derived, enumeration, int } from './step'

/** Metres, or feet by their definition in metres; angles in radians. */
export function unitsOf(step: StepWriter, feet: boolean): Reference {
  const si = (type: string, name: string) => step.add('IFCSIUNIT', derived, enumeration(type), null, enumeration(name))
  const [metre, square, cubic] = [
    si('LENGTHUNIT', 'METRE'),
    si('AREAUNIT', 'SQUARE_METRE'),
    si('VOLUMEUNIT', 'CUBIC_METRE'),
  ]
  const radian = si('PLANEANGLEUNIT', 'RADIAN')
  if (!feet) return step.add('IFCUNITASSIGNMENT', [metre, square, cubic, radian])
  const by = (type: string, name: string, power: number, of: Reference, measure: string) =>
    step.add(
      'IFCCONVERSIONBASEDUNIT',
      step.add('IFCDIMENSIONALEXPONENTS', ...[power, 0, 0, 0, 0, 0, 0].map(int)),
      enumeration(type),
      name,
      step.add('IFCMEASUREWITHUNIT', step.typed(measure, 0.3048 ** power), of),
    )
  return step.add('IFCUNITASSIGNMENT', [
    by('LENGTHUNIT', 'FOOT', 1, metre, 'IFCLENGTHMEASURE'),
    by('AREAUNIT', 'SQUARE FOOT', 2, square, 'IFCAREAMEASURE'),
    by('VOLUMEUNIT', 'CUBIC FOOT', 3, cubic, 'IFCVOLUMEMEASURE'),
    radian,
  ])
}
