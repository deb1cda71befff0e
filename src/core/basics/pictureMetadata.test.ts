import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withoutMetadata } from './pictureMetadata';

const text = (words: string) => [...new TextEncoder().encode(words)];
const segment = (marker: number, body: number[]) => [
  ...[0xff, marker, (body.length + 2) >> 8, (body.length + 2) & 255],
  ...body,
];
const scan = [...segment(0xda, [1, 1, 0, 0, 63, 0]), 0x12, 0xff, 0x00, 0xe1, 0x34, 0xff, 0xd9];
const jfif = segment(0xe0, [...text('JFIF'), 0, 1, 1, 0, 0, 1, 0, 1, 0, 0]);

/** Exif (CIPA DC-008, 4.5): a TIFF header and one directory with a camera's name and, where it is told, which way up. */
function exif(little: boolean, orientation: number | null): number[] {
  const short = (value: number) => (little ? [value & 255, value >> 8] : [value >> 8, value & 255]);
  const long = (value: number) => (little ? [...short(value), 0, 0] : [0, 0, ...short(value)]);
  const entries = [
    [...short(0x010f), ...short(2), ...long(4), ...text('Lea\0')],
    ...(orientation === null
      ? []
      : [[...short(0x0112), ...short(3), ...long(1), ...short(orientation), 0, 0]]),
  ];
  return segment(0xe1, [
    ...text('Exif\0\0'),
    ...text(little ? 'II' : 'MM'),
    ...short(42),
    ...long(8),
    ...short(entries.length),
    ...entries.flat(),
    ...long(0),
  ]);
}
const jpeg = (...parts: number[][]) => Uint8Array.from([0xff, 0xd8, ...parts.flat(), ...scan]);

describe('a picture without what is written beside it', () => {
  it('a JPEG loses who took it, and stays the right way up', () => {
    const xmp = segment(0xe1, text('http://ns.adobe.com/xap/1.0/\0<Lea>'));
    const words = segment(0xfe, text('by Lea'));
    for (const little of [true, false])
      for (const turned of [null, 1, 6, 8]) {
        const without = withoutMetadata(jpeg(jfif, exif(little, turned), xmp, words));
        const plain = turned === null || turned === 1;
        expect(String.fromCharCode(...without)).not.toContain('Lea');
        expect(without).toEqual(jpeg(jfif, ...(plain ? [] : [upright(turned)])));
      }
  });
  const upright = (turned: number) => [
    ...[0xff, 0xe1, 0, 0x22, ...text('Exif\0\0'), ...text('MM'), 0, 42, 0, 0, 0, 8],
    ...[0, 1, 1, 0x12, 0, 3, 0, 0, 0, 1, 0, turned, 0, 0, 0, 0, 0, 0],
  ];

  it('one without is the same bytes', () => {
    const bytes = jpeg(jfif);
    expect(withoutMetadata(bytes)).toBe(bytes);
    const other = Uint8Array.from(text('%PDF-1.7'));
    expect(withoutMetadata(other)).toBe(other);
  });

  it('a PNG and a WebP lose their texts', () => {
    const chunk = (name: string, body: number[]) => [
      0,
      0,
      0,
      body.length,
      ...text(name),
      ...body,
      1,
      2,
      3,
      4,
    ];
    const begin = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
    const png = (...chunks: number[][]) => Uint8Array.from([...begin, ...chunks.flat()]);
    const kept = [chunk('IHDR', [1]), chunk('IDAT', [2]), chunk('IEND', [])];
    const [head = [], ...rest] = kept;
    expect(
      withoutMetadata(png(head, chunk('tEXt', text('Author\0Lea')), chunk('eXIf', [9]), ...rest)),
    ).toEqual(png(...kept));
    const part = (name: string, body: number[]) => [
      ...[...text(name), body.length, 0, 0, 0, ...body],
      ...(body.length % 2 ? [0] : []),
    ];
    const webp = (...parts: number[][]) => {
      const body = [...text('WEBP'), ...parts.flat()];
      return Uint8Array.from([...text('RIFF'), body.length, 0, 0, 0, ...body]);
    };
    const extended = (flags: number) => part('VP8X', [flags, 0, 0, 0, 9, 0, 0, 9, 0, 0]);
    expect(withoutMetadata(webp(extended(0x1c), part('VP8 ', [1, 2]), part('EXIF', text('Lea'))))).toEqual(
      webp(extended(0x10), part('VP8 ', [1, 2])),
    );
  });

  it('whatever the bytes are, nothing is thrown and nothing grows by more than a turn', () => {
    const begins = fc.constantFrom(
      [0xff, 0xd8, 0xff],
      [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
      text('RIFFxxxxWEBP'),
    );
    fc.assert(
      fc.property(begins, fc.array(fc.nat(255), { maxLength: 200 }), (begin, rest) => {
        const bytes = Uint8Array.from([...begin, ...rest]);
        expect(withoutMetadata(bytes).length).toBeLessThanOrEqual(bytes.length + 36 * 200);
      }),
    );
  });
});
