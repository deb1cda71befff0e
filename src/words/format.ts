import { once } from 'remeda';
import { counted } from '@/core/basics/counted';
import { pointsFrom } from '@/core/marking/typedPoints';

/** The words are English, so times and numbers among them are too, whatever the browser's own language. */
const locale = 'en';

// Each is made when it is first used: together they take longer than a view does to draw.
const day = once(() => new Intl.DateTimeFormat(locale, { weekday: 'short', day: 'numeric', month: 'short' }));
const relativeDay = once(() => new Intl.RelativeTimeFormat(locale, { numeric: 'auto' }));
const time = once(() => new Intl.DateTimeFormat(locale, { hour: 'numeric', minute: '2-digit' }));
const wholeDay = once(
  () => new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric' }),
);
const decimals = once(() => new Intl.NumberFormat(locale, { maximumFractionDigits: 2 }));
const wholePercent = once(
  () => new Intl.NumberFormat(locale, { style: 'percent', maximumFractionDigits: 0 }),
);

/** "2:02 PM" */
export const clockTime = (instant: string | number) => time().format(new Date(instant));

const timeWithSeconds = once(
  () =>
    new Intl.DateTimeFormat(locale, {
      hour: 'numeric',
      minute: '2-digit',
      second: '2-digit',
    }),
);

/** "2:02:07 PM" */
export const clockSeconds = (instant: string | number) => timeWithSeconds().format(new Date(instant));

/** "1:05": minutes and seconds. */
export function clockLength(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

const dayNumber = (instant: string | number) => {
  const at = new Date(instant);
  return Date.UTC(at.getFullYear(), at.getMonth(), at.getDate()) / 86_400_000;
};

/** "today 2:02 PM", "Fri, Nov 27 6:00 PM", "Nov 27, 2025 6:00 PM": the year where it is another one. */
export function dayAndTime(instant: string | number, now: number): string {
  const apart = dayNumber(instant) - dayNumber(now);
  if (Math.abs(apart) <= 1) return `${relativeDay().format(apart, 'day')} ${clockTime(instant)}`;
  const sameYear = new Date(instant).getFullYear() === new Date(now).getFullYear();
  return `${(sameYear ? day() : wholeDay()).format(new Date(instant))} ${clockTime(instant)}`;
}

/** "2.5": at most two decimals. */
export const points = (value: number) => decimals().format(value);

/** "Oct 28, 2026": the day alone. */
export const dayAlone = (instant: string | number) => wholeDay().format(new Date(instant));

/** "16", or "12 to 14" where it is not the same for everyone. */
export const pointsRange = ({ least, most }: { least: number; most: number }) =>
  least === most ? points(least) : `${points(least)} to ${points(most)}`;

/** "1 point", "12 to 14 points" */
export const pointsWords = ({ least, most }: { least: number; most: number }) =>
  least === most ? counted(least, 'point') : `${points(least)} to ${counted(most, 'point')}`;

/** "640 KB", "2.1 MB" */
export function fileSize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  return bytes < 1_000_000
    ? `${points(Math.round(bytes / 1000))} KB`
    : `${points(Math.round(bytes / 100_000) / 10)} MB`;
}

/** "62%" */
export const percent = (share: number) => wholePercent().format(share);

/** "42 min", "1 h 05 min" */
export function duration(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  return minutes < 60
    ? `${minutes} min`
    : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
}

/** "09:41" left, or "1:09:41". */
export function countdown(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000));
  const two = (value: number) => String(value).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  const rest = `${two(Math.floor((seconds % 3600) / 60))}:${two(seconds % 60)}`;
  return hours ? `${hours}:${rest}` : rest;
}

export { pointsFrom };

export { counted };
