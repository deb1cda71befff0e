import { PrintedGaps } from '../printed';

export const Printed = PrintedGaps;
