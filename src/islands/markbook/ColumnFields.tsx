import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import type { MarkBookColumn } from '@/core/model/markBook';
import { MarginBlock } from '@/ui/TwoColumns';
import { done } from '@/words/done';
import { counted } from '@/words/format';
import type { BookAtHand } from './useMarkBook';
import styles from './markbook.module.css';

/** How one column counts. */
export function ColumnFields({ at, column }: { at: BookAtHand; column: MarkBookColumn }) {
  const { book } = at;
  const index = book.columns.findIndex(({ id }) => id === column.id);
  const set = (part: Partial<MarkBookColumn>, joins?: string) =>
    at.setColumn({ ...column, ...part } as MarkBookColumn, done.markBookChanged, joins); // of the same kind
  const move = (by: number) => {
    const columns = [...book.columns];
    columns.splice(index, 1);
    columns.splice(index + by, 0, column);
    at.change({ columns }, done.markBookChanged);
  };
  return (
    <MarginBlock title={at.titleOf(column)}>
      <div className={styles.fields}>
        {column.kind === 'sitting' ? (
          <p>
            <a href={`/sittings/${column.sittingId}/hand-back`}>Open the sitting</a>
          </p>
        ) : (
          <>
            <TextInput
              label="Name"
              size="sm"
              maxLength={200}
              value={column.title}
              onChange={(event) => set({ title: event.currentTarget.value }, `title ${column.id}`)}
            />
            <NumberInput
              label="Maximum"
              size="sm"
              maw="8rem"
              min={0}
              max={100_000}
              value={column.max}
              onChange={(value) => set({ max: Math.max(0, Number(value) || 0) }, `max ${column.id}`)}
            />
          </>
        )}
        {book.categories.length > 0 && (
          <NativeSelect
            label="Category"
            size="sm"
            value={column.categoryId ?? ''}
            data={[
              { value: '', label: 'none: counts by itself' },
              ...book.categories.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(event) => set({ categoryId: event.currentTarget.value || null })}
          />
        )}
        <NumberInput
          label="Weight"
          size="sm"
          maw="8rem"
          min={0}
          max={1000}
          value={column.weight}
          onChange={(value) => set({ weight: Math.max(0, Number(value) || 0) }, `weight ${column.id}`)}
        />
        <Checkbox
          size="sm"
          label="Bonus: it only adds"
          checked={column.bonus}
          onChange={(event) => set({ bonus: event.currentTarget.checked })}
        />
        <Checkbox
          size="sm"
          label="Doesn’t count"
          checked={column.dropped}
          onChange={(event) => set({ dropped: event.currentTarget.checked })}
        />
        {column.excused.length > 0 && <p>{counted(column.excused.length, 'student')} excused.</p>}
        <div className={styles.row}>
          <Button size="compact-sm" disabled={index <= 0} onClick={() => move(-1)}>
            Move left
          </Button>
          <Button size="compact-sm" disabled={index >= book.columns.length - 1} onClick={() => move(1)}>
            Move right
          </Button>
          <Button
            size="compact-sm"
            onClick={() =>
              at.change({ columns: book.columns.filter(({ id }) => id !== column.id) }, done.markBookChanged)
            }
          >
            Remove column
          </Button>
        </div>
      </div>
    </MarginBlock>
  );
}
