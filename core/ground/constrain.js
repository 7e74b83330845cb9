// The package's types are its own sources, which are looser than this house; constrain.d.ts says what is used of it.
export { default } from '@kninnug/constrainautor'
