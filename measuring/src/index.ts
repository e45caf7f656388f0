export { BandMeasurer, bandsOf, nodeOfBand, picturesOf } from './measure-bands.ts'
export { readPixels } from './read-pixels.ts'
