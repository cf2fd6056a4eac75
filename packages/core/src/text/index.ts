/** Text as it travels: CSV, bytes, folding to ASCII. */

export { base64, fromBase64 } from './bytes';
export { csv } from './csv';
export { decodeText } from './decode';
export { nearestOf } from './nearest';
export { shown } from './shown';
