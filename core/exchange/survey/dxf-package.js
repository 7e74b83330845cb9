// The package has no types; dxf-package.d.ts says what is used of it.
export { denormalise, parseString } from 'dxf'
