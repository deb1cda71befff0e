export { pairsFilling as matchingFilling } from '../pairsFilling';
