/** Whole minutes as they are kept; empty: none. */
export const forgivenFrom = (minutes: string | number): number | undefined =>
  Number(minutes) >= 1 ? Math.min(1440, Math.round(Number(minutes))) * 60_000 : undefined;
