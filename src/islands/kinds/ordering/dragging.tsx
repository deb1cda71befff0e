import { useEffect, useState, type ComponentProps } from 'react';
import type { SortableItem, SortableList } from '@/ui/Sortable';

/** Dragging is fetched where something can be dragged; until then, and where it cannot be fetched, the arrows do it. */
interface Lists {
  SortableList: typeof SortableList;
  SortableItem: typeof SortableItem;
}

let lists: Lists | null = null;
export const loadDragging = async (): Promise<Lists> => (lists ??= await import('@/ui/Sortable'));

const plain: Lists = {
  SortableList: ({ className, children }: ComponentProps<typeof SortableList>) => (
    <ol className={className}>{children}</ol>
  ),
  SortableItem: ({ className, children }: ComponentProps<typeof SortableItem>) => (
    <li className={className}>{children}</li>
  ),
};

export function useDragging(): Lists {
  const [here, setHere] = useState(lists);
  useEffect(() => {
    let shown = true;
    if (!here)
      void loadDragging().then(
        (loaded) => shown && setHere(loaded),
        () => undefined,
      );
    return () => {
      shown = false;
    };
  }, [here]);
  return here ?? plain;
}
