import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, openQuestion } from '../../../../tests/unit/samples';
import { shareContent } from '../../marking/shares/content';
import type { MarksBack } from '../../model/share';
import { marksText, readMarks, readShare, shareText } from './shareFile';

let chances = 0;
const chance = (length: number) => Uint8Array.from({ length }, () => (chances += 7) % 256);
const bytesOf = (text: string) => new TextEncoder().encode(text);
const code = 'ABCDE-23456';
const secret = '5e'.repeat(32);
const content = shareContent(
  {
    ...{ id: 'share1', sittingId: 'sitting1', marker: 'Ana', purpose: 'marker', way: 'file', code, secret },
    ...{ givenAt: at, answers: [{ questionId: openQuestion.id, attemptIds: ['a1'] }] },
  },
  'Mock exam',
  { title: 'Tides', instructions: '', paperId: 'p', version: 1, frozenAt: at, questions: [openQuestion] },
  [attemptOf({ id: 'a1', answers: { [openQuestion.id]: { response: { text: 'iron near it' }, at } } })],
  [],
);
const back: MarksBack = {
  ...{ shareId: 'share1', savedAt: at },
  marks: [markOf({ attemptId: 'share1.0', questionId: openQuestion.id, points: 2, comment: 'SEEN' })],
};

describe('a share of marking as a file', () => {
  it('comes back as it went, by its code however that is typed, and by no other', async () => {
    const text = await shareText(content, code, chance);
    expect(text).not.toContain('iron');
    expect(text).not.toContain(openQuestion.id + '"');
    expect(await readShare(bytesOf(text), 'abcde 23456')).toEqual({ outcome: 'read', content });
    expect(await readShare(bytesOf(text), 'ABCDE-23457')).toEqual({ outcome: 'wrongCode' });
  });

  it('one that was spoilt, or is something else, says so', async () => {
    const text = await shareText(content, code, chance);
    const place = text.indexOf('data') + 40;
    const spoilt = `${text.slice(0, place)}${text[place] === 'A' ? 'B' : 'A'}${text.slice(place + 1)}`;
    expect(await readShare(bytesOf(spoilt), code)).toMatchObject({ outcome: 'refused', why: 'damaged' });
    expect(await readShare(bytesOf('Dear colleague'), code)).toMatchObject({ why: 'notPacket' });
    const marks = await marksText(back, 'Mock exam', secret, chance);
    expect(await readShare(bytesOf(marks), code)).toMatchObject({ outcome: 'refused', why: 'otherKind' });
  });
});

describe('marks on their way back', () => {
  it('are read with the secret of their share alone', async () => {
    const text = await marksText(back, 'Mock exam', secret, chance);
    expect(text).not.toContain('SEEN');
    expect(await readMarks(bytesOf(text), (id) => (id === 'share1' ? secret : undefined))).toEqual({
      outcome: 'read',
      back,
    });
    expect(await readMarks(bytesOf(text), () => undefined)).toEqual({
      outcome: 'unknown',
      title: 'Mock exam',
    });
    expect(await readMarks(bytesOf(text), () => 'another')).toMatchObject({
      outcome: 'refused',
      place: 'content.seal',
    });
  });

  it('sealed for one share they are not taken for another', async () => {
    const text = await marksText(back, 'Mock exam', secret, chance);
    const whole = JSON.parse(text) as { content: string; sha256: string };
    whole.content = whole.content.replace('"share1"', '"share2"');
    const { createHash } = await import('node:crypto');
    whole.sha256 = createHash('sha256').update(whole.content).digest('hex');
    expect(await readMarks(bytesOf(JSON.stringify(whole)), () => secret)).toMatchObject({
      outcome: 'refused',
      place: 'content.shareId',
    });
  });
});
