import type { OrderResponse, StudentOrdering } from '@/core/kinds/ordering/schema';
import { fetchedSit } from '../fetchedSit';
import type { KindView, ShowProps } from '../KindView';
import sit from '../sit.module.css';

function Show({ question, response }: ShowProps<StudentOrdering, OrderResponse>) {
  const order = response?.order ?? [];
  if (order.length === 0)
    return (
      <ul className={sit.shown}>
        <li className={sit.left}>not answered</li>
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

export const orderingView: KindView<StudentOrdering, OrderResponse> = {
  ...fetchedSit(() => import('./Sit')),
  Show,
};
