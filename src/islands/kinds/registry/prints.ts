// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { Printed as categories } from '../categories/Print';
import { Printed as file } from '../file/Print';
import { Printed as gaps } from '../gaps/Print';
import { Printed as matching } from '../matching/Print';
import { Printed as number } from '../number/Print';
import { Printed as oneChoice } from '../oneChoice/Print';
import { Printed as openText } from '../openText/Print';
import { Printed as ordering } from '../ordering/Print';
import { Printed as severalChoices } from '../severalChoices/Print';
import { Printed as shortText } from '../shortText/Print';
import { Printed as trueFalse } from '../trueFalse/Print';
import { Printed as working } from '../working/Print';

export const prints = {
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
