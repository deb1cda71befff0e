import type { ComponentType } from 'react';
import { later } from '@/ui/later';
import type { ShowProps } from './KindView';

/** How answers are shown that few papers have: it comes when the first of them is to be seen. */
export const laterShow = <S, R>(
  load: () => Promise<{ default: ComponentType<ShowProps<S, R>> }>,
): ComponentType<ShowProps<S, R>> =>
  later(
    async () => (await load()).default,
    'This answer couldn’t be loaded to be shown. It is saved; load the page again.',
  );
