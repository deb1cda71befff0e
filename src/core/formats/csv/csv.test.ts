import Papa from 'papaparse';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../../tests/unit/samples';
import { seatsOf } from '../../seats/seats';
import { decodeText } from './decodeText';
import { withHeading } from '../takeout/exportTable';
import { gradesTable } from '../takeout/grades';
import { bodyOf } from './heading';
import { guessColumns } from './studentColumns';
import { studentRows } from './studentRows';
import { guarded } from './guard';
import { csvFrom, tableFrom } from './table';

describe('what divides the cells', () => {
  const cells = (text: string) => tableFrom(text).map((row) => row.cells);

  it('is not the comma of names that stand alone, nor missed for a title above', () => {
    expect(cells('Name\nMoreau, Lea\nTanaka, Ren')).toEqual([['Name'], ['Moreau, Lea'], ['Tanaka, Ren']]);
    expect(cells('Name;No\nOkafor, Amara;1')).toEqual([
      ['Name', 'No'],
      ['Okafor, Amara', '1'],
    ]);
    expect(cells('My class\nName;No\nOkafor, Amara;1')[2]).toEqual(['Okafor, Amara', '1']);
    expect(cells('My class\nFamily,Given,No\nOkafor,Amara,1')[2]).toEqual(['Okafor', 'Amara', '1']);
  });
});

describe('the text of a file', () => {
  const text = 'Åberg;José;Żółw\nnext';
  const utf16 = (littleEndian: boolean, mark: boolean) => {
    const units = [...(mark ? ['\uFEFF'] : []), ...'Åberg;José\nBaker;Ann'].map((letter) =>
      letter.charCodeAt(0),
    );
    const bytes = new Uint8Array(units.length * 2);
    const view = new DataView(bytes.buffer);
    units.forEach((unit, index) => view.setUint16(index * 2, unit, littleEndian));
    return bytes;
  };

  it('is read from UTF-8 with and without a mark', () => {
    expect(decodeText(new TextEncoder().encode(text))).toBe(text);
    expect(decodeText(new TextEncoder().encode(`\uFEFF${text}`))).toBe(text);
  });

  it.each([
    ['little endian with a mark', true, true],
    ['big endian with a mark', false, true],
    ['little endian without', true, false],
    ['big endian without', false, false],
  ])('is read from UTF-16, %s', (_, littleEndian, mark) => {
    expect(decodeText(utf16(littleEndian, mark))).toBe('Åberg;José\nBaker;Ann');
  });

  // ISO 8859-1: Å is C5, é is E9.
  it('is read from Latin-1 where it is not UTF-8', () => {
    expect(decodeText(Uint8Array.from([0xc5, 0x62, 0x65, 0x3b, 0x4a, 0x6f, 0x73, 0xe9]))).toBe('Åbe;José');
  });
});

describe('a table', () => {
  it.each([
    ['comma', 'a,b\nc,d'],
    ['semicolon', 'a;b\nc;d'],
    ['tab', 'a\tb\nc\td'],
  ])('is split at the %s', (_, text) => {
    expect(tableFrom(text).map((row) => row.cells)).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
  });

  // RFC 4180 section 2: quoted fields may hold line breaks, separators and doubled quotes; lines end in CRLF.
  it('counts lines of the file, not rows, past quoted line breaks and empty rows', () => {
    const rows = tableFrom('name,note\r\n"O""Neill, Ann","two\r\nlines"\r\n\r\nlast,x\r\n');
    expect(rows).toEqual([
      { line: 1, cells: ['name', 'note'] },
      { line: 2, cells: ['O"Neill, Ann', 'two\nlines'] },
      { line: 5, cells: ['last', 'x'] },
    ]);
  });

  it('a name with a comma does not beat the semicolons', () => {
    expect(tableFrom('Okafor, Amara;2101\nTran, Linh;2102').map((row) => row.cells)).toEqual([
      ['Okafor, Amara', '2101'],
      ['Tran, Linh', '2102'],
    ]);
  });
});

describe('columns', () => {
  const meanings = (text: string) => {
    const guess = guessColumns(tableFrom(text));
    return [guess.heading !== null, ...guess.meanings];
  };

  it('are told from a header in several languages', () => {
    expect(meanings('Family name,First name,Student No,E-mail,Room\na,b,1,a@b.org,x')).toEqual([
      true,
      'familyName',
      'givenName',
      'number',
      'email',
      'own',
    ]);
    expect(meanings('Nachname;Vorname;Matrikelnummer\na;b;1')).toEqual([
      true,
      'familyName',
      'givenName',
      'number',
    ]);
    expect(meanings('Nom;Prénom;Courriel\na;b;c@d.fr')).toEqual([true, 'familyName', 'givenName', 'email']);
    expect(meanings('Name\tID\nAmara Okafor\t2101')).toEqual([true, 'fullName', 'number']);
  });

  it('are told from what is in them where there is no header', () => {
    expect(meanings('Okafor,Amara,2101,amara@example.org\nTran,Linh,2102,linh@example.org')).toEqual([
      false,
      'familyName',
      'givenName',
      'number',
      'email',
    ]);
    expect(meanings('Amara Okafor\nLinh Tran')).toEqual([false, 'fullName']);
  });
});

describe('students from rows', () => {
  const read = (text: string, known: { id: string; number: string; email: string }[] = []) => {
    const rows = tableFrom(text);
    const { heading, meanings } = guessColumns(rows);
    return studentRows(bodyOf(rows, heading), meanings, known);
  };

  it('bad rows are named with line and reason, and the good ones are not lost', () => {
    const { good, bad } = read(
      'name,number,email\nOkafor, ,\n,7,\n"Tran, Linh",5,linh@x\nMori Kwame,5,\nDe la Cruz Ana,6,ana@example.org',
    );
    expect(bad).toEqual([
      { line: 3, reason: 'noName', cell: '' },
      { line: 4, reason: 'badEmail', cell: 'linh@x' },
      { line: 5, reason: 'sameNumber', cell: '5', firstLine: 4 },
    ]);
    expect(good.map((row) => [row.line, row.givenName, row.familyName])).toEqual([
      [2, '', 'Okafor'],
      [6, 'De la Cruz', 'Ana'],
    ]);
  });

  it('splits a whole name at the comma, else before the last word', () => {
    expect(
      read('Name\n"Okafor, Amara Ngozi"\nAmara Okafor').good.map((row) => [row.givenName, row.familyName]),
    ).toEqual([
      ['Amara Ngozi', 'Okafor'],
      ['Amara', 'Okafor'],
    ]);
  });

  it('knows who is on the desk already, by number, then by email', () => {
    const known = [
      { id: 's1', number: '2101', email: '' },
      { id: 's2', number: '', email: 'Linh@example.org' },
    ];
    const { good } = read('family name,number,email\nOkafor,2101,\nTran,9,linh@example.org\nMori,10,', known);
    expect(good.map((row) => row.knownId)).toEqual(['s1', 's2', null]);
  });
});

describe('CSV out', () => {
  // RFC 4180: CRLF, quotes doubled, fields with separators quoted.
  it('quotes as RFC 4180 says, with a mark by choice', () => {
    expect(csvFrom([['a,b', 'say "x"', 'two\nlines', 1.5, null]], { mark: false })).toBe(
      '"a,b","say ""x""","two\nlines",1.5,\r\n',
    );
    expect(csvFrom([['a']]).charCodeAt(0)).toBe(0xfeff);
  });

  // OWASP, "CSV Injection": cells that begin with = + - @ tab or return.
  it('no text can run as a formula, and numbers stay numbers', () => {
    for (const text of ['=1+1', '+1', '-1', '@SUM(A1)', '\t=1', '\r=1']) {
      const [row] = Papa.parse<string[]>(csvFrom([[text]], { mark: false })).data;
      expect(row?.[0]?.startsWith("'")).toBe(true);
    }
    // What a spreadsheet would read as another number or a date stays as it is typed; what it reads as it is, is left alone.
    for (const text of ['007', '1e5', '12345678901234567890', '2026-11-23', '1/2'])
      expect(csvFrom([[text]], { mark: false })).toBe(`'${text}\r\n`);
    for (const text of ['2101', 'K7', '12.5', "O'Brien"])
      expect(csvFrom([[text]], { mark: false })).toBe(`${text}\r\n`);
    expect(csvFrom([['007', '=1']], { mark: false, guard: false })).toBe('007,=1\r\n');
    expect(csvFrom([[-1.5]], { mark: false })).toBe('-1.5\r\n');
  });

  it('has the decimal sign and the separator of its reader', () => {
    expect(csvFrom([['total', 1.5, -2]], { mark: false, separator: ';', decimal: ',' })).toBe(
      'total;1,5;-2\r\n',
    );
    expect(csvFrom([['a;b', 1.5]], { mark: false, separator: '\t' })).toBe('a;b\t1.5\r\n');
  });

  it('read again by the desk is what was written, whatever it begins with', () => {
    const cell = fc.oneof(
      fc.constantFrom(
        '007',
        '1e5',
        "'=1",
        "''+x",
        '+49 30 1',
        '-Lee',
        '@home',
        "'",
        "'90",
        '12345678901234567890',
      ),
      fc.string().map((text) => text.replace(/[\s\uFEFF]+/g, ' ').trim()),
    );
    const separator = fc.constantFrom(',' as const, ';' as const, '\t' as const);
    fc.assert(
      fc.property(fc.array(cell, { minLength: 2, maxLength: 4 }), separator, (row, by) => {
        fc.pre(row.some(Boolean));
        // A heading of plain words says which separator it is.
        const rows = [row.map((_, index) => `column ${index}`), row];
        expect(tableFrom(csvFrom(rows, { separator: by }))[1]?.cells).toEqual(row);
      }),
    );
  });

  it('comes back as it went out', () => {
    const cell = fc
      .string({ unit: 'grapheme' })
      .filter(
        (text) =>
          guarded(text) === text &&
          text.trim() === text &&
          text !== '' &&
          !text.includes('\r') &&
          !text.includes('\uFEFF'),
      );
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 5 }), (rows) => {
        expect(
          Papa.parse<string[]>(csvFrom(rows, { mark: false }).trimEnd(), { delimiter: ',', newline: '\r\n' })
            .data,
        ).toEqual(rows);
      }),
    );
  });
});

describe('the grades of a sitting', () => {
  const students = [
    studentOf({ familyName: '=HYPERLINK("x")' }),
    studentOf({ id: 'student2', familyName: 'Tran', givenName: 'Linh', number: '2102', email: '' }),
  ];
  const answers = { q1: { response: { picked: ['b'] }, at }, q4: { response: { text: 'iron' }, at } };
  const records = {
    sitting: sittingOf(),
    questions: paperQuestions,
    students,
    allowances: [],
    attempts: [attemptOf({ answers, handedInAt: '2026-11-23T10:30:00.000Z' })],
    marks: [markOf({ points: 2.5 })],
    releases: [],
    openings: [],
  };
  const now = Date.parse('2026-11-23T11:00:00.000Z');
  const rows = Papa.parse<string[]>(
    csvFrom(
      withHeading(
        gradesTable({
          questions: paperQuestions,
          seats: seatsOf(records, now),
          groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
          now,
        }),
      ),
    ).slice(1),
    { skipEmptyLines: true },
  ).data;

  it('has a row a student with total, percent, state, times, minutes and points per question', () => {
    expect(rows[1]).toEqual([
      '\'=HYPERLINK("x")', 'Amara', '2101', 'amara.okafor@example.org', 'Monday', '3.5', '8', '43.8', 'handed in', 'complete',
      '1', at, '2026-11-23T10:30:00.000Z', '30', '0', '', '', '', '1', '0', '0', '2.5',
    ]); // prettier-ignore
  });

  it('says who has not started, with every column in its place', () => {
    expect(rows[2]?.slice(5, 10)).toEqual(['', '', '', 'not started', '']);
    expect(rows.map((row) => row.length)).toEqual([22, 22, 22]);
  });
});
