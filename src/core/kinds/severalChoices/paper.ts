import { choicePaper } from '../choicePaper';
import type { StudentSeveralChoices } from './schema';

export const severalChoicesPaper = choicePaper(({ options }: StudentSeveralChoices) => options, Infinity);
