import dayjs from 'dayjs';

/** The value of a date and time field, in local time, and back to an instant. */
export const toLocalField = (instant: string) => dayjs(instant).format('YYYY-MM-DDTHH:mm');
export const fromLocalField = (value: string) => (dayjs(value).isValid() ? dayjs(value).toISOString() : null);
