import { NativeSelect, TextInput } from '@mantine/core';
import type { BankFilter, BankRow } from '@/core/bank/bankRows';
import { kindNamed, kindNames } from '@/core/kinds';
import { counted } from '@/words/format';
import styles from './bank.module.css';

interface BankFiltersProps {
  rows: BankRow[];
  filter: BankFilter;
  change: (filter: BankFilter) => void;
}

/** What is looked for among all questions. */
export function BankFilters({ rows, filter, change }: BankFiltersProps) {
  const tags = [...new Set(rows.flatMap((row) => row.question.tags))].sort((a, b) => a.localeCompare(b));
  const worths = [...new Set(rows.map((row) => row.question.points))].sort((a, b) => a - b);
  const set = (part: Partial<BankFilter>) => change({ ...filter, ...part });
  return (
    <div className={styles.filter} role="search">
      <TextInput
        size="sm"
        aria-label="Search questions, keys and tags"
        placeholder="Words"
        value={filter.words}
        onChange={(event) => set({ words: event.currentTarget.value })}
      />
      <Choice
        label="Tag"
        value={filter.tag}
        choices={[['', 'any tag'], ...tags.map((tag): [string, string] => [tag, tag])]}
        change={(tag) => set({ tag })}
      />
      <Choice
        label="Kind"
        value={filter.kind}
        choices={[
          ['', 'any kind'],
          ...kindNames.map((name): [BankFilter['kind'], string] => [name, kindNamed(name).label]),
        ]}
        change={(kind) => set({ kind })}
      />
      <Choice label="Show" value={filter.where} choices={wheres} change={(where) => set({ where })} />
      <Choice
        label="Points"
        value={String(filter.points ?? '')}
        choices={[
          ['', 'any points'],
          ...worths.map((worth): [string, string] => [String(worth), counted(worth, 'point')]),
        ]}
        change={(worth) => set({ points: worth === '' ? null : Number(worth) })}
      />
      <Choice
        label="Facility"
        value={filter.facility}
        choices={facilities}
        change={(facility) => set({ facility })}
      />
      <Choice
        label="Discrimination"
        value={filter.discrimination}
        choices={discriminations}
        change={(discrimination) => set({ discrimination })}
      />
      <Choice label="Sort by" value={filter.order} choices={orders} change={(order) => set({ order })} />
    </div>
  );
}

const wheres: [BankFilter['where'], string][] = [
  ['all', 'in the bank and in papers'],
  ['bank', 'in the bank'],
  ['neverUsed', 'never used'],
];

const facilities: [BankFilter['facility'], string][] = [
  ['', 'any facility'],
  ['hard', 'hard, below 40%'],
  ['middling', '40–80%'],
  ['easy', 'easy, above 80%'],
];

const discriminations: [BankFilter['discrimination'], string][] = [
  ['', 'any discrimination'],
  ['good', '0.2 or more'],
  ['weak', 'below 0.2'],
];

const orders: [BankFilter['order'], string][] = [
  ['words', 'alphabetical'],
  ['facility', 'hardest first'],
  ['lastUsed', 'longest unused first'],
  ['points', 'points'],
];

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  choices: [value: T, words: string][];
  change: (value: T) => void;
}

/** One of a few, by its words. */
function Choice<T extends string>({ label, value, choices, change }: ChoiceProps<T>) {
  return (
    <NativeSelect
      size="sm"
      aria-label={label}
      value={value}
      data={choices.map(([each, words]) => ({ value: each, label: words }))}
      onChange={(event) => {
        const chosen = choices.find(([each]) => each === event.currentTarget.value);
        if (chosen) change(chosen[0]);
      }}
    />
  );
}
