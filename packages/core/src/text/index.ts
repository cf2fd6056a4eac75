/** Text as it travels: CSV, bytes, folding to ASCII. */

export { base64, fromBase64 } from './bytes';
export { csv } from './csv';
export { nearestOf } from './nearest';
