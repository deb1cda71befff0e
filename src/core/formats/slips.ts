import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Student } from '../model/people';
import { fullName } from '../model/names';
import { joinCodeShown } from '../basics/joinCode';

const perRow = 2;

/** Where students enter, and with which code filled in. */
export const enterAddress = (origin: string, joinCode: string) => `${origin}/sit?code=${joinCode}`;

/**
 * Join slips of one group, to be cut up along the dashed lines: name, code in large letters, the address, and a QR code
 * (ISO/IEC 18004) that opens it with the code filled in. A4, two beside each other.
 *
 * @param origin where the app is, without a slash at the end: "http://localhost:4321"
 */
export function slipsDocument(
  students: readonly Student[],
  groupName: string,
  origin: string,
): TDocumentDefinitions {
  const slips = students.map((student) => slip(student, groupName, origin));
  const rows: TableCell[][] = [];
  for (let at = 0; at < slips.length; at += perRow)
    rows.push(Array.from({ length: perRow }, (_, column) => slips[at + column] ?? {}));
  const dashed = { hLineStyle: () => ({ dash: { length: 4 } }), vLineStyle: () => ({ dash: { length: 4 } }) };
  const quiet = () => '#7d7361';
  return {
    info: { title: `Join slips, ${groupName}` },
    pageSize: 'A4',
    pageMargins: [28, 28, 28, 28],
    defaultStyle: { fontSize: 10 },
    content: [
      {
        table: { widths: ['*', '*'], dontBreakRows: true, body: rows },
        layout: {
          ...dashed,
          hLineWidth: () => 0.5,
          vLineWidth: () => 0.5,
          hLineColor: quiet,
          vLineColor: quiet,
          paddingLeft: () => 12,
          paddingRight: () => 12,
          paddingTop: () => 12,
          paddingBottom: () => 12,
        },
      },
    ],
  };
}

function slip(student: Student, groupName: string, origin: string): Content {
  return {
    columns: [
      {
        width: '*',
        stack: [
          { text: fullName(student), fontSize: 13, bold: true },
          { text: [student.number, groupName].filter(Boolean).join(' · '), color: '#5c5445' },
          { text: joinCodeShown(student.joinCode), fontSize: 22, bold: true, margin: [0, 8, 0, 6] },
          { text: `Join at ${origin}/sit`, fontSize: 9 },
        ],
      },
      { width: 'auto', qr: enterAddress(origin, student.joinCode), fit: 84, eccLevel: 'M' },
    ],
    columnGap: 8,
  };
}
