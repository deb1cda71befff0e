import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, counter } from '../../../../tests/unit/samples';
import type { Pile } from '../../model/pile';
import type { SameAnswers } from '../sameAnswers';
import { agreed, joined, named, split, takenOut, type PileChange } from './acts';
import { arranged } from './arrange';

const group = (id: string, times = 1): SameAnswers => ({
  id,
  text: id,
  blank: false,
  onPaper: false,
  answers: Array.from({ length: times }, () => ({}) as SameAnswers['answers'][0]),
  points: null,
  uneven: false,
  waiting: times,
  aside: false,
  nearMiss: null,
});
const groups = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((id, index) => group(id, 1 + (index % 3)));
const proposed = [
  ['a', 'b', 'c'],
  ['e', 'f'],
];
const applied = (stored: readonly Pile[], { put, remove }: PileChange): Pile[] => {
  const kept = new Map(stored.map((pile) => [pile.id, pile]));
  for (const id of remove) kept.delete(id);
  for (const pile of put) {
    if (pile.members.length > 0) kept.set(pile.id, pile);
    else kept.delete(pile.id);
  }
  return [...kept.values()];
};
const inSight = (stored: readonly Pile[]) =>
  arranged(groups, stored, proposed).map(
    ({ group: { id }, pile }) => `${id}${pile ? (pile.agreed ? '!' : '?') : ''}`,
  );

describe('piles of answers', () => {
  it('what is put forward comes first, the largest before, the commonest wording first; what is alone as it came', () => {
    expect(inSight([])).toEqual(['c?', 'b?', 'a?', 'f?', 'e?', 'd', 'g', 'h']);
  });

  it('what came later and is near to a pile that is marked as one stands below it, and is not in it', () => {
    const pile = (members: string[], agreedAt: string | null): Pile => ({
      ...{ id: members.join(''), sittingId: 's', questionId: 'q', name: '', members, agreedAt },
    });
    const rows = (stored: readonly Pile[]) =>
      arranged(groups, stored, proposed).map(({ group: { id }, pile: of, fits }) =>
        of ? `${id}${of.agreed ? '!' : '?'}` : fits ? `${id} fits ${fits.id}` : id,
      );
    expect(rows([pile(['a', 'b'], at)])).toEqual(['f?', 'e?', 'b!', 'a!', 'c fits ab', 'd', 'g', 'h']);
    // Not where it is only put forward, nor where it is near to two; what was taken out stays out.
    expect(rows([pile(['a', 'b'], null)])).not.toContain('c fits ab');
    expect(rows([pile(['a', 'd'], at), pile(['b', 'g'], at)])).toContain('c');
    expect(rows([pile(['a', 'b'], at), pile(['c'], null)])).toContain('c');
  });

  it('agreed, named, taken out of, split and joined', () => {
    const place = { sittingId: 's', questionId: 'q', newId: counter('p') };
    const row = (stored: readonly Pile[], id: string) => {
      const found = arranged(groups, stored, proposed).find((each) => each.group.id === id);
      if (!found?.pile) throw new Error('no pile');
      return { entry: found, pile: found.pile };
    };
    let stored: Pile[] = applied([], agreed(place, row([], 'a').pile, at));
    expect(inSight(stored).slice(0, 3)).toEqual(['c!', 'b!', 'a!']);
    stored = applied(stored, named(place, row(stored, 'a').pile, 'Expands'));
    stored = applied(stored, takenOut(place, row(stored, 'b').pile, 'b'));
    expect(inSight(stored)).toEqual(['f?', 'e?', 'c!', 'a!', 'b', 'd', 'g', 'h']);
    const above = row(stored, 'a').entry;
    const [below] = arranged(groups, stored, proposed).filter((each) => each.group.id === 'b');
    if (!below) throw new Error('no b');
    stored = applied(stored, joined(place, above, below, stored) ?? { put: [], remove: [] });
    expect(inSight(stored).slice(0, 3)).toEqual(['c?', 'b?', 'a?']);
    expect(row(stored, 'b').pile.name).toBe('Expands');
    stored = applied(stored, split(place, row(stored, 'b').pile, 'b') ?? { put: [], remove: [] });
    expect(inSight(stored)).toEqual(['f?', 'e?', 'b?', 'a?', 'c', 'd', 'g', 'h']);
    expect(split(place, row(stored, 'b').pile, 'b')).toBeNull();
  });

  it('where answers change one after another, they stand as when all is put in order anew', () => {
    const step = fc.record({
      at: fc.nat(7),
      waiting: fc.nat(1),
      times: fc.option(fc.integer({ min: 1, max: 4 })),
    });
    const stored: Pile[] = [
      { ...{ id: 'p', sittingId: 's', questionId: 'q', name: '' }, members: ['a', 'h'], agreedAt: at },
    ];
    fc.assert(
      fc.property(fc.array(step), (steps) => {
        let now = groups;
        arranged(now, stored, proposed);
        for (const { at: place, waiting, times } of steps) {
          const one = now[place];
          if (!one) throw new Error('no group');
          now = now.with(place, { ...group(one.id, times ?? one.answers.length), waiting });
          expect(arranged(now, stored, proposed)).toEqual(arranged(now, [...stored], proposed));
        }
      }),
    );
  });

  it('whatever is done, each answer stands in exactly one place, and a pile that is agreed to stays together', () => {
    const step = fc.record({
      what: fc.constantFrom('agree', 'name', 'out', 'split', 'join'),
      row: fc.nat(7),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const place = { sittingId: 's', questionId: 'q', newId: counter('p') };
        let stored: Pile[] = [];
        for (const { what, row } of steps) {
          const entries = arranged(groups, stored, proposed);
          const here = entries[row];
          if (!here) throw new Error('no row');
          const { pile } = here;
          const change =
            what === 'join'
              ? row > 0 && entries[row - 1]
                ? joined(place, entries[row - 1] ?? here, here, stored)
                : null
              : pile &&
                (what === 'agree'
                  ? agreed(place, pile, at)
                  : what === 'name'
                    ? named(place, pile, 'N')
                    : what === 'out'
                      ? takenOut(place, pile, here.group.id)
                      : split(place, pile, here.group.id));
          if (change) stored = applied(stored, change);
          const after = arranged(groups, stored, proposed);
          expect(after.map(({ group: { id } }) => id).sort()).toEqual(groups.map(({ id }) => id));
          // No group is kept in two piles.
          const members = stored.flatMap((each) => each.members);
          expect(new Set(members).size).toBe(members.length);
        }
      }),
    );
  });
});
