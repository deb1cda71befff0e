// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { Edit as categories } from '../categories/Edit';
import { Edit as file } from '../file/Edit';
import { Edit as gaps } from '../gaps/Edit';
import { Edit as matching } from '../matching/Edit';
import { Edit as number } from '../number/Edit';
import { Edit as oneChoice } from '../oneChoice/Edit';
import { Edit as openText } from '../openText/Edit';
import { Edit as ordering } from '../ordering/Edit';
import { Edit as severalChoices } from '../severalChoices/Edit';
import { Edit as shortText } from '../shortText/Edit';
import { Edit as trueFalse } from '../trueFalse/Edit';
import { Edit as working } from '../working/Edit';

export const editors = {
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
