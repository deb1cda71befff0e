import type { CarriedFile, FileReply } from '@/carriers/Carrier';
import { paperPacket } from '@/core/formats/packet/paper';
import { assetId } from '@/core/model/asset';
import { assetsIn, mostAttemptBytes, mostFileBytes, pictureType } from '@/core/model/file';
import type { Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { homeSitting } from './exchange';
import { keepAttempt, standingOfStudent, stillTaken, studentWith, withAttempt } from './exchangePlace';
import { desk } from './tables';

/** How many files one attempt may have. */
const mostAttemptFiles = 200;

/** Takes a file of a student in, before the answer that names it. What it is, is read from its bytes. */
export async function handOverFile(
  joinCode: string,
  attemptId: string,
  { id, name, mediaType, bytes }: CarriedFile,
  now: number,
): Promise<FileReply> {
  if (bytes.length > mostFileBytes) return 'tooMuch';
  if ((await assetId(bytes)) !== id) return 'unknown';
  const ref = { id, name, mediaType: pictureType(bytes) ?? mediaType, size: bytes.length };
  let reply: FileReply = 'unknown';
  await withAttempt(joinCode, attemptId, now, async (attempt, terms) => {
    const files = attempt.files ?? [];
    const together = files.reduce((sum, file) => sum + file.size, bytes.length);
    if (!stillTaken(attempt, terms, now)) reply = 'over';
    else if (files.some((file) => file.id === id)) reply = 'kept';
    else if (files.length >= mostAttemptFiles || together > mostAttemptBytes) reply = 'tooMuch';
    else {
      await desk.assets.put({ ...ref, bytes });
      await keepAttempt({ ...attempt, files: [...files, ref] });
      reply = 'kept';
    }
    return attempt;
  });
  return reply;
}

/** A picture of a paper that this student has before him, or a file that he handed over himself. */
export async function fileFor(
  joinCode: string,
  sittingId: string,
  fileId: string,
  now: number,
): Promise<CarriedFile | null> {
  const student = await studentWith(joinCode);
  const sitting = await desk.sittings.get(sittingId);
  if (!student || !sitting) return null;
  const { attempts } = await standingOfStudent(sitting, student, now);
  const mine = attempts.flatMap((attempt) => attempt.files ?? []).some((file) => file.id === fileId);
  if (!mine && !(await picturesFor(sitting, student, attempts, now)).has(fileId)) return null;
  return (await desk.assets.get(fileId)) ?? null;
}

/** The pictures that a student may see: of the instructions while he may start, of the paper once he has. */
async function picturesFor(
  sitting: Sitting,
  student: Student,
  attempts: readonly Attempt[],
  now: number,
): Promise<Set<string>> {
  const { instructions } = await homeSitting(sitting, student, now);
  const papers = await Promise.all(
    attempts.map(async (attempt) => {
      const paper = await desk.paperVersions.get([sitting.paperId, attempt.paperVersion]);
      return paper && paperPacket(paper, attempt, sitting);
    }),
  );
  return assetsIn([instructions, papers]);
}
