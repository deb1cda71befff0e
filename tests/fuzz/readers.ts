import { utils, write } from '@e965/xlsx';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { buildDemo } from '@demo/buildDemo';
import { strToU8, zipSync } from 'fflate';
import { chanceFrom, type Chance } from '@/core/basics/chance';
import { contentOf, readBackup, type Backup } from '@/core/formats/backup';
import { archiveVersion } from '@/core/formats/backup/version';
import { bodyOf } from '@/core/formats/csv/heading';
import { guessColumns } from '@/core/formats/csv/studentColumns';
import { studentRows } from '@/core/formats/csv/studentRows';
import { csvFrom, type TableRow } from '@/core/formats/csv/table';
import { readRoster } from '@/core/formats/oneroster/readRoster';
import { packetSealer, packetText, readPacket, unsealedPacket } from '@/core/formats/packet/packetFile';
import { packetsIn } from '@/core/formats/packet/packetFiles';
import { paperFile } from '@/core/exchange/carriedFiles';
import { papersFromQti } from '@/core/formats/qti/readPackage';
import { withPictures } from '@/core/formats/qti/withPictures';
import { qtiPackage } from '@/core/formats/qti/writePackage';
import { orRefused } from '@/core/basics/refused';
import { guessQuestionColumns } from '@/core/formats/sheet/questionColumns';
import { questionRows, questionTable } from '@/core/formats/sheet/questionRows';
import { sheetRows } from '@/core/formats/sheet/sheetRows';
import { workbookFrom } from '@/core/formats/sheet/workbook';
import { kindOf, type Question } from '@/core/kinds';
import { PaperContent } from '@/core/model/paper';
import { Rich } from '@/ui/Rich';
import { refusalWords } from '@/words/losses';
import { paper } from '../unit/classroom';
import { at, attemptOf, counter, samples, sittingOf, studentOf } from '../unit/samples';
import { backupBytes, backupIn } from '../unit/savedDesk';
import { mutatedBytes, mutatedInside, mutatedJson } from './mutate';

type Bytes = Uint8Array<ArrayBuffer>;

/** What became of a mutated file. */
export type Outcome =
  /** In words, with the file or place named. */
  | { refused: string }
  /** It was read, and what was read is to be the same as from the file as it was. */
  | { same: unknown }
  /** It was read, held together, and could be kept and drawn. */
  | { taken: true };

export interface Reader {
  name: string;
  /** The file as it was. */
  file: Bytes;
  /** Other files of it than mutated bytes. */
  mutate?: (file: Bytes, chance: Chance) => Bytes;
  read: (bytes: Bytes) => Promise<Outcome>;
}

const fail = (why: string): never => {
  throw new Error(why);
};

/** Whatever the desk and a student's page do with a question that was kept. */
function checkQuestion(question: Question): void {
  const kind = kindOf(question);
  const checked = kind.schema.safeParse(question);
  if (!checked.success) fail(`a question that cannot be kept: ${checked.error.message}`);
  const again = kind.schema.parse(JSON.parse(JSON.stringify(question)));
  if (JSON.stringify(again) !== JSON.stringify(checked.data)) fail('it is kept as another one');
  const stopped = kind.findings(question).some(({ level }) => level === 'stops');
  kind.keyText(question);
  kind.offered?.(question);
  const seen = kind.forStudent(question, 'seed');
  kind.studentSchema.parse(seen);
  renderToStaticMarkup(createElement(Rich, { text: question.stem }));
  if ('options' in question)
    for (const { text } of question.options) renderToStaticMarkup(createElement(Rich, { text }));
  // What is not ready to be given out is sat by nobody.
  if (stopped) return;
  const guess = kind.guess(question, chanceFrom(1));
  if (kind.hasKey?.(question)) kind.score?.(question, guess);
  kind.asText(question, guess);
}

const refusedOr = async <T>(
  name: string,
  read: () => T | Promise<T>,
  then: (read: T) => Outcome,
): Promise<Outcome> => {
  const reply = await orRefused(read);
  if ('refused' in reply) return { refused: refusalWords(reply.refused, name) };
  return then(reply.read);
};

/** Rows of a sheet, as students and as questions: each row is either good or named. */
function checkRows(rows: TableRow[]): Outcome {
  const columns = guessColumns(rows);
  const people = bodyOf(rows, columns.heading);
  const students = studentRows(people, columns.meanings, [], columns.names);
  if (students.good.length + students.bad.length !== people.length) fail('a row of a student is lost');
  const guess = guessQuestionColumns(rows);
  const asked = bodyOf(rows, guess.heading);
  const questions = questionRows(asked, guess.meanings, counter('n'));
  if (questions.good.length + questions.bad.length !== asked.length) fail('a row of a question is lost');
  for (const { question } of questions.good) checkQuestion(question);
  return { taken: true };
}

const register = () =>
  zipSync({
    'users.csv': strToU8(
      'sourcedId,status,givenName,familyName,identifier,email\r\nu1,,Amara,Okafor,2101,amara@example.org\r\nu2,,Linh,"Tran, Thi",,\r\n',
    ),
    'classes.csv': strToU8('sourcedId,status,title\r\nc1,,Monday\r\nc2,,Wednesday\r\n'),
    'enrollments.csv': strToU8(
      'sourcedId,classSourcedId,userSourcedId,role\r\ne1,c1,u1,student\r\ne2,c2,u1,student\r\ne3,c2,u2,student\r\n',
    ),
  });

const json = (value: unknown): Bytes => new TextEncoder().encode(JSON.stringify(value));
const parsed = (bytes: Uint8Array): unknown => JSON.parse(new TextDecoder().decode(bytes));

/** Either its bytes are others, or a value of its JSON is. */
const asJson = (bytes: Bytes, chance: Chance): Bytes =>
  chance.happens(0.4) ? mutatedBytes(bytes, chance) : json(mutatedJson(parsed(bytes), chance));

/** A packet with other content, and a digest that is no longer its own: what was changed by hand. */
const asPacket = (bytes: Bytes, chance: Chance): Bytes => {
  if (chance.happens(0.3)) return mutatedBytes(bytes, chance);
  const wrapping = parsed(bytes) as { content: string };
  return json({ ...wrapping, content: JSON.stringify(mutatedJson(JSON.parse(wrapping.content), chance)) });
};

const asZip = (bytes: Bytes, chance: Chance): Bytes =>
  chance.happens(0.3) ? mutatedBytes(bytes, chance) : mutatedInside(bytes, chance);

function checkPapers(papers: readonly PaperContent[]): Outcome {
  for (const each of papers) {
    PaperContent.parse(JSON.parse(JSON.stringify(each)));
    // Pictures that could not be kept are taken out.
    withPictures(each, new Map());
    for (const question of each.questions) checkQuestion(question);
  }
  return { taken: true };
}

async function readPackets(bytes: Bytes): Promise<Outcome> {
  const [{ name, read } = fail('nothing was said'), ...more] = await packetsIn('packet.json', bytes);
  if (read.outcome === 'refused') {
    if (read.why !== 'damaged') return { refused: `${name} ${read.why}` };
    return { refused: `${name} ${read.place || 'whole file'} ${read.expected}` };
  }
  for (const each of [{ read }, ...more])
    if (each.read.outcome === 'read') {
      const { packet, changed } = each.read;
      const again = await readPacket(new TextEncoder().encode(await packetText(packet, 'again')));
      if (again.outcome !== 'read') fail('it cannot be saved again');
      if (!changed && more.length === 0 && !name.includes(':')) return { same: packet };
      if (packet.kind === 'paper') packet.content.paper.questions.forEach(checkQuestion);
    }
  return { taken: true };
}

async function readDesk(bytes: Bytes): Promise<Outcome> {
  const read = await readBackup(new Blob([bytes]));
  if ('fault' in read) return { refused: `backup ${JSON.stringify(read.fault)}` };
  return deskOutcome(read.backup);
}

async function deskOutcome({ savedAt, ...content }: Backup): Promise<Outcome> {
  const again = await backupIn(await backupBytes(content, savedAt));
  if ('fault' in again) fail(`it cannot be saved again: ${JSON.stringify(again.fault)}`);
  return { taken: true };
}

/** The readers of everything that comes in as a file, each with a good file to spoil. */
export async function readers(): Promise<Reader[]> {
  const questions = Object.values(samples);
  const sheet = questionTable(questions).rows;
  const list =
    'Title of the list\r\nFamily name;Given name;Number;Email;Group\r\nOkafor;Amara;2101;a@example.org;Monday\r\n"Tran; Thi";Linh;2102;;\r\n';
  const book = utils.book_new();
  utils.book_append_sheet(book, utils.aoa_to_sheet(sheet), 'x');
  const ods = new Uint8Array(write(book, { type: 'array', bookType: 'ods' }) as ArrayBuffer);
  const qti = qtiPackage({ title: 'T', instructions: 'Read', questions }, []).bytes;
  const sitting = sittingOf();
  const paperPacket = await packetText({ kind: 'paper', content: paperFile(sitting, paper, []) }, 'T');
  const answersPacket = await packetText(
    {
      kind: 'answers',
      content: {
        sittingId: sitting.id,
        student: { joinCode: 'K7M4QX', familyName: 'Tran', givenName: 'Linh' },
        attempts: [attemptOf({ answers: { q4: { response: { text: 'iron' }, at } } })],
        files: [],
        savedAt: at,
      },
    },
    'T',
  );
  const seal = packetSealer('joinCode', 'K7M4QX', (length) => new Uint8Array(length).fill(7));
  const sealed = await seal({ kind: 'paper', content: paperFile(sitting, paper, []) }, 'T');
  const tables = buildDemo(Date.parse('2026-11-23T10:00:00.000Z'));
  const student = studentOf();
  const small = {
    ...Object.fromEntries(Object.entries(tables).map(([table]) => [table, []])),
    groups: tables.groups.slice(0, 1),
    students: [{ ...student, groupIds: tables.groups.slice(0, 1).map(({ id }) => id) }],
    papers: tables.papers.slice(0, 2),
  } as unknown as typeof tables; // every table is there, most of them empty
  const savedAt = '2026-11-23T10:00:00.000Z';
  const desk = await backupBytes(contentOf(small), savedAt);
  const text = (value: string): Bytes => new TextEncoder().encode(value);
  const rows = (name: string, file: Bytes, mutate?: Reader['mutate']): Reader => ({
    name,
    file,
    ...(mutate && { mutate }),
    read: (bytes) => refusedOr(name, () => sheetRows(bytes), checkRows),
  });
  return [
    rows('students.csv', text(list)),
    rows('questions.csv', text(csvFrom(sheet))),
    rows('questions.xlsx', workbookFrom(sheet, 'x'), asZip),
    rows('questions.ods', ods, asZip),
    {
      name: 'register.zip',
      file: register(),
      mutate: asZip,
      read: (bytes) =>
        refusedOr(
          'register.zip',
          () => readRoster(bytes, []),
          () => ({ taken: true }),
        ),
    },
    {
      name: 'package.zip',
      file: qti,
      mutate: asZip,
      read: (bytes) =>
        refusedOr(
          'package.zip',
          () => papersFromQti(bytes, 'package', counter('n')),
          ({ papers }) => checkPapers(papers),
        ),
    },
    { name: 'paper packet', file: text(paperPacket), mutate: asPacket, read: readPackets },
    { name: 'answers packet', file: text(answersPacket), mutate: asPacket, read: readPackets },
    {
      name: 'sealed packet',
      file: text(sealed),
      mutate: asJson,
      read: async (bytes) => {
        const read = await readPacket(bytes);
        if (read.outcome !== 'sealed') return { refused: `sealed packet ${JSON.stringify(read)}` };
        if (read.seal.iterations > 700_000) return { refused: 'sealed packet iterations' };
        const opened = await unsealedPacket(read.seal, 'K7M4QX');
        if (opened?.outcome !== 'read') return { refused: 'sealed packet opens with another code' };
        return { same: opened.packet };
      },
    },
    {
      name: 'packets.zip',
      file: zipSync({ 'a.json': text(answersPacket), 'b.json': text(paperPacket) }),
      mutate: asZip,
      read: readPackets,
    },
    { name: `backup ${archiveVersion}`, file: desk, mutate: asZip, read: readDesk },
    {
      name: 'backup 1',
      file: json({ format: 'gribbet-desk', version: 1, savedAt, tables: small }),
      mutate: asJson,
      read: readDesk,
    },
  ];
}
