import { Checkbox } from '@mantine/core';
import { optionLetter } from '@/core/kinds/optionLetter';
import { weightOf } from '@/core/kinds/severalChoices';
import type { PartPointsRule, SeveralChoices } from '@/core/kinds/severalChoices/schema';
import edit from '../edit.module.css';
import type { EditProps } from '../KindView';
import { OptionRows } from '../options/OptionRows';
import { PartPoints } from '../PartPoints';
import { ShareField } from '../text/AcceptedRows';

const ruleWords: Record<PartPointsRule, string> = {
  allOrNothing: 'All or nothing: full points only for exactly the right options',
  rightMinusWrong: 'Right minus wrong: each wrong choice cancels a right one, never below 0',
  everyOption: 'Every option counts: each one chosen or left correctly earns its share',
  weights: 'Each option has its own weight; the sum stays between 0 and full points',
};

export function Edit({ question, keep }: EditProps<SeveralChoices>) {
  return (
    <>
      <OptionRows
        options={question.options}
        keep={(options, said, field) => {
          const key = question.key.filter((id) => options.some((option) => option.id === id));
          keep({ ...question, options, key }, said, field);
        }}
        shuffle={{
          on: question.shuffle ?? false,
          change: (shuffle) =>
            keep({ ...question, shuffle }, shuffle ? 'Options shuffled' : 'Options in written order'),
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
      <PartPoints
        question={question}
        words={ruleWords}
        value={question.rule}
        change={(rule) => keep({ ...question, rule }, 'Part points rule changed')}
      />
      {question.rule === 'weights' && (
        <div className={edit.choices} role="group" aria-label="Weights">
          {question.options.map((option, index) => (
            <label key={option.id} className={edit.weight}>
              {optionLetter(index)}
              <ShareField
                name={`choosing ${optionLetter(index)}`}
                min={-100}
                share={weightOf(question, option.id)}
                max={question.points}
                change={(weight) =>
                  keep(
                    { ...question, weights: { ...question.weights, [option.id]: weight } },
                    `Weight of ${optionLetter(index)} changed`,
                    `weight-${option.id}`,
                  )
                }
              />
            </label>
          ))}
        </div>
      )}
    </>
  );
}
