import { assertNever } from '../../basics/assertNever';
import { numberFrom } from './numberFrom';
import type { AcceptedNumber, NumberQuestion, Unit } from './schema';

/** The lowest and the highest number that an accepted one takes; null while it is not filled in. */
export function boundsOf(accepted: AcceptedNumber): [low: number, high: number] | null {
  const { form, value, tolerance, upTo } = accepted;
  if (value === null) return null;
  switch (form) {
    case 'exact':
      return [value, value];
    case 'plusMinus':
      return [value - tolerance, value + tolerance];
    case 'percent': {
      const margin = (Math.abs(value) * tolerance) / 100;
      return [value - margin, value + margin];
    }
    case 'range':
      return upTo === null ? null : [Math.min(value, upTo), Math.max(value, upTo)];
    default:
      return assertNever(form);
  }
}

/** What the key says of a number as it was written. */
export interface NumberVerdict {
  /** Of those that take it, the most generous; none takes it: undefined. */
  met: AcceptedNumber | undefined;
  /** With what a wrong number of figures costs taken off. */
  share: number;
}

const wrong: NumberVerdict = { met: undefined, share: 0 };

/**
 * Holds a written number against the accepted ones. A number in another unit is turned into the first unit by its
 * factor; the ends of a tolerance or range count as within, a part in 10⁹ more for binary rounding.
 */
export function numberVerdict(question: NumberQuestion, text: string): NumberVerdict {
  const written = numberFrom(text);
  if (!written) return wrong;
  const factor = factorOf(question, written.unit);
  if (factor === null) return wrong;
  const value = written.value * factor;
  const met = question.accepted
    .filter((accepted) => takes(accepted, value))
    .reduce<AcceptedNumber | undefined>(
      (best, each) => (best && best.share >= each.share ? best : each),
      undefined,
    );
  if (!met) return wrong;
  const { figures } = question;
  const asked =
    figures === null ||
    (figures.of === 'decimals'
      ? written.decimals === figures.count
      : written.significant !== null &&
        written.significant.least <= figures.count &&
        figures.count <= written.significant.most);
  return { met, share: asked ? met.share : met.share * (1 - figures.cost) };
}

function takes(accepted: AcceptedNumber, value: number): boolean {
  const bounds = boundsOf(accepted);
  if (!bounds) return false;
  const rounding = Math.max(Math.abs(bounds[0]), Math.abs(bounds[1]), Math.abs(value)) * 1e-9;
  return value >= bounds[0] - rounding && value <= bounds[1] + rounding;
}

/** By what a number with this unit is multiplied; null when it cannot be taken with it. */
function factorOf(question: NumberQuestion, unit: string): number | null {
  if (question.unitAsked === 'none') return unit === '' ? 1 : null;
  if (unit === '') return question.unitAsked === 'optional' ? 1 : null;
  return unitNamed(question.units, unit)?.factor ?? null;
}

/** The unit a text names: capitals and small letters as they are (mW is not MW), else forgiven where only one fits. */
export function unitNamed(units: readonly Unit[], text: string): Unit | undefined {
  const wanted = closedUp(text);
  const exact = units.find((unit) => namesOf(unit).includes(wanted));
  if (exact) return exact;
  const near = units.filter((unit) =>
    namesOf(unit).some((name) => name.toLowerCase() === wanted.toLowerCase()),
  );
  return near.length === 1 ? near[0] : undefined;
}

function namesOf(unit: Unit): string[] {
  return unit.names.split(',').map(closedUp).filter(Boolean);
}

/** Without spaces and a full stop at the end; powers and middle dots in one form ("m s⁻¹", "m·s^-1"). */
function closedUp(text: string): string {
  return text
    .normalize('NFKC')
    .replace(/[\u2212\u2010-\u2015]/g, '-')
    .replace(/[\s^·⋅.]/gu, '');
}
