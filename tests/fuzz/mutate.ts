import { unzipSync, zipSync } from 'fflate';
import { sumBy } from 'remeda';
import type { Chance } from '@/core/basics/chance';

type Bytes = Uint8Array<ArrayBuffer>;

const below = (chance: Chance, end: number) => Math.floor(chance.share() * end);

/** Pieces that readers stumble over, put anywhere. */
const pieces = [
  '',
  '\u0000',
  '"',
  '""',
  "'",
  ';',
  '|',
  '\r\n',
  '\ufeff',
  '\ufffe',
  '[',
  ']',
  '→',
  '✓',
  '<',
  '>',
  '&#0;',
  '&amp;',
  '<!DOCTYPE x>',
  '</p>',
  '<p/>',
  '__proto__',
  'constructor',
  '=1+1',
  '-1',
  '1e999',
  'NaN',
  '٢٫٥',
  '12,5 %',
  '…',
  '𝄞',
  '{"a":',
  'x'.repeat(60_000),
].map((text) => new TextEncoder().encode(text));

const joined = (...parts: Uint8Array[]): Bytes => {
  const bytes = new Uint8Array(sumBy(parts, ({ length }) => length));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
};

/** Bytes of which some are others, gone, doubled or come between. */
export function mutatedBytes(bytes: Uint8Array, chance: Chance): Bytes {
  let now = joined(bytes);
  for (let left = 1 + below(chance, 4); left > 0; left--) {
    const at = below(chance, now.length);
    const to = Math.min(now.length, at + 1 + below(chance, chance.share() < 0.2 ? now.length : 12));
    const before = now.subarray(0, at);
    switch (below(chance, 6)) {
      case 0:
        now[at] = (now[at] ?? 0) ^ (1 << below(chance, 8));
        break;
      case 1:
        now[at] = below(chance, 256);
        break;
      case 2:
        now = joined(before, now.subarray(to));
        break;
      case 3:
        now = joined(now.subarray(0, to), now.subarray(at));
        break;
      case 4:
        now = joined(before, chance.pick(pieces), now.subarray(to));
        break;
      default:
        now = joined(before, chance.pick(pieces), now.subarray(at));
    }
  }
  return now;
}

/** A zip of which a file inside is another, gone or under another name, with checksums that fit. */
export function mutatedInside(bytes: Uint8Array, chance: Chance): Bytes {
  const files = unzipSync(bytes);
  const path = chance.pick(Object.keys(files));
  const file = files[path] ?? new Uint8Array();
  const { [path]: _, ...others } = files;
  const what = chance.share();
  if (what < 0.1) return zipSync(others);
  if (what < 0.2) return zipSync({ ...others, [`${path}x`]: file });
  return zipSync({ ...others, [path]: mutatedBytes(file, chance) });
}

const values: unknown[] = [
  null,
  true,
  0,
  -1,
  1e300,
  '',
  'x'.repeat(60_000),
  '2026-13-99T00:00:00.000Z',
  [],
  {},
  [[]],
  { id: '__proto__' },
];

/** JSON in which a value somewhere is another, gone, doubled, or deeply nested. */
export function mutatedJson(json: unknown, chance: Chance): unknown {
  const copy = structuredClone(json);
  const places: [Record<string, unknown> | unknown[], string][] = [];
  const walk = (value: unknown): void => {
    if (value === null || typeof value !== 'object') return;
    for (const [name, inside] of Object.entries(value)) {
      places.push([value as Record<string, unknown>, name]);
      walk(inside);
    }
  };
  walk(copy);
  for (let left = 1 + below(chance, 3); left > 0; left--) {
    const [within, name] = chance.pick(places);
    const inside = Reflect.get(within, name) as unknown;
    const what = chance.share();
    if (what < 0.25) Reflect.deleteProperty(within, name);
    else if (what < 0.4) Reflect.set(within, name, [inside, structuredClone(inside)]);
    else if (what < 0.45) Reflect.set(within, name, nested(inside, 400));
    else if (what < 0.5 && typeof inside === 'string') Reflect.set(within, name, `${inside}${inside}`);
    else Reflect.set(within, name, chance.pick(values));
  }
  return copy;
}

function nested(value: unknown, times: number): unknown {
  let now = value;
  for (let left = times; left > 0; left--) now = [now];
  return now;
}
