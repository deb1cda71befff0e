// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesView } from '../categories';
import { fileView } from '../file';
import { gapsView } from '../gaps';
import { matchingView } from '../matching';
import { numberView } from '../number';
import { oneChoiceView } from '../oneChoice';
import { openTextView } from '../openText';
import { orderingView } from '../ordering';
import { severalChoicesView } from '../severalChoices';
import { shortTextView } from '../shortText';
import { trueFalseView } from '../trueFalse';
import { workingView } from '../working';

export const views = {
  oneChoice: oneChoiceView,
  severalChoices: severalChoicesView,
  trueFalse: trueFalseView,
  shortText: shortTextView,
  number: numberView,
  gaps: gapsView,
  matching: matchingView,
  ordering: orderingView,
  categories: categoriesView,
  openText: openTextView,
  working: workingView,
  file: fileView,
};
