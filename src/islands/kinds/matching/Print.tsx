import { PrintedPairs } from '../printed';

export const Printed = PrintedPairs;
