import { z } from 'zod';
import { Id, Text, type Finding } from '../model/common';
import { shuffled } from '../shuffled';

/** Something to choose, with the comment for whoever chose it. */
export const Option = z.object({
  id: Id,
  text: Text,
  comment: Text,
  /** Keeps its place when options are shuffled. */
  pinned: z.boolean().optional(),
});
export type Option = z.infer<typeof Option>;

/** What the student's side gets of an option: no comment. */
export const StudentOption = z.object({ id: Id, text: Text });
export type StudentOption = z.infer<typeof StudentOption>;

/** A response to a choice question: the ids of what was picked. */
export const PickedResponse = z.object({ picked: z.array(Id).max(100) });
export type PickedResponse = z.infer<typeof PickedResponse>;

export function withoutComments(options: readonly Option[]): StudentOption[] {
  return options.map(({ id, text }) => ({ id, text }));
}

/** A choice question as the student gets it, its options shuffled where it says so. */
export function choiceForStudent(
  question: { options: Option[]; shuffle?: boolean | undefined },
  seed: string,
): { options: StudentOption[] } {
  const { options, shuffle } = question;
  const order = shuffle ? shuffled(options, `${seed} options`, (option) => option.pinned === true) : options;
  return { options: withoutComments(order) };
}

/** Options with new ids, and the way from the old ids to the new. */
export function copiedOptions(options: Option[], newId: () => string) {
  const ids = new Map(options.map((option) => [option.id, newId()]));
  const copies = options.map((option) => ({ ...option, id: ids.get(option.id) ?? option.id }));
  return { copies, ids };
}

/** The letter a reader knows an option by: A, B, … Z, then AA. */
export function optionLetter(index: number): string {
  return index < 26
    ? String.fromCharCode(65 + index)
    : optionLetter(Math.floor(index / 26) - 1) + optionLetter(index % 26);
}

/** "B  ebb stream": the options picked, in their order on the paper. */
export function pickedText(options: readonly StudentOption[], picked: readonly string[]): string {
  return options
    .map((option, index) => (picked.includes(option.id) ? `${optionLetter(index)}  ${option.text}` : ''))
    .filter(Boolean)
    .join('; ');
}

/** What can be wrong with any list of options: too few, empty, or two the same. */
export function optionFindings(questionId: string, options: Option[]): Finding[] {
  const findings: Finding[] = [];
  if (options.length < 2) findings.push({ level: 'stops', code: 'fewOptions', questionId, field: 'options' });
  const seen = new Map<string, number>();
  options.forEach((option, index) => {
    const text = option.text.trim().toLowerCase();
    const field = `option-${option.id}`;
    if (!text)
      findings.push({ level: 'stops', code: 'emptyOption', questionId, field, detail: optionLetter(index) });
    const before = seen.get(text);
    if (text && before !== undefined) {
      const detail = `${optionLetter(before)} and ${optionLetter(index)}`;
      findings.push({ level: 'stops', code: 'equalOptions', questionId, field, detail });
    }
    if (before === undefined) seen.set(text, index);
  });
  return findings;
}
