import { paperPacket } from '../formats/packet/paper';
import { assetId, unnamed } from '../basics/assetBytes';
import { assetsIn, mostAttemptBytes, mostFileBytes, pictureType } from '../basics/fileRules';
import type { Student } from '../model/people';
import type { Attempt, Sitting } from '../model/sitting';
import { homeSitting } from './entering';
import type { CarriedFile, FileReply } from './messages';
import type { ExchangeRepository } from './repository';
import { attemptsAndTermsOf, studentWith, withAttempt, type AttemptAct } from './attemptOf';

/** How many files one attempt may have. */
const mostAttemptFiles = 200;

/** Takes a file of a student in, before the answer that names it. What it is, is read from its bytes. */
export async function handOverFile(
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  { id, name, mediaType, bytes }: CarriedFile,
  now: number,
): Promise<FileReply> {
  if (bytes.length > mostFileBytes) return 'tooMuch';
  if ((await assetId(bytes)) !== id) return 'unknown';
  const ref = { id, name, mediaType: pictureType(bytes) ?? mediaType, size: bytes.length };
  let reply: FileReply = 'unknown';
  const put = async ({ attempt, keep }: AttemptAct) => {
    const files = attempt.files ?? [];
    const together = files.reduce((sum, file) => sum + file.size, bytes.length);
    // What an answer names that comes after the end is kept with it.
    if (files.some((file) => file.id === id)) reply = 'kept';
    else if (files.length >= mostAttemptFiles || together > mostAttemptBytes) reply = 'tooMuch';
    else {
      await keep.file({ ...ref, bytes });
      await keep.attempt({ ...attempt, files: [...files, ref] });
      reply = 'kept';
    }
    return attempt;
  };
  await withAttempt(place, joinCode, attemptId, now, put, { keeps: 'file' });
  return reply;
}

/** A picture of a paper that this student has before him, or a file that he handed over himself. */
export async function fileFor(
  place: ExchangeRepository,
  joinCode: string,
  sittingId: string,
  fileId: string,
  now: number,
): Promise<CarriedFile | null> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return null;
  const { attempts } = await attemptsAndTermsOf(place, sitting, student, now);
  const mine = attempts.flatMap((attempt) => attempt.files ?? []).some((file) => file.id === fileId);
  if (!mine && !(await picturesFor(place, sitting, student, attempts, now)).has(fileId)) return null;
  const file = await place.file(fileId);
  return file ? (mine ? file : unnamed(file)) : null;
}

/** The pictures that a student may see: of the instructions while he may start, of the paper once he has. */
async function picturesFor(
  place: ExchangeRepository,
  sitting: Sitting,
  student: Student,
  attempts: readonly Attempt[],
  now: number,
): Promise<Set<string>> {
  const { instructions } = await homeSitting(place, sitting, student, now);
  const papers = await Promise.all(
    attempts.map(async (attempt) => {
      const paper = await place.paperVersion(sitting.paperId, attempt.paperVersion);
      return paper && paperPacket(paper, attempt, sitting);
    }),
  );
  return assetsIn([instructions, papers]);
}
