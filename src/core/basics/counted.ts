import { once } from 'remeda';
const plural = once(() => new Intl.PluralRules('en'));
const decimals = once(() => new Intl.NumberFormat(undefined, { maximumFractionDigits: 2 }));

/** "1 answer", "14 answers": the words of the interface are English, the figure is in the reader's own style. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${decimals().format(count)} ${plural().select(count) === 'one' ? one : many}`;
}
