import { Button, Checkbox } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import { looksWrongTitle, looksWrongWords } from '@/words/looksWrong';
import { studentsUnder, totalFigures, type TotalFigures } from '@/core/analysis/sittingFigures';
import { plainText } from '@/core/basics/richWords';
import { fileNameOf } from '@/core/formats/fileName';
import type { ReportContent } from '@/core/formats/reportDocument';
import { registerName } from '@/core/model/names';
import { inFigures, type Seat } from '@/core/seats/seats';
import { act, actWhenRoom } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { reportWordsOf, setReportWords } from '@/store/deskSettings';
import { EmptyState } from '@/ui/EmptyState';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { PdfPages } from '@/ui/PdfPages';
import { printPdf } from '@/ui/printPdf';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { reportPdf } from '@/workers/makePdf';
import { Stopped } from '@/workers/stoppable';
import { signed, trustWords } from '@/words/analysis';
import { counted, dayAlone, percent, points } from '@/words/format';
import { useMarkerNames } from '@/desk/markerNames';
import { mapSvg, spreadSvg } from './reportPictures';
import { useAnalysis, type Analysis } from '@/desk/useAnalysis';
import { useLines } from './useLines';

/** The report of a sitting as PDF, one page for the school or all of it, and its tables as files. */
export function ReportPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="analyse">
      {(sitting) => <Report sitting={sitting} />}
    </SittingPage>
  );
}

function Report({ sitting }: { sitting: SittingData }) {
  const sittingId = sitting.sitting.id;
  const seats = useMemo(() => inFigures(sitting.seats), [sitting.seats]);
  const analysis = useAnalysis(sitting, seats);
  const totals = useMemo(() => totalFigures(seats), [seats]);
  const [whole, setWhole] = useState(true);
  const [names, setNames] = useState(false);
  const words = useLiveQuery(() => reportWordsOf(sittingId), [sittingId]);
  const { lines } = useLines(sitting);
  const nameOf = useMarkerNames(sittingId);
  const content = useMemo(
    () =>
      totals && words !== undefined && analysis.suspects !== undefined
        ? reportOf({ sitting, analysis, totals, words, whole, names, line: lines.student, nameOf })
        : null,
    [sitting, analysis, totals, words, whole, names, lines.student, nameOf],
  );
  const pdf = usePdf(content);
  if (!totals)
    return (
      <EmptyState
        title="Nothing to report yet"
        action={<a href={`/sittings/${sittingId}/run`}>Watch students work</a>}
      >
        A report can be made once somebody has handed in.
      </EmptyState>
    );
  const name = fileNameOf(`report-${sitting.sitting.title}`);
  return (
    <TwoColumns
      marginLabel="About the report"
      margin={
        <>
          <MarginBlock title="Report">
            {words !== undefined && (
              <KeptTextarea
                size="xs"
                label="Your own words, at the top"
                minRows={2}
                maxLength={5_000}
                value={words}
                onKeep={(typed) => void actWhenRoom(() => setReportWords(sittingId, typed))}
              />
            )}
            <Checkbox
              size="sm"
              label="With all questions and answers; else one page"
              checked={whole}
              onChange={(event) => setWhole(event.currentTarget.checked)}
            />
            <Checkbox
              size="sm"
              label={`With the names of students below ${percent(lines.student)}`}
              checked={names}
              onChange={(event) => setNames(event.currentTarget.checked)}
            />
            <Button variant="filled" disabled={!pdf} onClick={() => pdf && printPdf(pdf)}>
              Print
            </Button>
            <Button disabled={!pdf} onClick={() => pdf && saveFile(`${name}.pdf`, 'application/pdf', pdf)}>
              Save as PDF
            </Button>
          </MarginBlock>
          <MarginBlock title="Tables as files">
            <p>
              <a href={`/sittings/${sittingId}/export?what=questions`}>Export the figures</a>
            </p>
          </MarginBlock>
          <p>
            <a href={`/sittings/${sittingId}/analyse`}>Back to Analyse</a>
          </p>
        </>
      }
    >
      {pdf ? <PdfPages bytes={pdf} label="Report" /> : <p>Laying out the report…</p>}
    </TwoColumns>
  );
}

/** The report laid out; null while it is. */
function usePdf(content: ReportContent | null): Uint8Array<ArrayBuffer> | null {
  const [pdf, setPdf] = useState<Uint8Array<ArrayBuffer> | null>(null);
  // Laid out again when something that is printed changes.
  const printed = content && JSON.stringify(content);
  useEffect(() => {
    if (printed === null) return;
    const work = reportPdf(JSON.parse(printed) as ReportContent); // what was made of it above
    void act(
      work.result.catch((error: unknown) =>
        error instanceof Stopped ? null : Promise.reject(error as Error),
      ),
    ).then((bytes) => bytes && setPdf(bytes));
    return work.stop;
  }, [printed]);
  return pdf;
}

interface ReportParts {
  sitting: SittingData;
  analysis: Analysis;
  totals: TotalFigures;
  words: string;
  whole: boolean;
  names: boolean;
  line: number;
  nameOf: (markerId: string) => string;
}

function reportOf({
  sitting,
  analysis,
  totals,
  words,
  whole,
  names,
  line,
  nameOf,
}: ReportParts): ReportContent {
  const { rows, trust, suspects } = analysis;
  const under = studentsUnder(analysis.seats, line);
  const findings = (suspects ?? []).flatMap(({ question, findings: found }) =>
    found.map(
      (each) =>
        `Question ${rows.find((row) => row.question.id === question.id)?.number}: ${looksWrongTitle[each.code]} ${looksWrongWords(each, nameOf)}`,
    ),
  );
  return {
    title: sitting.sitting.title,
    about: `${sitting.groups.map(({ name }) => name).join(', ')} · ${dayAlone(sitting.sitting.opensAt)}`,
    words,
    totals: [
      ['handed in', String(totals.n)],
      ['mean', points(totals.mean)],
      ['median', points(totals.median)],
      ['middle half', `${points(totals.quartiles[0])}–${points(totals.quartiles[1])}`],
      ['lowest', points(totals.lowest)],
      ['highest', points(totals.highest)],
      ['SD', dash(totals.standardDeviation)],
      ['maximum', points(totals.max)],
    ],
    sentences: [
      ...(totals.unfinished > 0
        ? [`Not final: ${counted(totals.unfinished, 'paper')} not fully marked.`]
        : []),
      `${counted(under.length, 'student')} of ${totals.n} below ${percent(line)}.`,
      ...(trust ? trustWords(trust, totals.mean) : []),
      ...(whole ? findings : []),
    ],
    pictures: [
      { caption: 'Totals', svg: spreadSvg(totals.spread, totals.meanShare) },
      {
        caption:
          'Questions: easier to the right, tells strong from weak better towards the top; overlaps are moved apart',
        svg: mapSvg(rows),
      },
    ],
    tables: [...(names ? [studentsTable(under, line)] : []), ...(whole ? questionTables(analysis) : [])],
  };
}

type ReportTable = ReportContent['tables'][number];

const dash = (value: number | null) => (value === null ? '–' : points(value));

const studentsTable = (under: readonly Seat[], line: number): ReportTable => ({
  title: `Below ${percent(line)}`,
  heading: ['Student', 'Points'],
  rows: under.map((seat) => [registerName(seat.student), points(seat.scorecard?.total ?? 0)]),
});

/** The questions with their figures, and what was answered to each. */
function questionTables({ rows, answersOf }: ReportParts['analysis']): ReportTable[] {
  return [
    {
      title: 'Questions',
      heading: ['Question', 'Facility', 'Mean', 'Discrimination', 'Upper − lower', 'Blank'],
      rows: rows.map((row) => [
        `${row.number}  ${plainText(row.question.stem).slice(0, 90)}`,
        row.facility === null ? '–' : percent(row.facility),
        `${dash(row.meanPoints)} / ${points(row.question.points)}`,
        signed(row.discrimination),
        signed(row.d),
        String(row.blank),
      ]),
    },
    {
      title: 'Answers',
      heading: ['Answer', 'Students', 'Weakest third', 'Middle', 'Strongest'],
      rows: rows.flatMap((row) =>
        answersOf(row.question)
          .categories.filter(({ count, offered }) => offered || count > 1)
          .slice(0, 10)
          .map(({ label, count, thirds, share }) => [
            `${row.number}  ${share === 1 ? '✓ ' : ''}${label.slice(0, 90)}`,
            ...[count, ...thirds].map(String),
          ]),
      ),
    },
  ];
}
