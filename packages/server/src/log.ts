/** The server's log: lines of JSON, each with the id of the request it belongs to. */
import { type DestinationStream, type Logger, pino } from 'pino';
import { requestId } from './request-context';

export const openLog = (level: string, to?: DestinationStream): Logger =>
  pino({ level, mixin: () => (requestId() === null ? {} : { request: requestId() }) }, to);
