import type { Student } from '../model/people';

const given =
  'Amina Bruno Chen Dalia Emil Farah Goran Hanna Ismail Julia Kofi Lena Milan Nadia Olu Petra Quang Rosa Sami Tove Uma Vera Wen Xenia Yusuf Zoe'.split(
    ' ',
  );
const family =
  'Anchor Bollard Cleat Davit Ensign Fender Gaff Halyard Jib Keel Lanyard Mast Oar Painter Quay Rudder Sheet Tiller Vang Warp'.split(
    ' ',
  );

/** Made-up people whose names say that they are: "Amina Anchor". Any number of them, each once. */
export function madeUpClass(
  count: number,
  groupId: string,
  newId: () => string,
  newCode: () => string,
): Student[] {
  return Array.from({ length: count }, (_, index) => {
    const round = Math.floor(index / (given.length * family.length));
    const first = given[index % given.length] ?? '';
    const last = family[(index * 7 + Math.floor(index / given.length)) % family.length] ?? '';
    return {
      id: newId(),
      givenName: round > 0 ? `${first} ${round + 1}` : first,
      familyName: last,
      number: `R${String(index + 1).padStart(3, '0')}`,
      email: '',
      joinCode: newCode(),
      groupIds: [groupId],
    };
  });
}
