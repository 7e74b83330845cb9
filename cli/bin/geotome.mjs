#!/usr/bin/env node
import { resolve } from 'node:path'
import { needCli } from '../../scripts/lib/packages.mjs'

await needCli(resolve(import.meta.dirname, '../..'))
const { main } = await import('../dist/main.mjs')
process.exitCode = await main(process.argv.slice(2))
