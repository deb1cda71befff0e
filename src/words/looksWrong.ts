import type { LooksWrong, LooksWrongCode } from '@/core/analysis/looksWrong';
import { counted, percent, points } from './format';

/** What looks wrong, in a few words. */
export const looksWrongTitle: Record<LooksWrongCode, string> = {
  wrongKey: 'Is the key wrong?',
  twoRight: 'Are two options right?',
  acceptIt: 'Should this be accepted?',
  nobody: 'Hardly anyone gets it',
  everybody: 'Everyone gets it',
  doesNotTell: 'Strong students do no better than weak ones',
  undrawn: 'An option nobody chose',
  formOnly: 'Right but for the form',
  lineNobody: 'A scheme line nobody meets',
  lineEverybody: 'A scheme line everyone meets',
  noTime: 'Many ran out of time',
  markerApart: 'One marker differs',
  groupApart: 'One group differs',
};

/** Its figures in a sentence. @param nameOf what a marker is called */
export function looksWrongWords(found: LooksWrong, nameOf: (markerId: string) => string): string {
  switch (found.code) {
    case 'wrongKey':
      return `${drawnWords(found.category)}, more than chose the key “${found.keyed.label}”, and they are the stronger students.`;
    case 'twoRight':
      return `${drawnWords(found.category)}, about as many strong students as chose the key “${found.keyed.label}”.`;
    case 'acceptIt':
      return `${counted(found.category.count, 'student')} answered “${found.category.label}”, ${found.category.thirds[2]} of them in the strongest third. It isn’t accepted.`;
    case 'nobody':
      return `The class has ${percent(found.facility)} of its points. Too hard, not taught, or a wrong key.`;
    case 'everybody':
      return `The class has ${percent(found.facility)} of its points, so it tells nobody apart. That may be just what you want.`;
    case 'doesNotTell':
      return `Points here hardly go with the rest of the paper (discrimination ${points(found.discrimination)}). It may be unclear, guessed, or about something else.`;
    case 'undrawn':
      return `Nobody chose “${found.category.label}”. It could be left out or replaced.`;
    case 'formOnly':
      return `${counted(found.answers, 'answer')} would have more points with another unit, number of figures, case or accent.`;
    case 'lineNobody':
      return `None of ${counted(found.line.marked, 'marked answer')} met “${found.line.text}”.`;
    case 'lineEverybody':
      return `All ${counted(found.line.marked, 'marked answer')} met “${found.line.text}”.`;
    case 'noTime':
      return `${found.students} of ${counted(found.of, 'student')} left this question and everything after it blank.`;
    case 'markerApart':
      return `${nameOf(found.markerId)} gave ${points(Math.abs(found.difference))} ${found.difference < 0 ? 'less' : 'more'} than the others on average, for students who did equally well otherwise (${counted(found.answers, 'answer')}).`;
    case 'groupApart':
      return `Students of ${found.group} do ${found.delta < 0 ? 'better' : 'worse'} here than others with equal totals (Δ ${points(found.delta)}). It may be how or when it was taught.`;
  }
}

const drawnWords = ({ count, label, thirds }: { count: number; label: string; thirds: readonly number[] }) =>
  `${counted(count, 'student')} chose “${label}” (${thirds[2]} of the strongest third)`;
