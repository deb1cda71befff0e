import { choicePaper } from '../choicePaper';
import { trueFalseOptions } from './options';
import type { StudentTrueFalse } from './schema';

export const trueFalsePaper = choicePaper((_question: StudentTrueFalse) => trueFalseOptions, 1);
