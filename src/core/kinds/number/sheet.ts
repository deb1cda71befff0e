import { keyParts, Unreadable, withoutShare, type SheetKind } from '../sheet/SheetKind';
import { number } from '.';
import { numberFrom } from './numberFrom';
import type { AcceptedNumber, NumberQuestion } from './schema';

export const numberSheet: SheetKind<NumberQuestion> = {
  turn: 70,
  suits: ({ options, key }) => options.length === 0 && keyParts(key).some((part) => numberKey(part) !== null),
  read: (empty, { key }, newId) => {
    const read = keyParts(key).map((text) => {
      const part = numberKey(text);
      if (!part) throw new Unreadable('badNumber', text);
      return part;
    });
    const unit = read.find((each) => each.unit)?.unit ?? '';
    return {
      ...empty,
      accepted: read.length > 0 ? read.map(({ accepted }) => ({ ...accepted, id: newId() })) : empty.accepted,
      ...(unit && { unitAsked: 'optional', units: [{ id: newId(), names: unit, factor: 1 }] }),
    };
  },
  cells: (question) => ({ options: [], key: number.keyText(question) }),
  fromAnswers: {
    turn: 50,
    suits: ({ texts }) =>
      texts.length > 0 && texts.filter((text) => numberFrom(text) !== null).length * 5 >= texts.length * 4,
    read: (empty) => empty,
  },
};

/** "15", "15 ± 0.5 nm", "240 ± 2 %", "6.9 to 7.1", with "(50 %)" for a share of the points. */
function numberKey(text: string): { accepted: AcceptedNumber; unit: string } | null {
  const [rest, share] = withoutShare(text);
  const accepted = (part: Partial<AcceptedNumber>): AcceptedNumber => ({
    id: '',
    form: 'exact',
    value: null,
    tolerance: 0,
    upTo: null,
    share,
    comment: '',
    ...part,
  });
  const [left = '', right, ...more] = rest.split(/\s*±\s*|\s*\+\/-\s*/);
  const from = numberFrom(left);
  if (more.length > 0) return null;
  if (right !== undefined) {
    const margin = numberFrom(right);
    if (!from || !margin) return null;
    const percent = margin.unit === '%';
    const form = percent ? 'percent' : 'plusMinus';
    const unit = percent ? from.unit : from.unit || margin.unit;
    return { accepted: accepted({ form, value: from.value, tolerance: Math.abs(margin.value) }), unit };
  }
  const ends = rest.split(/\s+to\s+|\s*…\s*|\s*\.\.\.?\s*/);
  const [low, high] = ends.map((end) => numberFrom(end));
  if (ends.length === 2)
    return low && high
      ? { accepted: accepted({ form: 'range', value: low.value, upTo: high.value }), unit: high.unit }
      : null;
  return from ? { accepted: accepted({ value: from.value }), unit: from.unit } : null;
}
