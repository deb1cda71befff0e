// Made from kindList.ts by `npm run kinds`: change the list, not this.
import { categoriesSample } from '../categories/sample';
import { fileSample } from '../file/sample';
import { gapsSample } from '../gaps/sample';
import { matchingSample } from '../matching/sample';
import { numberSample } from '../number/sample';
import { oneChoiceSample } from '../oneChoice/sample';
import { openTextSample } from '../openText/sample';
import { orderingSample } from '../ordering/sample';
import { severalChoicesSample } from '../severalChoices/sample';
import { shortTextSample } from '../shortText/sample';
import { trueFalseSample } from '../trueFalse/sample';
import { workingSample } from '../working/sample';

export const samples = {
  oneChoice: oneChoiceSample,
  severalChoices: severalChoicesSample,
  trueFalse: trueFalseSample,
  shortText: shortTextSample,
  number: numberSample,
  gaps: gapsSample,
  matching: matchingSample,
  ordering: orderingSample,
  categories: categoriesSample,
  openText: openTextSample,
  working: workingSample,
  file: fileSample,
};
