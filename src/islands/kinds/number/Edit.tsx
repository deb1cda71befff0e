import { Button, NativeSelect, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { emptyAccepted } from '@/core/kinds/number';
import {
  NumberForm,
  UnitAsked,
  type AcceptedNumber,
  type NumberQuestion,
  type Unit,
} from '@/core/kinds/number/schema';
import styles from '../edit.module.css';
import type { EditProps } from '../KindView';
import { ShareField, TakeOut } from '../text/AcceptedRows';
import { NumberField } from './NumberField';

const formWords: Record<NumberForm, string> = {
  exact: 'exactly',
  plusMinus: 'plus or minus',
  percent: 'within percent',
  range: 'from … to',
};

const unitWords: Record<UnitAsked, string> = {
  none: 'No unit',
  optional: 'The unit is optional',
  required: 'The unit is required',
};

/** Accepted numbers, units and figures. */
export function Edit({ question, keep }: EditProps<NumberQuestion>) {
  const keepAccepted = (accepted: AcceptedNumber[], said: string, field?: string) =>
    keep({ ...question, accepted }, said, field);
  return (
    <div className={styles.rows}>
      <div className={styles.rows} id="field-accepted">
        {question.accepted.map((accepted, index) => (
          <AcceptedRow
            key={accepted.id}
            accepted={accepted}
            name={`accepted number ${index + 1}`}
            max={question.points}
            change={(next, said, field) =>
              keepAccepted(
                question.accepted.map((each) => (each.id === next.id ? next : each)),
                said,
                field,
              )
            }
            remove={() =>
              keepAccepted(
                question.accepted.filter((each) => each.id !== accepted.id),
                `Accepted number ${index + 1} removed`,
              )
            }
          />
        ))}
        <Button
          size="compact-sm"
          className={styles.add}
          onClick={() =>
            keepAccepted([...question.accepted, emptyAccepted(() => nanoid(12))], 'Accepted number added')
          }
        >
          Add an accepted number
        </Button>
      </div>
      <UnitRows question={question} keep={keep} />
      <Figures question={question} keep={keep} />
    </div>
  );
}

interface AcceptedRowProps {
  accepted: AcceptedNumber;
  name: string;
  max: number;
  change: (accepted: AcceptedNumber, said: string, field?: string) => void;
  remove: () => void;
}

function AcceptedRow({ accepted, name, max, change, remove }: AcceptedRowProps) {
  const { form, id } = accepted;
  return (
    <div className={`${styles.row} ${styles.number}`}>
      <NativeSelect
        size="sm"
        aria-label={`Tolerance type of ${name}`}
        value={form}
        data={NumberForm.options.map((value) => ({ value, label: formWords[value] }))}
        onChange={(event) =>
          change(
            { ...accepted, form: NumberForm.parse(event.currentTarget.value) },
            `Tolerance type of ${name} changed`,
          )
        }
      />
      <NumberField
        id={`field-accepted-${id}`}
        label={form === 'range' ? `Lower end of ${name}` : `Value of ${name}`}
        value={accepted.value}
        change={(value) => change({ ...accepted, value }, `Value of ${name}`, `value-${id}`)}
      />
      {form === 'range' && (
        <NumberField
          label={`Upper end of ${name}`}
          value={accepted.upTo}
          change={(upTo) => change({ ...accepted, upTo }, `Upper end of ${name}`, `upTo-${id}`)}
        />
      )}
      {(form === 'plusMinus' || form === 'percent') && (
        <NumberField
          label={form === 'percent' ? `Percent either side of ${name}` : `Plus or minus for ${name}`}
          value={accepted.tolerance}
          leftSection={<span className={styles.worth}>±</span>}
          rightSection={form === 'percent' ? <span className={styles.worth}>%</span> : null}
          change={(tolerance) =>
            change(
              { ...accepted, tolerance: Math.abs(tolerance ?? 0) },
              `Tolerance of ${name}`,
              `tolerance-${id}`,
            )
          }
        />
      )}
      {form === 'exact' && <span />}
      <ShareField
        name={name}
        share={accepted.share}
        max={max}
        change={(share) => change({ ...accepted, share }, `Share of ${name} changed`, `share-${id}`)}
      />
      <TextInput
        aria-label={`Comment on ${name}`}
        placeholder="Comment"
        size="sm"
        value={accepted.comment}
        onChange={(event) =>
          change({ ...accepted, comment: event.currentTarget.value }, `Comment on ${name}`, `comment-${id}`)
        }
      />
      <TakeOut what={name} onClick={remove} />
    </div>
  );
}

function UnitRows({ question, keep }: EditProps<NumberQuestion>) {
  const { units } = question;
  const keepUnit = (next: Unit, field: string) =>
    keep(
      { ...question, units: units.map((unit) => (unit.id === next.id ? next : unit)) },
      'Units changed',
      `${field}-${next.id}`,
    );
  const add = () => [...units, { id: nanoid(12), names: '', factor: 1 }];
  return (
    <div className={styles.rows} id="field-units">
      <NativeSelect
        size="sm"
        label="Unit"
        value={question.unitAsked}
        data={UnitAsked.options.map((value) => ({ value, label: unitWords[value] }))}
        onChange={(event) => {
          const unitAsked = UnitAsked.parse(event.currentTarget.value);
          const first = unitAsked !== 'none' && units.length === 0 ? add() : units;
          keep({ ...question, unitAsked, units: first }, 'Unit changed');
        }}
      />
      {question.unitAsked !== 'none' &&
        units.map((unit, index) => (
          <div key={unit.id} className={`${styles.row} ${styles.unit}`}>
            <TextInput
              size="sm"
              aria-label={`Names for unit ${index + 1}`}
              placeholder="nm, M, nautical miles"
              value={unit.names}
              onChange={(event) => keepUnit({ ...unit, names: event.currentTarget.value }, 'names')}
            />
            {index === 0 ? (
              <span className={styles.soft}>the numbers above are in this unit</span>
            ) : (
              <NumberField
                label={`One of unit ${index + 1} in the first unit`}
                value={unit.factor}
                rightSection={<span className={styles.worth}>{units[0]?.names.split(',')[0]}</span>}
                rightSectionWidth={56}
                change={(factor) => factor !== null && factor > 0 && keepUnit({ ...unit, factor }, 'factor')}
              />
            )}
            {index === 0 ? (
              <span />
            ) : (
              <TakeOut
                what={`unit ${index + 1}`}
                onClick={() =>
                  keep({ ...question, units: units.filter((each) => each.id !== unit.id) }, 'Unit removed')
                }
              />
            )}
          </div>
        ))}
      {question.unitAsked !== 'none' && (
        <Button
          size="compact-sm"
          className={styles.add}
          onClick={() => keep({ ...question, units: add() }, 'Unit added')}
        >
          Add a unit
        </Button>
      )}
    </div>
  );
}

function Figures({ question, keep }: EditProps<NumberQuestion>) {
  const { figures } = question;
  return (
    <div className={styles.gapHead}>
      <NativeSelect
        size="sm"
        aria-label="Precision"
        value={figures?.of ?? 'any'}
        data={[
          { value: 'any', label: 'Any precision' },
          { value: 'significant', label: 'This many significant figures' },
          { value: 'decimals', label: 'This many decimal places' },
        ]}
        onChange={(event) => {
          const of = event.currentTarget.value;
          const next =
            of === 'significant' || of === 'decimals' ? { count: 2, cost: 0.5, ...figures, of } : null;
          keep({ ...question, figures: next } as NumberQuestion, 'Precision changed'); // `of` is narrowed above
        }}
      />
      {figures && (
        <>
          <NumberField
            label="Number of figures"
            w={70}
            value={figures.count}
            change={(count) =>
              count !== null &&
              Number.isInteger(count) &&
              count >= 0 &&
              count <= 12 &&
              keep(
                { ...question, figures: { ...figures, count } },
                'Figures changed',
                `figures-${question.id}`,
              )
            }
          />
          <span className={styles.soft}>otherwise subtract</span>
          <span style={{ width: '7.5rem' }}>
            <ShareField
              name="for other precision"
              share={figures.cost}
              max={question.points}
              change={(cost) =>
                keep(
                  { ...question, figures: { ...figures, cost } },
                  'Cost of wrong figures changed',
                  `cost-${question.id}`,
                )
              }
            />
          </span>
        </>
      )}
    </div>
  );
}
