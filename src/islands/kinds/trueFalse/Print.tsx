import { PrintedOptions } from '../printed';
import { trueFalseOptions } from '@/core/kinds/trueFalse/options';

export function Printed() {
  return <PrintedOptions options={[...trueFalseOptions]} several={false} />;
}
