import { Checkbox, NativeSelect } from '@mantine/core';
import type { PickedResponse } from '@/core/kinds/options';
import {
  PartPointsRule,
  type SeveralChoices,
  type StudentSeveralChoices,
} from '@/core/kinds/severalChoices/schema';
import { severalChoices } from '@/core/kinds/severalChoices';
import { roundPoints } from '@/core/scoring/points';
import { counted, points } from '@/ui/format';
import type { EditProps, KindView } from '../KindView';
import { OptionPicker, PickedOptions } from '../options/OptionList';
import { OptionRows } from '../options/OptionRows';

const ruleWords: Record<PartPointsRule, string> = {
  allOrNothing: 'All or nothing: full points only for exactly the right options',
  rightMinusWrong: 'Right minus wrong: each wrong pick cancels a right one, never below 0',
  everyOption: 'Every option counts: picked or left, each that is as it should be earns its share',
};

function Edit({ question, keep }: EditProps<SeveralChoices>) {
  return (
    <>
      <OptionRows
        options={question.options}
        keep={(options, said, field) => {
          const key = question.key.filter((id) => options.some((option) => option.id === id));
          keep({ ...question, options, key }, said, field);
        }}
        keyControl={(option, letter) => (
          <Checkbox
            aria-label={`${letter} is right`}
            checked={question.key.includes(option.id)}
            onChange={(event) => {
              const right = event.currentTarget.checked;
              const key = question.options
                .map((each) => each.id)
                .filter((id) => (id === option.id ? right : question.key.includes(id)));
              keep({ ...question, key }, right ? `${letter} made right` : `${letter} made wrong`);
            }}
          />
        )}
      />
      <NativeSelect
        label="Points for part of it"
        description={workedLine(question)}
        inputWrapperOrder={['label', 'input', 'description']}
        size="sm"
        mt="xs"
        value={question.rule}
        data={PartPointsRule.options.map((rule) => ({ value: rule, label: ruleWords[rule] }))}
        onChange={(event) =>
          keep(
            { ...question, rule: PartPointsRule.parse(event.currentTarget.value) },
            'Part points rule changed',
          )
        }
      />
    </>
  );
}

/** One worked case of this very question: all right options but one picked, and one wrong one. */
function workedLine(question: SeveralChoices): string {
  const right = question.options.filter((option) => question.key.includes(option.id));
  const wrong = question.options.filter((option) => !question.key.includes(option.id));
  if (right.length === 0) return 'Mark the right options to see what part of them is worth.';
  const shareOf = (picked: string[]) =>
    points(roundPoints(severalChoices.score(question, { picked }).share * question.points));
  const some = right.slice(1).map((option) => option.id);
  const missing = `${counted(some.length, 'right one')} of ${right.length}, nothing wrong: ${shareOf(some)} of ${points(question.points)}`;
  const [first] = wrong;
  if (!first) return `${missing}.`;
  const extra = [...right.map((option) => option.id), first.id];
  return `${missing}. All the right ones and one wrong: ${shareOf(extra)} of ${points(question.points)}.`;
}

export const severalChoicesView: KindView<SeveralChoices, StudentSeveralChoices, PickedResponse> = {
  Edit,
  Sit: (props) => <OptionPicker {...props} several />,
  Show: PickedOptions,
};
