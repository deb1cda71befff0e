// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categories } from '../categories';
import { file } from '../file';
import { gaps } from '../gaps';
import { matching } from '../matching';
import { number } from '../number';
import { oneChoice } from '../oneChoice';
import { openText } from '../openText';
import { ordering } from '../ordering';
import { severalChoices } from '../severalChoices';
import { shortText } from '../shortText';
import { trueFalse } from '../trueFalse';
import { working } from '../working';

export const kinds = {
  oneChoice,
  severalChoices,
  trueFalse,
  shortText,
  number,
  gaps,
  matching,
  ordering,
  categories,
  openText,
  working,
  file,
};
