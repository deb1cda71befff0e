import { inFigures, isIn, type Seat } from '../seats/seats';

/** The totals of everyone whose result is whole, in points: guests apart. */
export const wholeTotals = (seats: readonly Seat[]): number[] =>
  inFigures(seats).flatMap((seat) =>
    isIn(seat) && seat.scorecard?.final === true ? [seat.scorecard.total] : [],
  );
