import fc from 'fast-check'

/**
 * Random cases are drawn from one seed, so that a change is held up only by what it did; `npm run random` draws others.
 * GEOTOME_SEED: another seed, as a failing test says it.
 */
fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(process.env.GEOTOME_SEED ?? 20260815) })
