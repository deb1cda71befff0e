import { nearPiles } from '@/core/marking/near/piles';
import { chanceFrom } from '@/core/basics/chance';
import { row } from './measure';

/** Putting 550 and 10,000 different answers together by nearness, as the worker does it. */

const chance = chanceFrom(3);
const parts = [
  ['The', 'A', 'Because the', 'So the', 'It is that the'],
  [
    'metal',
    'iron hull',
    'steel',
    'compass card',
    'magnet',
    'boat',
    'needle',
    'engine',
    'current',
    'heading',
    'wind',
    'stream',
  ],
  ['pulls', 'turns', 'moves', 'changes', 'does not change', 'deflects', 'carries', 'slows'],
  ['the', 'its', 'every', 'a'],
  ['needle', 'card', 'field', 'course', 'reading', 'track', 'bearing', 'boat', 'ship', 'tide'],
  [
    'on every heading',
    'when she turns',
    'at springs',
    'by 5 degrees',
    'by 10 degrees',
    'to port',
    'to starboard',
    'a little',
    '',
  ],
  ['because iron is near', 'as it is near', 'at sea', 'in harbour', 'again', 'all the time', ''],
];
function different(count: number): string[] {
  const all = new Set<string>();
  while (all.size < count)
    all.add(
      parts
        .map((some) => chance.pick(some))
        .filter(Boolean)
        .join(' '),
    );
  return [...all];
}
for (const count of [550, 10_000]) {
  const answers = different(count);
  const began = performance.now();
  const piles = nearPiles(answers, 'en');
  row(
    `${count.toLocaleString('en')} different answers put together: ${piles.length.toLocaleString('en')} piles`,
    `${(performance.now() - began).toFixed(0)} ms`,
  );
}
