import dayjs from 'dayjs';
import { counted } from '@/core/counted';
import { pointsFrom } from '@/core/marking/typedPoints';

const day = new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short' });
const time = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
const wholeDay = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
const decimals = new Intl.NumberFormat(undefined, { maximumFractionDigits: 2 });
const wholePercent = new Intl.NumberFormat(undefined, { style: 'percent', maximumFractionDigits: 0 });

/** "14:02" */
export const clockTime = (instant: string | number) => time.format(new Date(instant));

const timeWithSeconds = new Intl.DateTimeFormat(undefined, {
  hour: '2-digit',
  minute: '2-digit',
  second: '2-digit',
});

/** "14:02:07" */
export const clockSeconds = (instant: string | number) => timeWithSeconds.format(new Date(instant));

/** "1:05": minutes and seconds. */
export function clockLength(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/** "today 14:02", "Fri 27 Nov 18:00": in the reader's own style. */
export function dayAndTime(instant: string | number, now: number): string {
  const at = dayjs(instant);
  const today = dayjs(now);
  if (at.isSame(today, 'day')) return `today ${clockTime(instant)}`;
  if (at.isSame(today.add(1, 'day'), 'day')) return `tomorrow ${clockTime(instant)}`;
  if (at.isSame(today.subtract(1, 'day'), 'day')) return `yesterday ${clockTime(instant)}`;
  return `${day.format(at.toDate())} ${clockTime(instant)}`;
}

/** "2.5": at most two decimals, in the reader's own style. */
export const points = (value: number) => decimals.format(value);

/** "28 Oct 2026": the day alone. */
export const dayAlone = (instant: string | number) => wholeDay.format(new Date(instant));

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

/** "62 %" */
export const percent = (share: number) => wholePercent.format(share);

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

/** The value of a date and time field, in local time, and back to an instant. */
export const toLocalField = (instant: string) => dayjs(instant).format('YYYY-MM-DDTHH:mm');
export const fromLocalField = (value: string) => (dayjs(value).isValid() ? dayjs(value).toISOString() : null);

export { pointsFrom };

export { counted };
