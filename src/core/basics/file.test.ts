import { describe, expect, it } from 'vitest';
import { assetId, packedAsset, unpackedAsset } from './assetBytes';
import { assetsIn, pictureType } from './fileRules';

const bytes = (...numbers: number[]) => Uint8Array.from(numbers);

describe('the bytes of a file', () => {
  // FIPS 180-4, example of SHA-256 of "abc": ba7816bf 8f01cfea 414140de 5dae2223 b00361a3 96177a9c b410ff61 f20015ad.
  it('its id is their SHA-256', async () => {
    const id = await assetId(new TextEncoder().encode('abc'));
    expect(Buffer.from(id, 'base64url').toString('hex')).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
    );
  });

  // RFC 4648, section 10: BASE64("foobar") = "Zm9vYmFy".
  it('as text and back, at any length', () => {
    const asset = (content: Uint8Array<ArrayBuffer>) => ({
      id: 'a',
      name: 'n',
      mediaType: 'image/png',
      size: content.length,
      bytes: content,
    });
    expect(packedAsset(asset(new TextEncoder().encode('foobar'))).base64).toBe('Zm9vYmFy');
    const long = Uint8Array.from({ length: 100_003 }, (_, index) => (index * 7) % 256);
    expect(unpackedAsset(packedAsset(asset(long)))).toEqual(asset(long));
  });

  // PNG (W3C, 5.2), JPEG (ITU-T T.81, B.1.1.3), GIF89a (17), WebP (RFC 9649, 2.4): what each begins with.
  it('what sort of picture they are does not go by the name', () => {
    expect(pictureType(bytes(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a))).toBe('image/png');
    expect(pictureType(bytes(0xff, 0xd8, 0xff, 0xe0))).toBe('image/jpeg');
    expect(pictureType(new TextEncoder().encode('GIF89a'))).toBe('image/gif');
    expect(pictureType(new TextEncoder().encode('RIFF1234WEBPVP8 '))).toBe('image/webp');
    expect(pictureType(new TextEncoder().encode('<svg onload="x()">'))).toBeNull();
    expect(pictureType(bytes())).toBeNull();
  });

  it('which pictures stand in something', () => {
    const stem = {
      type: 'doc',
      content: [{ type: 'picture', attrs: { asset: 'one' } }, { content: [null] }],
    };
    expect([...assetsIn([{ stem }, { canvas: { asset: 'two' } }, 'asset', 3])]).toEqual(['one', 'two']);
  });
});
