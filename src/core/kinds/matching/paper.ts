import { pairsPaper } from '../pairsPaper';

export const matchingPaper = pairsPaper;
