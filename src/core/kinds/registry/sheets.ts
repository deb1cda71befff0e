// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesSheet } from '../categories/sheet';
import { fileSheet } from '../file/sheet';
import { gapsSheet } from '../gaps/sheet';
import { matchingSheet } from '../matching/sheet';
import { numberSheet } from '../number/sheet';
import { oneChoiceSheet } from '../oneChoice/sheet';
import { openTextSheet } from '../openText/sheet';
import { orderingSheet } from '../ordering/sheet';
import { severalChoicesSheet } from '../severalChoices/sheet';
import { shortTextSheet } from '../shortText/sheet';
import { trueFalseSheet } from '../trueFalse/sheet';
import { workingSheet } from '../working/sheet';

export const sheets = {
  oneChoice: oneChoiceSheet,
  severalChoices: severalChoicesSheet,
  trueFalse: trueFalseSheet,
  shortText: shortTextSheet,
  number: numberSheet,
  gaps: gapsSheet,
  matching: matchingSheet,
  ordering: orderingSheet,
  categories: categoriesSheet,
  openText: openTextSheet,
  working: workingSheet,
  file: fileSheet,
};
