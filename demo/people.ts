import type { Group, Student } from '@/core/model/people';
import { joinCodeAlphabet } from '@/core/basics/joinCode';
import type { Chance } from '@/core/basics/chance';

const given =
  'Amara Linh Mateo Yuki Fatima Johan Priya Kwame Ingrid Tariq Sofia Hiroshi Zanele Pablo Aoife Dmitri Leila Tomasz Nia Rafael Mei Oskar Samira Eero Chidi Lucía Anneke Rashid Freya Jin Carmen Babak Elif Nikos Thandi Marek Ana Sione Yara Piotr Hana Luca Adwoa Sven Noor Iker Malia Viktor Imani Bao Greta Omar Tala Emeka Ruth Arjun Maren Selim Keahi Ewa'.split(
    ' ',
  );
const family =
  'Okafor Tran Ferreira Tanaka Haddad Lindqvist Nair Mensah Solberg Aziz Marchetti Mori Dlamini Quiroga Brennan Orlov Karimi Nowak Wanjiru Duarte Zhao Halvorsen Benali Koskinen Eze Navarro de-Vries Siddiqui Eriksen Park Ibáñez Rostami Yıldız Pappas Khumalo Dvořák Kovač Tuilagi Haidar Zieliński Šimek Conti Owusu Åberg Rahman Etxeberria Kealoha Petrov Mwangi Pham Vogt Farouk Reyes Nwosu Adler Kulkarni Thorsen Demir Mahoe Wójcik'.split(
    ' ',
  );

const groupNames = ['Monday evening', 'Wednesday evening', 'Saturday morning'];
const groupSizes = [32, 31, 29];

/** The people of the demo are drawn first: with this seed they are always the same. */
export const demoSeed = 20_481;

/** Three groups and their 92 made-up students. */
export function madeUpPeople(chance: Chance, createdAt: string): { groups: Group[]; students: Student[] } {
  const groups = groupNames.map((name, index) => ({ id: `group${index + 1}`, name, createdAt }));
  const names = new Set<string>();
  const codes = new Set<string>();
  const students: Student[] = [];
  groupSizes.forEach((size, group) => {
    for (let seat = 0; seat < size; seat++)
      students.push(madeUpStudent(chance, students.length, `group${group + 1}`, names, codes));
  });
  return { groups, students };
}

function madeUpStudent(
  chance: Chance,
  index: number,
  groupId: string,
  names: Set<string>,
  codes: Set<string>,
): Student {
  const [givenName, familyName] = fresh(
    names,
    () => `${chance.pick(given)} ${chance.pick(family).replace('-', '_')}`,
  )
    .replace('_', ' ')
    .split(/ (.*)/);
  const joinCode = fresh(codes, () =>
    Array.from({ length: 6 }, () => chance.pick(joinCodeAlphabet.split(''))).join(''),
  );
  const plain = `${givenName}.${familyName}`
    .normalize('NFD')
    .replace(/[^a-z.]/gi, '')
    .toLowerCase();
  return {
    id: `student${String(index + 1).padStart(2, '0')}`,
    givenName: givenName ?? '',
    familyName: familyName ?? '',
    number: String(2101 + index * 3),
    // example.org is kept free for examples (RFC 2606).
    email: chance.happens(0.95) ? `${plain}@example.org` : '',
    joinCode,
    groupIds: [groupId],
  };
}

function fresh(taken: Set<string>, make: () => string): string {
  let made = make();
  while (taken.has(made)) made = make();
  taken.add(made);
  return made;
}
