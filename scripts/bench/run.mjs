import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { buildBench } from '../lib/build-node.mjs'

const root = resolve(import.meta.dirname, '../..')
await buildBench(root)
await import(pathToFileURL(resolve(root, 'dist/bench/main.mjs')).href)
