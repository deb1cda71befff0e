import { lazy, Suspense } from 'react';
import type { RichText } from '@/core/basics/richText';
import { RichWords } from '../ui/RichWords';

interface RichFieldProps {
  id: string;
  label: string;
  value: RichText;
  placeholder?: string;
  /** For a line or two. */
  low?: boolean;
  /** Called with each change. */
  change: (value: RichText) => void;
}

const loading = () => import('./RichEditor');
const RichEditor = lazy(loading);

/** Fetches the editor before it is needed, so that opening a question does not wait for it. */
export const fetchEditor = () => void loading();

/** A field for text with markup. Until the editor is there its words are shown. */
export function RichField(props: RichFieldProps) {
  return (
    <Suspense fallback={<RichWords value={props.value} low={props.low} />}>
      <RichEditor {...props} />
    </Suspense>
  );
}
