import { NativeSelect, TextInput } from '@mantine/core';
import type { BankFilter, BankRow } from '@/core/bank/bankRows';
import { kindNamed, kindNames } from '@/core/kinds';
import { counted } from '@/ui/format';
import styles from './bank.module.css';

interface BankFiltersProps {
  rows: BankRow[];
  filter: BankFilter;
  change: (filter: BankFilter) => void;
}

/** What is looked for among all questions. */
export function BankFilters({ rows, filter, change }: BankFiltersProps) {
  const tags = [...new Set(rows.flatMap((row) => row.question.tags))].sort((a, b) => a.localeCompare(b));
  const wheres: [BankFilter['where'], string][] = [
    ['all', 'in the bank and in papers'],
    ['bank', 'in the bank'],
    ['neverUsed', 'never used'],
  ];
  const worths = [...new Set(rows.map((row) => row.question.points))].sort((a, b) => a - b);
  const facilities: [BankFilter['facility'], string][] = [
    ['', 'any facility'],
    ['hard', 'hard, below 40 %'],
    ['middling', '40 to 80 %'],
    ['easy', 'easy, above 80 %'],
  ];
  const discriminations: [BankFilter['discrimination'], string][] = [
    ['', 'however it tells apart'],
    ['good', 'tells apart, 0.2 or more'],
    ['weak', 'hardly tells apart'],
  ];
  const orders: [BankFilter['order'], string][] = [
    ['words', 'by its words'],
    ['facility', 'hardest first'],
    ['lastUsed', 'longest unused first'],
    ['points', 'by points'],
  ];
  return (
    <div className={styles.filter} role="search">
      <TextInput
        size="sm"
        aria-label="Words in the question, its key or its tags"
        placeholder="Words in the question, its key or its tags"
        value={filter.words}
        onChange={(event) => change({ ...filter, words: event.currentTarget.value })}
      />
      <NativeSelect
        size="sm"
        aria-label="Tag"
        value={filter.tag}
        data={[{ value: '', label: 'any tag' }, ...tags.map((tag) => ({ value: tag, label: tag }))]}
        onChange={(event) => change({ ...filter, tag: event.currentTarget.value })}
      />
      <NativeSelect
        size="sm"
        aria-label="Kind"
        value={filter.kind}
        data={[
          { value: '', label: 'any kind' },
          ...kindNames.map((name) => ({ value: name, label: kindNamed(name).label })),
        ]}
        onChange={(event) => {
          const kind = kindNames.find((name) => name === event.currentTarget.value) ?? '';
          change({ ...filter, kind });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Where"
        value={filter.where}
        data={wheres.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const where = wheres.find(([value]) => value === event.currentTarget.value)?.[0] ?? 'all';
          change({ ...filter, where });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Points"
        value={filter.points ?? ''}
        data={[
          { value: '', label: 'any points' },
          ...worths.map((worth) => ({ value: String(worth), label: counted(worth, 'point') })),
        ]}
        onChange={(event) => {
          const { value } = event.currentTarget;
          change({ ...filter, points: value === '' ? null : Number(value) });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Facility"
        value={filter.facility}
        data={facilities.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const band = facilities.find(([value]) => value === event.currentTarget.value)?.[0] ?? '';
          change({ ...filter, facility: band });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Tells apart"
        value={filter.discrimination}
        data={discriminations.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const band = discriminations.find(([value]) => value === event.currentTarget.value)?.[0] ?? '';
          change({ ...filter, discrimination: band });
        }}
      />
      <NativeSelect
        size="sm"
        aria-label="Order"
        value={filter.order}
        data={orders.map(([value, label]) => ({ value, label }))}
        onChange={(event) => {
          const order = orders.find(([value]) => value === event.currentTarget.value)?.[0] ?? 'words';
          change({ ...filter, order });
        }}
      />
    </div>
  );
}
