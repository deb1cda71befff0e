import type { PackedAsset } from '@/core/basics/asset';
import type { Chance } from '@/core/basics/chance';
import type { Attempt } from '@/core/model/sitting';
import type { Ability } from './answering';
import { sketchPhoto, type Sketched } from './pictures/sketch';

/** The question of the exam that is answered with the photo of a sketch. */
export const sketchQuestion = 't13';

/** Puts the photo of a sketch into an attempt; null for who made none. */
export function withSketch(
  attempt: Attempt,
  ability: Ability,
  chance: Chance,
): { photo: PackedAsset; shows: Sketched } | null {
  if (chance.happens(0.12)) return null;
  const shows = {
    stream: chance.happens(0.55 + 0.2 * ability),
    boat: chance.happens(0.45 + 0.25 * ability),
  };
  const { size, ...photo } = sketchPhoto(shows, chance);
  const ref = { id: photo.id, name: photo.name, mediaType: photo.mediaType, size };
  attempt.files = [ref];
  attempt.answers[sketchQuestion] = {
    response: { words: '', maths: [], drawing: [], photos: [ref] },
    at: attempt.handedInAt ?? attempt.lastSeenAt,
  };
  return { photo, shows };
}
