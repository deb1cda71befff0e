import { pairsPaper } from '../pairsPaper';

export const categoriesPaper = pairsPaper;
