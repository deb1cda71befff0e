import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import type { Ordering, OrderResponse, OrderRule, StudentOrdering } from '@/core/kinds/ordering/schema';
import type { PairItem } from '@/core/kinds/pairs';
import { moved, SortableItem, SortableList } from '@/ui/Sortable';
import edit from '../edit.module.css';
import { PrintedItems } from '../printed';
import type { EditProps, KindView, ShowProps, SitProps } from '../KindView';
import { PartPoints } from '../PartPoints';
import sit from '../sit.module.css';
import { TakeOut } from '../text/AcceptedRows';

const ruleWords: Record<OrderRule, string> = {
  exact: 'All or nothing: full points only for the right order',
  places: 'Each item in its right place earns its share',
  neighbours: 'Each two neighbours that stand in the right order earn their share',
  pairs: 'Each two items, wherever they stand, that are in the right order earn their share',
};

function Edit({ question, keep }: EditProps<Ordering>) {
  const keepItems = (items: PairItem[], said: string, field?: string) =>
    keep({ ...question, items }, said, field);
  return (
    <div className={edit.rows} id="field-items">
      <span className={edit.label}>
        In the right order: this order is the key. Students get them in an order by chance.
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
                  `Item ${index + 1} worded`,
                  `item-${item.id}`,
                );
              }}
            />
            <TakeOut
              what={`item ${index + 1}`}
              onClick={() =>
                keepItems(
                  question.items.filter((each) => each.id !== item.id),
                  `Item ${index + 1} taken out`,
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
        One more item
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

/** The items in the order given, then those not placed yet. */
function inOrder(items: readonly PairItem[], order: readonly string[]): PairItem[] {
  const placed = order.flatMap((id) => items.find((item) => item.id === id) ?? []);
  return [...placed, ...items.filter((item) => !order.includes(item.id))];
}

function Sit({
  question,
  response,
  respond,
  labelledBy,
  disabled,
}: SitProps<StudentOrdering, OrderResponse>) {
  const items = inOrder(question.items, response?.order ?? []);
  const answered = (response?.order.length ?? 0) > 0;
  const put = (from: number, to: number) => respond({ order: moved(items, from, to).map((item) => item.id) });
  return (
    <div role="group" aria-labelledby={labelledBy} className={sit.rows}>
      <SortableList
        ids={items.map((item) => item.id)}
        noun="Item"
        move={(from, to) => !disabled && put(from, to)}
        className={sit.sortable}
      >
        {items.map((item, index) => (
          <SortableItem key={item.id} id={item.id} label={`Move ${item.text}`} className={sit.sortRow}>
            <span className={sit.number}>{index + 1}</span>
            <span className="keepLines">{item.text}</span>
            <span className={sit.buttons}>
              <ActionIcon
                variant="default"
                size={32}
                aria-label={`Put ${item.text} earlier`}
                disabled={disabled || index === 0}
                onClick={() => put(index, index - 1)}
              >
                <IconArrowUp size={18} />
              </ActionIcon>
              <ActionIcon
                variant="default"
                size={32}
                aria-label={`Put ${item.text} later`}
                disabled={disabled || index === items.length - 1}
                onClick={() => put(index, index + 1)}
              >
                <IconArrowDown size={18} />
              </ActionIcon>
            </span>
          </SortableItem>
        ))}
      </SortableList>
      {answered ? (
        <span className={sit.soft}>This order is your answer.</span>
      ) : (
        <Button
          disabled={disabled ?? false}
          style={{ justifySelf: 'start' }}
          onClick={() => respond({ order: items.map((item) => item.id) })}
        >
          They are in order as they stand
        </Button>
      )}
    </div>
  );
}

function Show({ question, response }: ShowProps<StudentOrdering, OrderResponse>) {
  const order = response?.order ?? [];
  if (order.length === 0)
    return (
      <ul className={sit.shown}>
        <li className={sit.left}>left blank</li>
      </ul>
    );
  return (
    <ol className={sit.shown}>
      {order.map((id, index) => (
        <li key={id}>
          {index + 1} {question.items.find((item) => item.id === id)?.text}
        </li>
      ))}
    </ol>
  );
}

export const orderingView: KindView<Ordering, StudentOrdering, OrderResponse> = {
  Edit,
  Sit,
  Show,
  Printed: ({ question }) => <PrintedItems items={question.items} />,
};
