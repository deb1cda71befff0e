import { IconArrowDown, IconArrowUp } from '@/ui/icons';
import type { OrderResponse, StudentOrdering } from '@/core/kinds/ordering/schema';
import type { PairItem } from '@/core/kinds/pairs';
import { announce } from '@/ui/announce';
import { moved } from '@/ui/moved';
import { Button, SquareButton } from '@/ui/plain/Button';
import { SortableItem, SortableList } from '@/ui/Sortable';
import type { SitProps } from '../KindView';
import sit from '../sit.module.css';

/** The items in the order given, then those not placed yet. */
function inOrder(items: readonly PairItem[], order: readonly string[]): PairItem[] {
  const placed = order.flatMap((id) => items.find((item) => item.id === id) ?? []);
  return [...placed, ...items.filter((item) => !order.includes(item.id))];
}

/** What does nothing at the moment keeps the focus, and says so. */
const unless = (idle: boolean | undefined, act: () => void) =>
  idle ? { 'aria-disabled': true, 'data-disabled': true } : { onClick: act };

export function Sit({
  question,
  response,
  respond,
  labelledBy,
  disabled,
}: SitProps<StudentOrdering, OrderResponse>) {
  const items = inOrder(question.items, response?.order ?? []);
  const answered = (response?.order.length ?? 0) > 0;
  const put = (from: number, to: number) => {
    respond({ order: moved(items, from, to).map((item) => item.id) });
    announce(`${items[from]?.text} is now ${to + 1} of ${items.length}`);
  };
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
              <SquareButton
                aria-label={`Put ${item.text} earlier`}
                {...unless(disabled || index === 0, () => put(index, index - 1))}
              >
                <IconArrowUp size={18} />
              </SquareButton>
              <SquareButton
                aria-label={`Put ${item.text} later`}
                {...unless(disabled || index === items.length - 1, () => put(index, index + 1))}
              >
                <IconArrowDown size={18} />
              </SquareButton>
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
          They are already in order
        </Button>
      )}
    </div>
  );
}
