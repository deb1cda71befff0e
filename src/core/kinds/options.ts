import { z } from 'zod';
import { Id, Text, type Finding } from '../basics/common';
import { RichText } from '../basics/richText';
import { isEmptyRich, plainText } from '../basics/richWords';
import { shuffled } from '../basics/shuffled';
import { optionLetter } from './optionLetter';

/** Something to choose, with the comment for whoever chose it. */
export const Option = z.object({
  id: Id,
  text: RichText,
  comment: Text,
  /** Keeps its place when options are shuffled. */
  pinned: z.boolean().optional(),
});
export type Option = z.infer<typeof Option>;

/** What the student's side gets of an option: no comment. */
export const StudentOption = z.object({ id: Id, text: RichText });
export type StudentOption = z.infer<typeof StudentOption>;

/** A response to a choice question: the ids of what was picked. */
export const PickedResponse = z.object({ picked: z.array(Id).max(100) });
export type PickedResponse = z.infer<typeof PickedResponse>;

export function withoutComments(options: readonly Option[]): StudentOption[] {
  return options.map(({ id, text }) => ({ id, text }));
}

/** Options as they may be known without the key. */
export const bareOptions = (options: readonly Option[]): Option[] =>
  options.map(({ id, text, pinned }) => ({ id, text, comment: '', ...(pinned !== undefined && { pinned }) }));

/** What a choice question shows, as it may be known without the key. */
export const bareChoice = ({ options, shuffle }: { options: Option[]; shuffle?: boolean | undefined }) => ({
  options: bareOptions(options),
  ...(shuffle !== undefined && { shuffle }),
});

/** What a kind with options answers about them. */
export const ofOptions = {
  richTexts: ({ options }: { options: readonly Option[] }) =>
    options.map(({ id, text }) => ({ rich: text, field: `option-${id}` })),
  withShuffle: <Q extends { options: Option[]; shuffle?: boolean | undefined }>(
    question: Q,
    shuffle: boolean,
  ): Q => ({
    ...question,
    shuffle,
  }),
};

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

/** "B  ebb stream": the options picked, in their order on the paper. */
export function pickedText(options: readonly StudentOption[], picked: readonly string[]): string {
  return options
    .map((option, index) =>
      picked.includes(option.id) ? `${optionLetter(index)}  ${plainText(option.text)}` : '',
    )
    .filter(Boolean)
    .join('; ');
}

/** What may give a choice away, or make it wrong once shuffled. */
export function choiceFindings(question: {
  id: string;
  options: readonly Option[];
  right: readonly string[];
  shuffle?: boolean | undefined;
}): Finding[] {
  const { id: questionId, options, right, shuffle } = question;
  const findings: Finding[] = [];
  const place = (option: Option) => ({
    level: 'look' as const,
    questionId,
    field: `option-${option.id}`,
    detail: optionLetter(options.indexOf(option)),
  });
  if (right.length === 1) {
    const length = (option: Option) => plainText(option.text).trim().length;
    const key = options.find((option) => option.id === right[0]);
    const longestOther = Math.max(0, ...options.filter((option) => option !== key).map(length));
    // Half as long again as every other, and not just a word: common practice, no source.
    if (key && options.length > 2 && length(key) > 25 && length(key) > 1.5 * longestOther)
      findings.push({ ...place(key), code: 'longestRight' });
  }
  if (shuffle)
    for (const option of options)
      if (
        !option.pinned &&
        /\b(all|none|both|neither|any) of (the above|these|those|them)\b|\babove\b/i.test(
          plainText(option.text),
        )
      )
        findings.push({ ...place(option), code: 'aboveShuffled' });
  return findings;
}

/** What can be wrong with any list of options: too few, empty, or two the same. */
export function optionFindings(questionId: string, options: Option[]): Finding[] {
  const findings: Finding[] = [];
  if (options.length < 2) findings.push({ level: 'stops', code: 'fewOptions', questionId, field: 'options' });
  const seen = new Map<string, number>();
  options.forEach((option, index) => {
    const { text: rich } = option;
    const text = isEmptyRich(rich)
      ? ''
      : typeof rich === 'string'
        ? rich.trim().toLowerCase()
        : JSON.stringify(rich);
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
