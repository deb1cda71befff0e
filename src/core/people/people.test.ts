import { zipSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { studentOf } from '../../../tests/unit/samples';
import { readRoster } from '../formats/oneroster/readRoster';
import { Refused } from '../basics/refused';
import type { IncomingStudent } from '../formats/csv/studentRows';
import { likelyDoubles, mergedStudent } from './doubles';
import { joinedChanges, rosterChanges, updated } from './rosterChanges';

const incoming = (part: Partial<IncomingStudent>): IncomingStudent => ({
  line: 2,
  familyName: 'Okafor',
  givenName: 'Amara',
  number: '2101',
  email: '',
  knownId: null,
  ...part,
});

describe('a list beside what the desk has', () => {
  const amara = studentOf({ fields: { Year: '1' } });
  const linh = studentOf({ id: 'linh', familyName: 'Tran', givenName: 'Linh', number: '2102' });
  const gone = studentOf({ id: 'gone', familyName: 'Silva', number: '2103' });
  const known = [amara, linh, gone];

  it('says who is new, changed, the same and gone, before anything is done', () => {
    const changes = rosterChanges(
      [
        incoming({ knownId: 'student1', email: 'new@example.org', fields: { Year: '2' } }),
        incoming({ knownId: 'linh', familyName: 'Tran', givenName: 'Linh', number: '' }),
        incoming({ familyName: 'Nowak' }),
      ],
      known,
      'group1',
    );
    expect(changes.added.map(({ familyName }) => familyName)).toEqual(['Nowak']);
    expect(changes.changed.map(({ changes: fields }) => fields)).toEqual([
      [
        { field: 'email', before: 'amara.okafor@example.org', after: 'new@example.org' },
        { field: 'Year', before: '1', after: '2' },
      ],
    ]);
    expect(changes.same.map(({ id }) => id)).toEqual(['linh']);
    expect(changes.gone.map(({ id }) => id)).toEqual(['gone']);
  });

  it('over several groups, a student in more than one counts once', () => {
    const row = incoming({ knownId: 'student1', email: 'new@example.org' });
    const fresh = incoming({ familyName: 'Nowak' });
    const parts = ['group1', 'group2'].map((id) => rosterChanges([row, fresh], known, id));
    const { added, changed, gone: left } = joinedChanges(parts);
    expect([added.length, changed.length, left.length]).toEqual([1, 1, 2]);
  });

  it('an empty cell says nothing; what the list does not know stays', () => {
    const row = incoming({ number: '', email: '', fields: { Room: 'B2', Year: '' } });
    expect(updated(amara, row)).toEqual({ ...amara, fields: { Year: '1', Room: 'B2' } });
  });

  it('whoever is archived is not gone from a list', () => {
    const archived = { ...gone, archivedAt: '2026-11-01T10:00:00.000Z' };
    expect(rosterChanges([], [archived], 'group1').gone).toEqual([]);
  });
});

describe('doubles', () => {
  it('share a number, an email, or a name in either order, whatever the case and accents', () => {
    const one = studentOf({ email: 'A@example.org' });
    const sets = likelyDoubles([
      one,
      studentOf({ id: 'email', familyName: 'Nwosu', number: '1', email: 'a@EXAMPLE.org' }),
      studentOf({ id: 'name', familyName: 'amára', givenName: 'Okafor', number: '2', email: '' }),
      studentOf({ id: 'other', familyName: 'Tran', number: '3', email: '' }),
    ]);
    expect(sets.map((set) => set.map(({ id }) => id))).toEqual([
      ['student1', 'email'],
      ['student1', 'name'],
    ]);
  });

  it('as one, the kept row is filled in from the other', () => {
    const kept = studentOf({ email: '', groupIds: ['g1'], extraPercent: 10 });
    const other = studentOf({
      id: 'o',
      number: '9',
      groupIds: ['g2', 'g1'],
      extraPercent: 25,
      fields: { Year: '2' },
    });
    expect(mergedStudent(kept, other)).toMatchObject({
      id: 'student1',
      number: '2101',
      email: 'amara.okafor@example.org',
      groupIds: ['g1', 'g2'],
      extraPercent: 25,
      fields: { Year: '2' },
    });
  });
});

/**
 * A package with the headers of the 1EdTech OneRoster CSV Binding: users.csv of 1.1 with its role and orgs, or of 1.2
 * with userMasterIdentifier and preferred names. From memory of the published tables.
 */
const users = {
  '1.1':
    'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password',
  '1.2':
    'sourcedId,status,dateLastModified,enabledUser,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password,userMasterIdentifier,resourceSourcedIds,preferredGivenName,preferredMiddleName,preferredFamilyName,primaryOrgSourcedId,pronouns',
};
const row = (header: string, cells: Record<string, string>) =>
  header
    .split(',')
    .map((name) => cells[name] ?? '')
    .join(',');

function packageOf(version: keyof typeof users, change: Record<string, string | null> = {}): Uint8Array {
  const header = users[version];
  const user = (
    sourcedId: string,
    givenName: string,
    familyName: string,
    more: Record<string, string> = {},
  ) => row(header, { sourcedId, givenName, familyName, enabledUser: 'true', ...more });
  const classes =
    'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods';
  const enrollments =
    'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate';
  const files: Record<string, string | null> = {
    'manifest.csv': `propertyName,value\r\nmanifest.version,1.0\r\noneroster.version,${version}`,
    'orgs.csv': 'sourcedId,status\r\no1,',
    'users.csv': [
      header,
      user('u1', 'Amara', 'Okafor', { identifier: '2101', email: 'amara.okafor@example.org' }),
      user('u2', 'Linh', '"Tran, Thi"'),
      user('u3', '', ''),
      user('u4', 'Rosa', 'Ng', { status: 'tobedeleted' }),
      user('t1', 'Ada', 'Teacher'),
    ].join('\r\n'),
    'classes.csv': [
      classes,
      row(classes, { sourcedId: 'c1', title: 'Navigation Mon' }),
      row(classes, { sourcedId: 'c2', title: 'Navigation Wed' }),
      row(classes, { sourcedId: 'c3', title: 'Empty' }),
    ].join('\r\n'),
    'enrollments.csv': [
      enrollments,
      row(enrollments, { sourcedId: 'e1', classSourcedId: 'c1', userSourcedId: 'u1', role: 'student' }),
      row(enrollments, { sourcedId: 'e2', classSourcedId: 'c2', userSourcedId: 'u1', role: 'student' }),
      row(enrollments, { sourcedId: 'e3', classSourcedId: 'c2', userSourcedId: 'u2', role: 'student' }),
      row(enrollments, { sourcedId: 'e4', classSourcedId: 'c1', userSourcedId: 't1', role: 'teacher' }),
      row(enrollments, { sourcedId: 'e5', classSourcedId: 'c9', userSourcedId: 'u2', role: 'student' }),
      row(enrollments, { sourcedId: 'e6', classSourcedId: 'c1', userSourcedId: 'u9', role: 'student' }),
    ].join('\r\n'),
    ...change,
  };
  return zipSync(
    Object.fromEntries(
      Object.entries(files).flatMap(([name, text]) => (text === null ? [] : [[name, strToU8(text)]])),
    ),
  );
}

describe('a school register', () => {
  it.each(['1.1', '1.2'] as const)(
    'version %s: classes with their students, each student once',
    async (version) => {
      const roster = await readRoster(packageOf(version), [{ id: 'known', number: '2101', email: '' }]);
      expect(
        roster.classes.map(({ title, students }) => [title, students.map((each) => each.givenName)]),
      ).toEqual([
        ['Navigation Mon', ['Amara']],
        ['Navigation Wed', ['Amara', 'Linh']],
      ]);
      const [monday, wednesday] = roster.classes;
      expect(monday?.students[0]).toBe(wednesday?.students[0]);
      expect(monday?.students[0]).toMatchObject({ number: '2101', knownId: 'known' });
      expect(wednesday?.students[1]).toMatchObject({ familyName: 'Tran, Thi', number: 'u2', knownId: null });
    },
  );

  it('says what was left out, and which rows lead nowhere, by file and line', async () => {
    const { ignored, bad } = await readRoster(packageOf('1.1'), []);
    expect(ignored).toEqual([
      'orgs.csv',
      '1 row marked to be deleted',
      '1 enrollment of others than students',
    ]);
    expect(bad).toEqual([
      { file: 'users.csv', line: 4, reason: 'noName', cell: '' },
      { file: 'enrollments.csv', line: 6, reason: 'unknownClass', cell: 'c9' },
      { file: 'enrollments.csv', line: 7, reason: 'unknownUser', cell: 'u9' },
    ]);
  });

  it('a number that two users have is named, and neither becomes two students', async () => {
    const text = 'sourcedId,givenName,familyName,identifier\r\nu1,Amara,Okafor,7\r\nu2,Linh,Tran,7';
    const { bad, classes } = await readRoster(packageOf('1.2', { 'users.csv': text }), []);
    expect(bad[0]).toEqual({ file: 'users.csv', line: 3, reason: 'sameNumber', cell: '7' });
    expect(classes.flatMap(({ students }) => students.map((each) => each.givenName))).toEqual([
      'Amara',
      'Amara',
    ]);
  });

  it('columns may stand in any order and case, files in a folder', async () => {
    const text = 'FAMILYNAME,GivenName,SOURCEDID\r\nOkafor,Amara,u1';
    const roster = await readRoster(packageOf('1.2', { 'users.csv': null, 'export/Users.csv': text }), []);
    expect(roster.classes.map(({ students }) => students.length)).toEqual([1, 1]);
  });

  it.each([
    ['no zip', new Uint8Array([1, 2, 3]), 'notZip'],
    ['without classes', packageOf('1.1', { 'classes.csv': null }), 'missingFile'],
    [
      'without a column that is needed',
      packageOf('1.1', { 'enrollments.csv': 'sourcedId,role' }),
      'missingColumn',
    ],
  ])('%s is refused whole, with the file named', async (_, bytes, why) => {
    try {
      await readRoster(bytes, []);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(Refused);
      expect((error as Refused).why).toBe(why);
    }
  });
});
