import type { RefObject } from 'react';
import type { Question } from '@/core/kinds';
import { agreed, joined, named, split, takenOut, type PileChange } from '@/core/marking/piles/acts';
import { actWhenRoom, say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { changePiles, pilePlace } from '@/store/piles';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { pileNameId, type PileActs } from './PileBlock';
import type { Piles } from './usePiles';

interface PileActsProps {
  sitting: SittingData;
  question: Question;
  piles: Piles;
  /** Where the marker is, by the id of the answers. */
  at: RefObject<string | null>;
  seen: RefObject<Set<string>>;
  goTo: (id: string) => void;
}

/** What is done to piles where the marker is, by buttons and by keys. */
export function usePileActs({ sitting, question, piles, at, seen, goTo }: PileActsProps) {
  const { entries, stored } = piles;
  const sittingId = sitting.sitting.id;
  const place = pilePlace(sittingId, question.id);
  const here = () => entries.find(({ group }) => group.id === at.current);
  const keep = (change: PileChange | null, said: string) =>
    change && void actWhenRoom(() => changePiles(sittingId, change, said, isoNow()));

  const acts: PileActs = {
    agree: () => {
      const pile = here()?.pile;
      if (!pile) return;
      const unseen = pile.members.filter(({ id }) => !seen.current.has(id));
      const [first] = unseen;
      if (!pile.agreed && first) {
        say(
          `${counted(unseen.length, 'wording')} of this pile ${unseen.length === 1 ? 'has' : 'have'} not been on the screen yet`,
          true,
        );
        return goTo(first.id);
      }
      keep(
        agreed(place, pile, pile.agreed ? null : isoNow()),
        `${counted(pile.members.length, 'wording')} ${pile.agreed ? 'marked one by one again' : 'marked as one'}`,
      );
    },
    takeOut: () => {
      const entry = here();
      if (entry?.pile) keep(takenOut(place, entry.pile, entry.group.id), 'Answer taken out of its pile');
    },
    split: () => {
      const entry = here();
      if (entry?.pile) keep(split(place, entry.pile, entry.group.id), 'Pile split');
    },
    joinAbove: () => {
      const index = entries.findIndex(({ group }) => group.id === at.current);
      const [above, below] = [entries[index - 1], entries[index]];
      if (!above || !below) return;
      // Within a pile, what is above it: the last of the one before.
      const before = below.pile
        ? entries.findLast((each, place_) => place_ < index && each.pile?.id !== below.pile?.id)
        : above;
      if (before && !before.group.blank && !below.group.blank)
        keep(joined(place, before, below, stored), 'Joined with the answers above');
    },
    name: (name) => {
      const pile = here()?.pile;
      if (pile) keep(named(place, pile, name), name ? `Pile named ${name}` : 'Name of the pile removed');
    },
  };

  return { ...acts, onKey: (key: string, shift: boolean) => onPileKey(acts, key, shift) };
}

/** @returns true when the key was one for piles */
function onPileKey(acts: PileActs, key: string, shift: boolean): boolean {
  if (key === 'F2') document.getElementById(pileNameId)?.focus();
  else if (!shift) return false;
  else if (key === 'Enter') acts.agree();
  else if (key === 'Delete' || key === 'Backspace') acts.takeOut();
  else if (key === 'ArrowDown') acts.split();
  else if (key === 'ArrowUp') acts.joinAbove();
  else return false;
  return true;
}
