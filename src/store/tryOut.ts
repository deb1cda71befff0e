import { Student } from '@/core/model/people';
import { newId, newJoinCode } from './ids';
import { dropOwned } from './owners';
import { dropUnusedVersion } from './papers';
import { desk } from './tables';

/**
 * The teacher's own try-out of a sitting: a student on no list whose attempts count nowhere. Not in the log: it changes
 * nothing that is kept, and a new one takes the place of the one before.
 *
 * @returns the join code to sit it with
 */
export async function beginTryOut(sittingId: string): Promise<string> {
  return desk.transaction('rw', desk.tables, async () => {
    await clearTryOut(sittingId);
    const taken = new Set((await desk.students.toArray()).map((student) => student.joinCode));
    const student = Student.parse({
      id: newId(),
      familyName: '',
      givenName: 'Try-out',
      number: '',
      email: '',
      joinCode: newJoinCode(taken),
      groupIds: [],
      role: 'tryOut',
      onlySittingId: sittingId,
    } satisfies Student);
    await desk.students.add(student);
    return student.joinCode;
  });
}

/** Takes a try-out away without trace. */
export async function clearTryOut(sittingId: string): Promise<void> {
  await desk.transaction('rw', desk.tables, async () => {
    const tryOuts = await desk.students
      .filter(({ role, onlySittingId }) => role === 'tryOut' && onlySittingId === sittingId)
      .toArray();
    const sitting = await desk.sittings.get(sittingId);
    for (const { id } of tryOuts) {
      const attempts = await desk.attempts.where('studentId').equals(id).toArray();
      await dropOwned('students', id);
      for (const { paperVersion } of attempts)
        if (sitting) await dropUnusedVersion(sitting.paperId, paperVersion);
      await desk.students.delete(id);
    }
  });
}
