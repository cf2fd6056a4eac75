/** What the content of files tells, on the server and in the browser alike. */

export { type Bytes, factsOf } from './facts-of';
