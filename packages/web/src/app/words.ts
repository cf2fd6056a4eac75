/** Numbers, sizes and times as the reader's locale has them. */
import { formatDistanceToNowStrict } from 'date-fns';

const numbers = new Intl.NumberFormat();
const dates = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });

export const count = (n: number): string => numbers.format(n);
export const many = (n: number, one: string, more = `${one}s`): string => `${count(n)} ${n === 1 ? one : more}`;
export const day = (iso: string): string => dates.format(new Date(iso));
const hours = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });

/** “on 2 March 2026 at 22:00”, by the reader's clock. */
export const sayHour = (at: Date): string => `on ${dates.format(at)} at ${hours.format(at)}`;

/** Milliseconds within which something is called just now. */
const JUST_NOW = 10_000;

export const ago = (iso: string): string =>
  Math.abs(Date.now() - Date.parse(iso)) < JUST_NOW
    ? 'just now'
    : formatDistanceToNowStrict(new Date(iso), { addSuffix: true });

const UNITS = ['bytes', 'kB', 'MB', 'GB', 'TB'];

/** The end of a whole path, which tells it from others; the whole of a short one. */
export function tailOf(path: string): string {
  const parts = path.split(/(?<=[\\/])/);
  return parts.length <= 4 ? path : `…${path.includes('\\') ? '\\' : '/'}${parts.slice(-3).join('')}`;
}

export function size(bytes: number): string {
  let n = bytes;
  let unit = 0;
  while (n >= 1000 && unit < UNITS.length - 1) {
    n /= 1000;
    unit++;
  }
  return `${new Intl.NumberFormat(undefined, { maximumFractionDigits: unit === 0 || n >= 100 ? 0 : 1 }).format(n)} ${UNITS[unit]}`;
}

const moments = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
export const moment = (iso: string): string => moments.format(new Date(iso));
