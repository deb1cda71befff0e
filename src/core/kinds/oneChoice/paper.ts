import { choicePaper } from '../choicePaper';
import type { StudentOneChoice } from './schema';

export const oneChoicePaper = choicePaper(({ options }: StudentOneChoice) => options, 1);
