import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, attemptOf, paperQuestions } from '../../../tests/unit/samples';
import { paperPacket } from '@/core/formats/packet/paper';
import { sitDesk } from '@/store/sitTables';
import { forgetHeld, holdAttempt, keepHeld } from './heldAttempts';

const paper = { title: 'Tides', instructions: 'Go', questions: paperQuestions };
const who = { joinCode: 'K7M4QX', familyName: 'Okafor', givenName: 'Amara', groups: [] };
const textAnswer = (text: string) => ({ response: { text }, at });

beforeEach(async () => {
  await sitDesk.delete();
  await sitDesk.open();
});

describe('what the student’s device holds', () => {
  it('begins with what the desk has: another device goes on where the first stopped', async () => {
    const packet = paperPacket(
      paper,
      attemptOf({ answers: { q4: textAnswer('from the desk') }, comeBack: ['q1'] }),
    );
    const held = await holdAttempt(who, packet);
    expect(held).toMatchObject({
      answers: { q4: textAnswer('from the desk') },
      comeBack: ['q1'],
      unsent: [],
    });
  });

  it('what was typed here and never handed over is laid over what the desk has', async () => {
    const packet = paperPacket(
      paper,
      attemptOf({ answers: { q3: textAnswer('118'), q4: textAnswer('older') } }),
    );
    const held = await holdAttempt(who, packet);
    await keepHeld({
      ...held,
      answers: { ...held.answers, q4: textAnswer('typed as the power went') },
      unsent: ['q4'],
    });
    const again = await holdAttempt(who, packet);
    expect(again.answers).toEqual({ q3: textAnswer('118'), q4: textAnswer('typed as the power went') });
    expect(again.unsent).toEqual(['q4']);
  });

  it('what was handed over gives way to what the desk has: the other device may be further on', async () => {
    const packet = paperPacket(
      paper,
      attemptOf({ answers: { q4: textAnswer('newer, from the other device') } }),
    );
    const held = await holdAttempt(who, packet);
    await keepHeld({ ...held, answers: { q4: textAnswer('older, from here') }, unsent: [] });
    expect((await holdAttempt(who, packet)).answers.q4).toEqual(textAnswer('newer, from the other device'));
  });

  it('holds no key, scheme, note or comment, and is gone after handing in', async () => {
    await holdAttempt(who, paperPacket(paper, attemptOf()));
    expect(JSON.stringify(await sitDesk.attempts.toArray())).not.toContain('SECRET');
    await forgetHeld('attempt1');
    expect(await sitDesk.attempts.count()).toBe(0);
  });
});

describe('a packet', () => {
  it('has the questions in the order this student was given, and no others', () => {
    const packet = paperPacket(paper, attemptOf({ questionIds: ['q3', 'q1', 'gone'] }));
    expect(packet.questions.map((question) => question.id)).toEqual(['q3', 'q1']);
  });
});
