import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import type { Ordering, OrderRule } from '@/core/kinds/ordering/schema';
import type { PairItem } from '@/core/kinds/pairs';
import { moved } from '@/ui/moved';
import { SortableItem, SortableList } from '@/ui/Sortable';
import edit from '../edit.module.css';
import type { EditProps } from '../KindView';
import { PartPoints } from '../PartPoints';
import { TakeOut } from '../text/AcceptedRows';

const ruleWords: Record<OrderRule, string> = {
  exact: 'All or nothing: full points only for the right order',
  places: 'Each item in the right place earns its share',
  neighbours: 'Each pair of neighbours in the right order earns its share',
  pairs: 'Each pair of items in the right order earns its share',
};

export function Edit({ question, keep }: EditProps<Ordering>) {
  const keepItems = (items: PairItem[], said: string, field?: string) =>
    keep({ ...question, items }, said, field);
  return (
    <div className={edit.rows} id="field-items">
      <span className={edit.label}>
        Put the items in the right order: this is the key. Students get them shuffled.
      </span>
      <SortableList
        ids={question.items.map((item) => item.id)}
        noun="Item"
        move={(from, to) => keepItems(moved(question.items, from, to), `Item ${from + 1} moved to ${to + 1}`)}
        className={edit.sortable}
      >
        {question.items.map((item, index) => (
          <SortableItem key={item.id} id={item.id} label={`Move item ${index + 1}`} className={edit.sortRow}>
            <span className={edit.letter} aria-hidden>
              {index + 1}
            </span>
            <TextInput
              id={`field-item-${item.id}`}
              size="sm"
              aria-label={`Item ${index + 1}`}
              value={item.text}
              onChange={(event) => {
                const text = event.currentTarget.value;
                keepItems(
                  question.items.map((each) => (each.id === item.id ? { ...each, text } : each)),
                  `Item ${index + 1} edited`,
                  `item-${item.id}`,
                );
              }}
            />
            <TakeOut
              what={`item ${index + 1}`}
              onClick={() =>
                keepItems(
                  question.items.filter((each) => each.id !== item.id),
                  `Item ${index + 1} removed`,
                )
              }
            />
          </SortableItem>
        ))}
      </SortableList>
      <Button
        size="compact-sm"
        className={edit.add}
        onClick={() => keepItems([...question.items, { id: nanoid(12), text: '' }], 'Item added')}
      >
        Add an item
      </Button>
      <PartPoints
        question={question}
        words={ruleWords}
        value={question.rule}
        change={(rule) => keep({ ...question, rule }, 'Part points rule changed')}
      />
    </div>
  );
}
