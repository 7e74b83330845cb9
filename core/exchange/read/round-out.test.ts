import { describe, expect, it } from 'vitest'
import { volumeOf } from '../../solid'
import { readBodies } from './index'

/** An IFC4 file with one body, whose solid is #30. #5 is the place at zero, #9 that in plan, #7 up. */
const ifcOf = (solid: string, type = 'SweptSolid') => `ISO-10303-21;
HEADER;
FILE_DESCRIPTION((''),'2;1');
FILE_NAME('','',(''),(''),'','','');
FILE_SCHEMA(('IFC4'));
ENDSEC;
DATA;
#1=IFCPROJECT('0YvctVUKr0kugbFTf53O9L',$,'p',$,$,$,$,(#3),#2);
#2=IFCUNITASSIGNMENT((#4));
#4=IFCSIUNIT(*,.LENGTHUNIT.,$,.METRE.);
#3=IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-05,#5,$);
#5=IFCAXIS2PLACEMENT3D(#6,$,$);
#6=IFCCARTESIANPOINT((0.,0.,0.));
#7=IFCDIRECTION((0.,0.,1.));
#8=IFCCARTESIANPOINT((0.,0.));
#9=IFCAXIS2PLACEMENT2D(#8,$);
#10=IFCLOCALPLACEMENT($,#5);
${solid}
#40=IFCSHAPEREPRESENTATION(#3,'Body','${type}',(#30));
#41=IFCPRODUCTDEFINITIONSHAPE($,$,(#40));
#42=IFCBUILDINGELEMENTPROXY('1YvctVUKr0kugbFTf53O9L',$,'body',$,'mass',#10,#41,$,$);
ENDSEC;
END-ISO-10303-21;
`
const raised = (profile: string) => `${profile}\n#30=IFCEXTRUDEDAREASOLID(#20,#5,#7,4.);`
const volume = async (text: string) => {
  const { bodies, remarks } = await readBodies('round.ifc', new TextEncoder().encode(text), false)
  const [body] = bodies
  if (!body) throw new Error('no body')
  expect(body.fault).toBeNull()
  const triangles = Uint32Array.from(body.body.faces.flatMap((f) => f.triangles))
  const positions = Float64Array.from(body.body.corners)
  return { m3: volumeOf({ positions, triangles, facetOf: new Uint32Array(), facets: [] }), remarks }
}
const CIRCLE = '#20=IFCCIRCLEPROFILEDEF(.AREA.,$,#9,5.);'

describe('round bodies of an IFC file keep their volume', () => {
  it.each<[string, string, number, number?]>([
    ['a cylinder', CIRCLE, 100 * Math.PI],
    ['a ring: outside and hole', '#20=IFCCIRCLEHOLLOWPROFILEDEF(.AREA.,$,#9,5.,1.);', 36 * Math.PI],
    ['an ellipse', '#20=IFCELLIPSEPROFILEDEF(.AREA.,$,#9,5.,3.);', 60 * Math.PI, 3e-4],
    [
      'a rectangle with a half disc at its side',
      `#21=IFCCARTESIANPOINTLIST2D(((0.,0.),(10.,0.),(12.,2.),(10.,4.),(0.,4.)));
#22=IFCINDEXEDPOLYCURVE(#21,(IFCLINEINDEX((1,2)),IFCARCINDEX((2,3,4)),IFCLINEINDEX((4,5,1))),$);
#20=IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,#22);`,
      160 + 8 * Math.PI,
    ],
    [
      'a half disc alone',
      `#21=IFCCIRCLE(#9,5.);
#22=IFCTRIMMEDCURVE(#21,(IFCPARAMETERVALUE(0.)),(IFCPARAMETERVALUE(3.14159265)),.T.,.PARAMETER.);
#23=IFCCARTESIANPOINT((-5.,0.));
#24=IFCCARTESIANPOINT((5.,0.));
#25=IFCPOLYLINE((#23,#24));
#26=IFCCOMPOSITECURVESEGMENT(.CONTINUOUS.,.T.,#22);
#27=IFCCOMPOSITECURVESEGMENT(.CONTINUOUS.,.T.,#25);
#28=IFCCOMPOSITECURVE((#26,#27),.F.);
#20=IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,#28);`,
      50 * Math.PI,
    ],
  ])('%s', async (_name, profile, wanted, within = 2e-5) => {
    const { m3 } = await volume(ifcOf(raised(profile)))
    expect(Math.abs(m3 / wanted - 1)).toBeLessThan(within)
  })
  it('turned on its side and by an odd angle', async () => {
    const leant = raised(CIRCLE).replace('#30=IFCEXTRUDEDAREASOLID(#20,#5', '#30=IFCEXTRUDEDAREASOLID(#20,#15')
    const place =
      '#13=IFCDIRECTION((0.3,0.8,0.1));\n#14=IFCDIRECTION((0.8,-0.3,0.));\n#15=IFCAXIS2PLACEMENT3D(#6,#13,#14);'
    const { m3 } = await volume(ifcOf(`${place}\n${leant}`))
    expect(Math.abs(m3 / (100 * Math.PI) - 1)).toBeLessThan(2e-5)
  })
  it('leaves a polygon as it was drawn, and a faceted body of any number of sides', async () => {
    const n = 60
    const at = (i: number) => [5 * Math.cos((2 * Math.PI * i) / n), 5 * Math.sin((2 * Math.PI * i) / n)]
    const list = (z: number) =>
      Array.from(
        { length: n },
        (_, i) =>
          `(${at(i)
            .map((c) => c.toFixed(9))
            .join()},${z}.)`,
      )
    const sides = Array.from({ length: n }, (_, i) => [i + 1, ((i + 1) % n) + 1] as const).flatMap(([a, b]) => [
      `(${a},${b},${b + n})`,
      `(${a},${b + n},${a + n})`,
    ])
    const caps = Array.from({ length: n - 2 }, (_, i) => [
      `(1,${i + 3},${i + 2})`,
      `(${n + 1},${n + i + 2},${n + i + 3})`,
    ]).flat()
    const faces = `#21=IFCCARTESIANPOINTLIST3D((${[...list(0), ...list(4)].join()}));\n#30=IFCTRIANGULATEDFACESET(#21,$,.T.,(${[...sides, ...caps].join()}),$);`
    const { m3 } = await volume(ifcOf(faces, 'Tessellation'))
    expect(m3).toBeCloseTo(4 * 0.5 * n * 25 * Math.sin((2 * Math.PI) / n), 3)
  })
  it('says where it cannot: a quarter of a cone is read a little smaller', async () => {
    const { m3, remarks } = await volume(ifcOf(revolved(CONE, Math.PI / 2)))
    expect(m3 / (12.5 * Math.PI)).toBeGreaterThan(0.99)
    expect(remarks).toEqual([expect.stringContaining('smaller')])
  })
})

/** A profile (#20) turned about the y axis of its plane. */
const revolved = (profile: string, angle: number) => `${profile}
#24=IFCCARTESIANPOINT((0.,0.,0.));
#25=IFCDIRECTION((0.,1.,0.));
#26=IFCAXIS1PLACEMENT(#24,#25);
#30=IFCREVOLVEDAREASOLID(#20,#15,#26,${angle});
#13=IFCDIRECTION((0.3,0.8,0.1));
#14=IFCDIRECTION((0.8,-0.3,0.));
#17=IFCCARTESIANPOINT((12.,-7.,3.));
#15=IFCAXIS2PLACEMENT3D(#17,#13,#14);`
const CONE = `#21=IFCCARTESIANPOINT((0.,0.));
#22=IFCCARTESIANPOINT((5.,0.));
#23=IFCCARTESIANPOINT((0.,6.));
#27=IFCPOLYLINE((#21,#22,#23,#21));
#20=IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,#27);`

describe('turned bodies of an IFC file keep their volume, leaning at an odd angle', () => {
  it.each<[string, string, number]>([
    ['a cone', revolved(CONE, 2 * Math.PI), 50 * Math.PI],
    [
      'a ring of round section',
      revolved(
        '#21=IFCCARTESIANPOINT((10.,0.));\n#22=IFCAXIS2PLACEMENT2D(#21,$);\n#20=IFCCIRCLEPROFILEDEF(.AREA.,$,#22,2.);',
        2 * Math.PI,
      ),
      80 * Math.PI ** 2,
    ],
    [
      'a ball from half a disc',
      revolved(
        `#21=IFCCIRCLE(#9,5.);
#22=IFCTRIMMEDCURVE(#21,(IFCPARAMETERVALUE(-1.5707963)),(IFCPARAMETERVALUE(1.5707963)),.T.,.PARAMETER.);
#23=IFCCARTESIANPOINT((0.,5.));
#27=IFCCARTESIANPOINT((0.,-5.));
#28=IFCPOLYLINE((#23,#27));
#29=IFCCOMPOSITECURVESEGMENT(.CONTINUOUS.,.T.,#22);
#31=IFCCOMPOSITECURVESEGMENT(.CONTINUOUS.,.T.,#28);
#32=IFCCOMPOSITECURVE((#29,#31),.F.);
#20=IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,#32);`,
        2 * Math.PI,
      ),
      (500 / 3) * Math.PI,
    ],
    ['a ball by its radius', '#29=IFCSPHERE(#5,5.);\n#30=IFCCSGSOLID(#29);', (500 / 3) * Math.PI],
    ['a cone by its radius', '#29=IFCRIGHTCIRCULARCONE(#5,6.,5.);\n#30=IFCCSGSOLID(#29);', 50 * Math.PI],
  ])('%s', async (_name, solid, wanted) => {
    const { m3, remarks } = await volume(ifcOf(solid, solid.includes('CSG') ? 'CSG' : 'SweptSolid'))
    expect(Math.abs(m3 / wanted - 1)).toBeLessThan(2e-5)
    expect(remarks).toEqual([])
  })
})
