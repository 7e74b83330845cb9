import { resolve } from 'node:path'
import { needCli } from './packages.mjs'

/** Before all tests: the command line's reading thread is what its sources say. */
export const setup = () => needCli(resolve(import.meta.dirname, '../..'))
