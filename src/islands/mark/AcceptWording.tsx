import { kindOf, type Question } from '@/core/kinds';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { SittingData } from '@/desk/useSitting';
import { later } from '@/ui/later';
import { useSoonHere } from '@/ui/useSoonHere';

// It brings the repair of keys with it.
const OneWording = later(async () => (await import('./OneWording')).OneWording);
const soonHere = [OneWording];

interface AcceptWordingProps {
  sitting: SittingData;
  question: Question;
  number: string;
  current: SameAnswers;
}

/** A wording that the key does not accept, to be accepted from here: first what that would do, then the change of the key. */
export function AcceptWording({ sitting, question, number, current }: AcceptWordingProps) {
  useSoonHere(soonHere);
  const response = current.answers[0]?.response ?? null;
  const kind = kindOf(question);
  const wordings = response && !current.blank ? (kind.unaccepted?.(question, response) ?? []) : [];
  return wordings.map((wording) => (
    <OneWording key={`${current.id} ${wording.id}`} {...{ sitting, question, number, wording }} />
  ));
}
