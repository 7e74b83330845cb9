import { strToU8, zipSync } from 'fflate'
import { readFile } from 'node:fs/promises'
import { describe, expect, it } from 'vitest'
import { readAside } from './reader'

/** A file that was found to hang, kill or mislead a reader. */
const damaged = async (name: string) =>
  new Uint8Array(await readFile(new URL(`../../core/testing/damaged/${name}`, import.meta.url)))
const bytes = (text: string) => new TextEncoder().encode(text)

describe("what a stranger's file does, ends with a sentence", () => {
  it.each([
    ['bodies', 'stray-brace.ifc', /takes too long|damaged/],
    ['bodies', 'header.ifc', /no body in the IFC file/],
    ['bodies', 'nodata.ifc', /ends before its end/],
    ['bodies', 'hundred-million.glb', /too many corners/],
    ['site', 'damaged-zstd.tif', /takes too long|cannot be read|needs more/],
    ['site', 'damaged-lzw.tif', /cannot be read|takes too long|too many|no heights/],
    ['site', 'array.dxf', /too many things in its block arrays/],
    ['site', 'blocks-in-blocks.dxf', /too many things/],
    ['site', 'bulge.dxf', /no point, line or closed polyline/],
    ['site', 'far.geojson', /lies outside of what EPSG:4326 can say/],
  ] as const)('%s of %s', async (what, name, sentence) => {
    await expect(readAside(what, name, await damaged(name))).rejects.toThrow(sentence)
  })
  it('a project file is counted before it is unpacked', async () => {
    const bomb = zipSync({
      'project.json': strToU8('{}'),
      ...Object.fromEntries(
        Array.from({ length: 3 }, (_, i) => [
          `assets/${i}`,
          [new Uint8Array(60_000_000), { level: 1 }] as [Uint8Array, { level: 1 }],
        ]),
      ),
    })
    await expect(readAside('project', 'bomb.geotome', bomb)).rejects.toThrow(
      'Unpacked, the file would have over 150 MB',
    )
    const text = zipSync({ 'project.json': [strToU8(`[${'[],'.repeat(14_000_000)}[]]`), { level: 6 }] })
    await expect(readAside('project', 'text.geotome', text)).rejects.toThrow('Unpacked, the file would have over 32 MB')
  })
  it('lines that cross one another without end are refused before they are stored', async () => {
    const rows = Array.from(
      { length: 1500 },
      (_, i) => `A${i},${i},-1,0\nA${i},${i},3000,0\nB${i},-1,${i},0\nB${i},3000,${i},0`,
    )
    await expect(readAside('site', 'cross.csv', bytes(`line,x,y,z\n${rows.join('\n')}`))).rejects.toThrow(
      /cross one another too often|takes too long/,
    )
  })
})
