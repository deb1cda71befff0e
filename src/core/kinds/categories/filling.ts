export { pairsFilling as categoriesFilling } from '../pairsFilling';
