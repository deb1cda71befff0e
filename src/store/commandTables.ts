import { recordedTables, tableNames, type Owner, type TableEntry, type TableName } from '@/core/model/tables';

/** What each command reads and writes, so that whatever else happens on the desk does not wait for it. */

/** The tables of rows that hang on a row of one of these, directly or by what hangs on it; and these themselves. */
export function hangingOn(...owners: Owner[]): TableName[] {
  const all = new Set<string>(owners);
  // Tables name their owners in the order of the registry, or not: until nothing more is found.
  for (let before = 0; before < all.size;) {
    before = all.size;
    for (const name of tableNames)
      if (Object.keys((recordedTables[name] as TableEntry).owners ?? {}).some((owner) => all.has(owner)))
        all.add(name);
  }
  return tableNames.filter((name) => all.has(name));
}

/** Where one student stands in a sitting, and what an act for him may change. */
const seat: TableName[] = ['sittings', 'students', 'allowances', 'attempts'];
/** A student who leaves a group may leave the desk. */
const leaving: TableName[] = [...hangingOn('students'), 'groups'];
const freezing: TableName[] = ['sittings', 'papers', 'paperVersions'];
const repairing: TableName[] = [...freezing, 'repairs', 'bank', 'outbox'];
/** What scanned pages say becomes attempts. */
const onPaper: TableName[] = ['sittings', 'paperVersions', 'prints', 'scans', 'attempts', 'students'];
/** What a share of marking becomes on the desk of who marks it. */
const takingShare: TableName[] = [
  'sittings',
  'papers',
  'paperVersions',
  'students',
  'attempts',
  'takenShares',
];

export const commandTables = {
  createGroup: ['groups'],
  renameGroup: ['groups'],
  describeGroup: ['groups'],
  deleteGroup: leaving,
  bringIn: ['students', 'groups'],
  bringClasses: ['students', 'groups'],
  changeStudent: ['students'],
  putInGroup: ['students'],
  archiveStudents: ['students'],
  bringBackStudents: ['students'],
  newCodes: ['students'],
  mergeStudents: tableNames,
  joinPart: tableNames,
  takeOutOfGroup: leaving,
  keepTemplate: ['templates'],
  removeTemplate: ['templates'],
  putIntoBank: ['papers', 'bank'],
  takeIntoPaper: ['papers', 'bank'],
  putBack: ['papers', 'bank'],
  newBankQuestion: ['bank'],
  changeBankQuestion: ['bank'],
  takeOutOfBank: ['bank'],
  sendMessages: ['outbox'],
  deleteAnswers: hangingOn('sittings'),
  removeMessage: ['outbox'],
  passOnMessages: ['outbox'],
  keepMessageTemplate: ['messageTemplates'],
  removeMessageTemplate: ['messageTemplates'],
  createPaper: ['papers'],
  bringPapers: ['papers'],
  bringAnswers: ['papers', 'paperVersions', 'sittings', 'students', 'groups', 'attempts', 'marks'],
  makePrint: [...freezing, 'prints'],
  removePrint: ['prints', 'scans'],
  bringScans: onPaper,
  changeScans: onPaper,
  nameCopy: onPaper,
  typeAnswers: onPaper,
  changePaper: ['papers', 'bank'],
  deletePaper: [...hangingOn('papers'), 'sittings'],
  answerRequest: ['requests'],
  grantRequest: [...seat, 'requests'],
  paperPacket: freezing,
  takeInAnswers: [...seat, 'paperVersions'],
  giveAllowance: seat,
  giveAttempt: seat,
  startAfresh: seat,
  carryOn: seat,
  collectFrom: seat,
  setAside: seat,
  restoreAttempt: seat,
  giveLasting: ['students'],
  decideLate: ['attempts', 'marks'],
  markAnswers: ['marks', 'shares'],
  changePiles: ['piles'],
  markWork: ['marks', 'shares'],
  giveShares: ['shares'],
  changeShare: ['shares'],
  takeShare: takingShare,
  giveAgain: [...takingShare, 'shares'],
  removeTakenShare: hangingOn('sittings', 'papers'),
  takeMarks: ['marks', 'shares', 'sittings', 'paperVersions'],
  settleMarks: ['marks'],
  changeCommentBank: ['commentBank'],
  handBack: ['releases', 'releasePlans'],
  holdBack: ['releases'],
  changePlan: ['releasePlans', 'sittings'],
  followPlan: ['releases', 'releasePlans'],
  changeGrades: ['grades'],
  createMarkBook: ['markBooks'],
  changeMarkBook: ['markBooks'],
  deleteMarkBook: ['markBooks'],
  keepGradeTemplate: ['gradeTemplates'],
  removeGradeTemplate: ['gradeTemplates'],
  withdrawResults: ['releases'],
  createSitting: ['sittings'],
  changeSitting: ['sittings'],
  setClosedToStarts: ['sittings'],
  setOnDevices: freezing,
  adoptPaper: freezing,
  repairQuestion: repairing,
  withdrawRepair: repairing,
  archiveSittings: ['sittings'],
  restoreSitting: ['sittings'],
  deleteSitting: hangingOn('sittings'),
} satisfies Record<string, readonly TableName[]>;

/** The name of a command. */
export type Command = keyof typeof commandTables;
