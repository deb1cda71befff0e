import { useEffect, useRef } from 'react';
import { optionLetter } from '@/core/kinds/optionLetter';
import { clearedPoints, givenPoints } from '@/core/marking/markChanges';
import { schemeOf } from '@/core/marking/scheme';
import { withLineSwitched } from '@/core/marking/switchLine';
import { fullName } from '@/core/model/names';
import type { Seat } from '@/core/seats/seats';
import { actWhenRoom, say } from '@/desk/act';
import type { Shortcut } from '@/desk/Help';
import type { SittingData } from '@/desk/useSitting';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { points } from '@/words/format';
import { earlierId } from './EarlierPapers';
import { refusedWords } from './markWords';
import { besideId } from './ScriptsBlock';
import { isPointKey, useKeyedPoints } from './useKeyedPoints';

export const scriptShortcuts: Shortcut[] = [
  { keys: '↑  ↓', does: 'go to the previous or next question' },
  { keys: '←  →', does: 'go to the script of the previous or next student' },
  { keys: '0–9 . , /', does: 'give points to the answer you are at' },
  { keys: 'A–Z', does: 'switch a scheme line of it' },
  { keys: 'Backspace', does: 'clear its points' },
  { keys: 'Enter', does: 'write a comment; Escape goes back' },
  { keys: 'F6', does: 'go to the other papers of this student' },
  { keys: 'F7', does: 'choose a script to stand beside' },
];

interface ScriptKeysProps {
  sitting: SittingData;
  seat: Seat;
  seats: Seat[];
  hrefOf: (studentId: string) => string;
}

/** One whole script worked by keys, as the list of answers is: they act on the question that has the focus. */
export function ScriptKeys({ sitting, seat, seats, hrefOf }: ScriptKeysProps) {
  const keyed = useKeyedPoints();
  const onKey = useRef<(event: KeyboardEvent) => boolean>(() => false);
  useEffect(() => {
    const sections = () => [...document.querySelectorAll<HTMLElement>('[data-question]')];
    const here = () => sections().find((each) => each.contains(document.activeElement));
    const go = (by: number) => {
      const all = sections();
      const at = here();
      const next = all[at ? all.indexOf(at) + by : by > 0 ? 0 : all.length - 1];
      next?.focus();
      next?.scrollIntoView({ block: 'nearest' });
    };
    const student = (by: number) => {
      const next = seats[seats.indexOf(seat) + by];
      if (next) window.location.assign(hrefOf(next.student.id));
    };
    const keep = (questionId: string, step: MarkStep, said: string, joins?: string) => {
      const place = { sittingId: sitting.sitting.id, questionId, attemptIds: [seat.attempt?.id ?? ''] };
      const whole = `${fullName(seat.student)}: ${said}`;
      void actWhenRoom(() => markAnswers(place, step, whole, isoNow(), joins));
    };
    onKey.current = ({ key, timeStamp }) => {
      if (key === 'ArrowDown') go(1);
      else if (key === 'ArrowUp') go(-1);
      else if (key === 'ArrowRight') student(1);
      else if (key === 'ArrowLeft') student(-1);
      else if (key === 'F6') document.querySelector<HTMLElement>(`#${earlierId} a`)?.focus();
      else if (key === 'F7') document.getElementById(besideId)?.focus();
      else {
        const section = here();
        const question = sitting.questions.find(({ id }) => id === section?.dataset.question);
        if (!section || !question) return false;
        const line = schemeOf(question)[key.toUpperCase().charCodeAt(0) - 65];
        if (isPointKey(key)) {
          const { refused, points: worth } = keyed.type(key, question.id, question, false, timeStamp).typed;
          if (refused) say(refusedWords(refused.why, refused.typed, question), true);
          else if (worth !== null)
            keep(
              question.id,
              givenPoints(worth),
              `${points(worth)} of ${points(question.points)}`,
              `script-${question.id}-${seat.student.id}`,
            );
          return true;
        }
        keyed.forget();
        if (/^[a-z]$/i.test(key) && line)
          keep(
            question.id,
            (before) => withLineSwitched(question, before, [before], line.id),
            `line ${optionLetter(schemeOf(question).indexOf(line))} switched`,
          );
        else if (key === 'Backspace' || key === 'Delete') keep(question.id, clearedPoints, 'points cleared');
        else if (key === 'Enter') section.querySelector<HTMLElement>('textarea')?.focus();
        else return false;
      }
      return true;
    };
  });
  useEffect(() => {
    const keyDown = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || !(event.target instanceof HTMLElement)) return;
      const { target } = event;
      const written = target.closest('textarea, select, input, [role="dialog"], [data-own-keys]');
      if (written) {
        if (event.key === 'Escape' && target.matches('textarea'))
          target.closest<HTMLElement>('[data-question]')?.focus();
        return;
      }
      if ((event.key === 'Enter' || event.key === ' ') && target.closest('button, a, summary')) return;
      if (onKey.current(event)) event.preventDefault();
    };
    document.addEventListener('keydown', keyDown);
    return () => document.removeEventListener('keydown', keyDown);
  }, []);
  return null;
}
