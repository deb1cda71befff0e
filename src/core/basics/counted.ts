import { once } from 'remeda';

const plural = once(() => new Intl.PluralRules('en'));
const decimals = once(() => new Intl.NumberFormat('en', { maximumFractionDigits: 2 }));

/** "1 answer", "14 answers": words and figures are English, like all of the interface. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${decimals().format(count)} ${plural().select(count) === 'one' ? one : many}`;
}
