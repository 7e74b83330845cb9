import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

// Writes the notices of all packages that ship with Geotome, fonts too: what they are called, who made them, and what their licences ask to be passed on.
const root = resolve(import.meta.dirname, '..')
const read = (path) => JSON.parse(readFileSync(path, 'utf8'))

/** Every package that the workspaces need at run time, with what those need in turn. */
export function shipped() {
  const found = new Map()
  const visit = (name, from) => {
    for (let at = from; ; at = resolve(at, '..')) {
      const folder = join(at, 'node_modules', name)
      if (existsSync(join(folder, 'package.json'))) {
        if (found.has(folder)) return
        const pack = read(join(folder, 'package.json'))
        found.set(folder, pack)
        for (const inner of Object.keys(pack.dependencies ?? {})) visit(inner, folder)
        return
      }
      if (at === root || at === '/') return
    }
  }
  for (const room of ['core', 'server', 'web', 'cli'])
    for (const name of Object.keys(read(join(root, room, 'package.json')).dependencies ?? {}))
      if (!name.startsWith('@geotome/')) visit(name, join(root, room))
  return [...found].map(([folder, pack]) => ({ folder, pack })).sort((a, b) => (a.pack.name < b.pack.name ? -1 : 1))
}

/** The text of all notices; equal licences once. */
export function notices() {
  const texts = new Map()
  for (const { folder, pack } of shipped()) {
    const file = readdirSync(folder).find((f) => /^(licen[cs]e|copying)/i.test(f))
    const licence =
      typeof pack.license === 'string'
        ? pack.license
        : (pack.license?.type ?? pack.licenses?.[0]?.type ?? 'see its page')
    const author = typeof pack.author === 'string' ? pack.author : pack.author?.name
    const text = file
      ? readFileSync(join(folder, file), 'utf8').replace(/\r/g, '').trim()
      : `${licence}${author ? `, by ${author}` : ''}`
    const names = texts.get(text) ?? []
    names.push(`${pack.name} ${pack.version} (${licence})`)
    texts.set(text, names)
  }
  const parts = [...texts].map(([text, names]) => `${[...new Set(names)].join('\n')}\n\n${text}`)
  return `Geotome ships with the following packages.\n\n${parts.join(`\n\n${'-'.repeat(80)}\n\n`)}\n`
}

if (process.argv[1] === import.meta.filename) writeFileSync(join(root, 'web/public/notices.txt'), notices())
