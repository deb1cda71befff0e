import type { LooksWrong } from '@/core/analysis/looksWrong';
import { looksWrongWords } from '@/words/looksWrong';
import { useMarkerNames } from '@/desk/markerNames';

/** What a finding says, with markers by their names. */
export function FindingWords({ found, sittingId }: { found: LooksWrong; sittingId: string }) {
  const nameOf = useMarkerNames(sittingId);
  const words = looksWrongWords(found, nameOf);
  return <>{words.charAt(0).toUpperCase() + words.slice(1)}</>;
}
