import { schemeReach } from './schemePoints';
import { Text, type Finding } from '../basics/common';
import { SchemeGroup, SchemeLine } from './schemeLine';

/** What a marker goes by, in every kind that is marked by hand. */
export const schemeFields = {
  modelAnswer: Text,
  scheme: SchemeLine.array().max(26),
  schemeGroups: SchemeGroup.array().max(12).optional(),
};

interface HandMarked {
  id: string;
  points: number;
  modelAnswer: string;
  scheme: SchemeLine[];
  schemeGroups?: SchemeGroup[] | undefined;
}

/** The same at the start. */
export const emptyScheme = (newId: () => string) => ({
  points: 3,
  modelAnswer: '',
  scheme: [{ id: newId(), text: '', points: 1 }],
});

export function copied<Q extends HandMarked>(question: Q, newId: () => string): Q {
  return { ...question, id: newId(), ...copiedScheme(question, newId) };
}

/** A scheme with ids of its own: lines stay in their groups. */
export function copiedScheme(
  { scheme, schemeGroups }: Pick<HandMarked, 'scheme' | 'schemeGroups'>,
  newId: () => string,
): Pick<HandMarked, 'scheme' | 'schemeGroups'> {
  const groups = new Map((schemeGroups ?? []).map((group) => [group.id, { ...group, id: newId() }]));
  return {
    scheme: scheme.map(({ groupId, ...line }) => {
      const group = groups.get(groupId ?? '');
      return { ...line, id: newId(), ...(group && { groupId: group.id }) };
    }),
    ...(schemeGroups && { schemeGroups: [...groups.values()] }),
  };
}

/** What there is of a kind without a key: the same for all that are marked by hand. */
export const byHand = {
  scoredBy: 'hand',
  hasKey: () => false,
  score: () => ({ share: 0, comments: [] }),
  offered: () => [],
  rightAnswer: () => null,
  partlyRight: () => null,
  scheme: (question: HandMarked) => question.scheme,
  schemeGroups: (question: HandMarked) => question.schemeGroups ?? [],
  withScheme: <Q extends HandMarked>(question: Q, scheme: SchemeLine[]): Q => ({ ...question, scheme }),
} as const;

/** No model answer nor scheme, lines without words, groups that cannot be used as they are, or lines that do not reach the points. */
export function schemeFindings(question: HandMarked): Finding[] {
  const questionId = question.id;
  const written = question.scheme.filter((line) => line.text.trim());
  if (written.length === 0 && !question.modelAnswer.trim())
    return [{ level: 'look', code: 'noScheme', questionId, field: 'modelAnswer' }];
  const findings: Finding[] = question.scheme
    .filter((line) => !line.text.trim() && question.scheme.length > 1)
    .map((line) => ({ level: 'look', code: 'emptySchemeLine', questionId, field: `line-${line.id}` }));
  const groups = question.schemeGroups ?? [];
  for (const group of groups) {
    const lines = written.filter(({ groupId }) => groupId === group.id);
    const code = groupFault(group, lines);
    if (code)
      findings.push({
        level: 'look',
        code,
        questionId,
        field: `scheme-group-${group.id}`,
        detail: group.text,
      });
  }
  const reachable = schemeReach({ lines: written, groups });
  if (written.length > 0 && reachable < question.points)
    findings.push({
      level: 'look',
      code: 'schemeBelowPoints',
      questionId,
      field: 'scheme',
      detail: `${reachable}`,
    });
  return findings;
}

/** What is wrong with a group of scheme lines. */
function groupFault(group: SchemeGroup, lines: readonly SchemeLine[]) {
  if (lines.length === 0) return 'emptySchemeGroup';
  if (group.as === 'levels') {
    const steps = lines.slice(1).map((line, at) => Math.sign(line.points - (lines[at]?.points ?? 0)));
    return new Set(steps).size > 1 || steps.includes(0) ? 'levelsOutOfOrder' : null;
  }
  const reach = schemeReach({ lines: lines.map(({ id, points }) => ({ id, points })), groups: [] });
  return group.cap !== undefined && reach < group.cap ? 'capOutOfReach' : null;
}
