import { createHash, pbkdf2Sync, createDecipheriv } from 'node:crypto';
import { zipSync } from 'fflate';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { paper } from '../../../../tests/unit/classroom';
import { at, attemptOf, samples, sittingOf, studentOf } from '../../../../tests/unit/samples';
import { paperFile } from '../../exchange/carriedFiles';
import { assetId, packedAsset } from '../../basics/assetBytes';
import { packetSealer, packetText, readPacket, unsealedPacket, type Packet } from './packetFile';
import { sealHolds } from './code';
import { packetsIn } from './packetFiles';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const sitting = sittingOf({ accessCode: 'SECRET-CODE' });
let chances = 0;
const chance = (length: number) => Uint8Array.from({ length }, () => (chances += 7) % 256);

async function answers(): Promise<Packet> {
  const bytes = bytesOf('a photo');
  const file = { id: await assetId(bytes), name: 'plot.jpg', mediaType: 'image/jpeg', size: bytes.length };
  return {
    kind: 'answers',
    content: {
      sittingId: 'sitting1',
      student: { joinCode: 'K7M4QX', familyName: 'Nguyễn', givenName: 'Linh' },
      attempts: [
        attemptOf({ files: [file], answers: { q4: { response: { text: 'iron “near” \u2028 it' }, at } } }),
      ],
      files: [packedAsset({ ...file, bytes })],
      savedAt: at,
    },
  };
}

describe('a packet as a file', () => {
  let packet: Packet;
  let text: string;
  beforeAll(async () => {
    packet = await answers();
    text = await packetText(packet, 'Mock exam');
  });

  it('comes back as it went, however the file is laid out', async () => {
    const read = { outcome: 'read', packet, changed: false };
    expect(await readPacket(bytesOf(text))).toEqual(read);
    const laidOut = JSON.stringify(JSON.parse(text), null, 2).replaceAll('\n', '\r\n');
    expect(await readPacket(bytesOf(`\ufeff${laidOut}\r\n`))).toEqual(read);
  });

  // FIPS 180-4 by another implementation (OpenSSL, through Node).
  it('its digest is the SHA-256 of its content', () => {
    const whole = JSON.parse(text) as { sha256: string; content: string };
    expect(whole.sha256).toBe(createHash('sha256').update(whole.content, 'utf8').digest('hex'));
  });

  it('one that was changed is told from one that is damaged, and both from another sort of file', async () => {
    const changed = text.replace('iron', 'copper');
    expect(await readPacket(bytesOf(changed))).toMatchObject({ outcome: 'read', changed: true });
    const refused = async (bytes: Uint8Array) => {
      const read = await readPacket(bytes);
      return read.outcome === 'refused' ? read.why : read.outcome;
    };
    expect(await refused(bytesOf(text.slice(0, -200)))).toBe('damaged');
    expect(await refused(bytesOf(text.replace('\\"attempts\\"', '\\"attempt\\"')))).toBe('damaged');
    // A photo that is not the one it was.
    expect(await refused(bytesOf(text.replace(btoa('a photo'), btoa('b photo'))))).toBe('damaged');
    // The field is named, so that who made the file can find it.
    expect(await readPacket(bytesOf(text.replace('\\"attempts\\"', '\\"attempt\\"')))).toMatchObject({
      place: 'content.attempts',
    });
    expect(await readPacket(bytesOf(text.replace(btoa('a photo'), btoa('b photo'))))).toMatchObject({
      place: 'content.files.0',
    });
    expect(await refused(bytesOf('Dear teacher, here are my answers'))).toBe('notPacket');
    expect(await refused(bytesOf('{"answers": []}'))).toBe('notPacket');
    expect(await refused(new Uint8Array())).toBe('notPacket');
    expect(await refused(bytesOf(text.replace('"version":1', '"version":2')))).toBe('newer');
  });

  it('whatever byte of it is spoilt, it is never taken for what was saved', async () => {
    const whole = bytesOf(text);
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), async (place, by) => {
        const spoilt = Uint8Array.from(whole);
        spoilt[place] = (spoilt[place] ?? 0) ^ by;
        const read = await readPacket(spoilt);
        if (read.outcome !== 'read' || read.changed) return;
        // Only what is beside the content may differ: the title.
        expect(read.packet).toEqual(packet);
      }),
      { numRuns: 300 },
    );
  });

  it('a zip gives all that is in it, without what systems put beside', async () => {
    const zip = zipSync({
      'class/linh.json': bytesOf(text),
      'class/': new Uint8Array(),
      'class/.DS_Store': bytesOf('x'),
      '__MACOSX/class/._linh.json': bytesOf('x'),
      'read me.txt': bytesOf('x'),
    });
    const found = await packetsIn('all.zip', zip);
    expect(found.map(({ name, read }) => [name, read.outcome])).toEqual([
      ['all.zip: class/linh.json', 'read'],
      ['all.zip: read me.txt', 'refused'],
    ]);
    expect(await packetsIn('torn.zip', zip.slice(0, 60))).toEqual([
      { name: 'torn.zip', read: { outcome: 'refused', why: 'badZip' } },
    ]);
    const bomb = zipSync({ 'a.json': new Uint8Array(160 * 1024 * 1024) });
    expect(await packetsIn('bomb.zip', bomb)).toMatchObject([{ read: { why: 'tooLarge' } }]);
  });
});

describe('the paper as a file', () => {
  const whole = { ...paper, questions: Object.values(samples).map((each, n) => ({ ...each, id: `k${n}` })) };
  const packet: Packet = {
    kind: 'paper',
    content: paperFile(sitting, whole, [], studentOf({ extraPercent: 25 }), [
      {
        id: 'a',
        sittingId: 'sitting1',
        studentId: 'student1',
        at,
        kind: 'minutes',
        minutes: 10,
        reason: 'SECRET-REASON',
      },
    ]),
  };

  it('holds no key, scheme, note, reason or code, of any kind of question', async () => {
    const text = await packetText(packet, 'Mock exam');
    expect(text).not.toContain('SECRET');
    expect(text).not.toContain(studentOf().joinCode);
    expect(await readPacket(bytesOf(text))).toEqual({ outcome: 'read', packet, changed: false });
  });

  it('sealed it opens with the code alone, however that is typed', async () => {
    const text = await packetSealer('accessCode', 'K7M4Q-XR2TB', chance)(packet, 'Mock exam');
    expect(text).not.toContain('questions');
    const read = await readPacket(bytesOf(text));
    if (read.outcome !== 'sealed') throw new Error(read.outcome);
    expect(read).toMatchObject({
      title: 'Mock exam',
      seal: { opensWith: 'accessCode', iterations: 600_000 },
    });
    expect(await unsealedPacket(read.seal, ' k7m4q xr2tb')).toEqual({
      outcome: 'read',
      packet,
      changed: false,
    });
    expect(await unsealedPacket(read.seal, 'K7M4Q-XR2TC')).toBeNull();
    const spoilt = text.replace(/("data\\":\\".{40})./, '$1!');
    expect(await readPacket(bytesOf(spoilt))).toMatchObject({ outcome: 'refused', why: 'damaged' });
  });

  it('a seal that asks for ten million rounds is not begun: it would keep a phone busy for minutes', async () => {
    const text = await packetSealer('accessCode', 'K7M4Q-XR2TB', chance)(packet, 'Mock exam');
    const whole = JSON.parse(text) as { content: string; sha256: string };
    whole.content = whole.content.replace('"iterations":600000', '"iterations":10000000');
    whole.sha256 = createHash('sha256').update(whole.content).digest('hex');
    expect(await readPacket(bytesOf(JSON.stringify(whole)))).toMatchObject({
      outcome: 'refused',
      why: 'damaged',
      place: 'content.iterations',
    });
  });

  // RFC 8018 (PBKDF2) and NIST SP 800-38D (GCM) by another implementation: anyone can open it who follows formats.md.
  it('the seal is opened by other software', async () => {
    const text = await packetSealer('joinCode', 'K7M 4QX', chance)(packet, 'Mock exam');
    const { content } = JSON.parse(text) as { content: string };
    const { iterations, salt, nonce, data } = JSON.parse(content) as Record<string, string> & {
      iterations: number;
    };
    const raw = (base64 = '') => Buffer.from(base64, 'base64');
    const key = pbkdf2Sync('k7m4qx', raw(salt), iterations, 32, 'sha256');
    const opened = createDecipheriv('aes-256-gcm', key, raw(nonce));
    opened.setAuthTag(raw(data).subarray(-16));
    const inside = Buffer.concat([opened.update(raw(data).subarray(0, -16)), opened.final()]).toString(
      'utf8',
    );
    expect(JSON.parse(inside)).toMatchObject({ gribbet: 'packet', kind: 'paper', title: 'Mock exam' });
  });

  it('many sealed with one code share a key, and never a nonce', async () => {
    const seal = packetSealer('accessCode', 'K7M4QXR2TB', chance);
    const texts = await Promise.all([1, 2, 3].map(() => seal(packet, 'T')));
    const seals = texts.map(
      (text) =>
        JSON.parse((JSON.parse(text) as { content: string }).content) as { salt: string; nonce: string },
    );
    expect(new Set(seals.map(({ salt }) => salt)).size).toBe(1);
    expect(new Set(seals.map(({ nonce }) => nonce)).size).toBe(3);
  });

  it.each([
    ['ebb', false],
    ['lighthouse', false],
    ['flood2026', false],
    ['K7M4-QXR2', true],
    ['four words by the sea', true],
    ['12345678', false],
  ])('%s as a seal holds: %s', (code, holds) => {
    expect(sealHolds(code)).toBe(holds);
  });
});
