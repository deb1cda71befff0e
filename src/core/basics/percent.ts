/** A share in per cent, as few digits as it needs and at most two decimals: 12.5, 33.33. */
export const percentFrom = (share: number): number => Math.round(share * 10_000) / 100;
