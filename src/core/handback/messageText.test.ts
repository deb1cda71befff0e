import { simpleParser } from 'mailparser';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import { emlOf } from '../formats/eml';
import { seatsOf } from '../seats/seats';
import { fieldsOf, filledIn, tellingFields, unknownFields } from './messageText';

const records = {
  sitting: sittingOf(),
  questions: paperQuestions,
  students: [
    studentOf(),
    studentOf({ id: 'student2', joinCode: 'B2B2B2', givenName: '', familyName: 'Silva' }),
  ],
  allowances: [],
  attempts: [attemptOf({ handedInAt: at, answers: { q1: { response: { picked: ['b'] }, at } } })],
  marks: [markOf({ points: 2 })],
  releases: [{ sittingId: 'sitting1', studentId: 'student1', releasedAt: at }],
  openings: [],
};
const about = {
  ...{ paper: 'Tides {1}', origin: 'https://school.example' },
  scale: { by: 'points' as const, lines: [{ grade: 'pass', from: 2 }] },
  todo: { open: 'Open it.', see: 'Wait.', nothing: 'Done.' },
};
const [amara, silva] = seatsOf(records, Date.parse(at) + 1_000).map((seat) => fieldsOf(seat, about));

describe('a message to a student', () => {
  it('is filled in with what is the student’s own; what is no field stays', () => {
    const text = '{given name}, {name}: {paper} {link} {join code} {total} {grade} {what to do} {nothing}';
    expect(amara && filledIn(text, amara)).toBe(
      'Amara, Amara Okafor: Tides {1} https://school.example/sit?code=K7M4QX K7M 4QX 3 of 8 pass Open it. {nothing}',
    );
    expect(silva && filledIn('{given name}{total}{grade}', silva)).toBe('Silva');
    expect(unknownFields(text)).toEqual(['nothing']);
  });

  it('tells something of the result only where its wording asks for it', () => {
    expect(tellingFields('Dear {given name}, see {link}')).toEqual([]);
    expect(tellingFields('You have {total}: {grade}')).toEqual(['total', 'grade']);
    // The link is the way in and holds nothing of the result.
    expect(amara?.link).not.toMatch(/3|pass/);
  });
});

describe('a message as a file', () => {
  // RFC 5322 and RFC 2047, read by another library.
  it('is read by others as it was written', async () => {
    const text = 'Dear Zoë,\n.\nyour paper “潮汐” is back: https://school.example/sit?code=K7M4QX\n';
    const message = {
      ...{ id: 'm1', sittingId: 's', studentId: 'a', email: 'zoe@example.org', at },
      ...{ subject: 'Zurück: Prüfung über Gezeiten, 潮汐 und noch viel mehr davon, was lange dauert', text },
    };
    const mail = await simpleParser(emlOf(message));
    const to = Array.isArray(mail.to) ? mail.to[0] : mail.to;
    expect(to?.value[0]?.address).toBe('zoe@example.org');
    expect(mail.subject).toBe(message.subject);
    expect(mail.text?.trim()).toBe(text.trim());
    expect(mail.date?.toISOString()).toBe(at);
    for (const line of emlOf(message).split('\r\n')) expect(line.length).toBeLessThanOrEqual(998);
    // Without an address it is there all the same, to be given one.
    expect((await simpleParser(emlOf({ ...message, email: '' }))).subject).toBe(message.subject);
  });
});
