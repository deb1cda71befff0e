import { Button, Modal, NativeSelect, Table } from '@mantine/core';
import { useState } from 'react';
import { act } from '@/desk/act';
import { deleteAnswers, setRetention, type CourseAnswers } from '@/store/retention';
import { isoNow } from '@/ui/clock';
import { counted, dayAlone, dayAndTime } from '@/words/format';
import styles from './BackupPage.module.css';

const choices = [6, 12, 24, 36, 60, 120];

const nameOf = ({ course }: CourseAnswers) => course || 'sittings without a course';

/** Each course with how long its answers are kept, and the way to delete them. */
export function CourseTable({ courses, now }: { courses: readonly CourseAnswers[]; now: number }) {
  const [asking, setAsking] = useState<CourseAnswers | null>(null);
  if (courses.length === 0) return <p>No sittings yet.</p>;
  return (
    <>
      <Table.ScrollContainer minWidth={620} className={styles.wide}>
        <Table verticalSpacing="xs">
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Course</Table.Th>
              <Table.Th scope="col">Answers now</Table.Th>
              <Table.Th scope="col">Last sitting ends</Table.Th>
              <Table.Th scope="col">Keep answers</Table.Th>
              <Table.Th scope="col">Due</Table.Th>
              <Table.Th scope="col" aria-label="Delete" />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {courses.map((course) => (
              <Table.Tr key={course.course}>
                <Table.Th scope="row">{course.course || 'No course'}</Table.Th>
                <Table.Td>
                  {counted(course.attempts, 'attempt')} in {counted(course.sittingIds.length, 'sitting')}
                </Table.Td>
                <Table.Td>{dayAlone(course.closedAt)}</Table.Td>
                <Table.Td>
                  <NativeSelect
                    size="xs"
                    aria-label={`Keep answers of ${nameOf(course)}`}
                    value={course.months ?? ''}
                    onChange={({ currentTarget: { value } }) =>
                      void act(setRetention(course.course, value === '' ? null : Number(value)))
                    }
                    data={[
                      { value: '', label: 'until I delete them' },
                      ...choices.map((months) => ({
                        value: String(months),
                        label: months < 12 ? counted(months, 'month') : counted(months / 12, 'year'),
                      })),
                    ]}
                  />
                </Table.Td>
                <Table.Td>
                  <Due course={course} now={now} />
                </Table.Td>
                <Table.Td>
                  <Button size="xs" disabled={course.attempts === 0} onClick={() => setAsking(course)}>
                    Delete answers…
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {asking && <AskDelete course={asking} now={now} close={() => setAsking(null)} />}
    </>
  );
}

function Due({ course: { dueAt, attempts }, now }: { course: CourseAnswers; now: number }) {
  if (dueAt === null || attempts === 0) return '–';
  return Date.parse(dueAt) <= now ? <strong>since {dayAlone(dueAt)}</strong> : dayAlone(dueAt);
}

interface AskDeleteProps {
  course: CourseAnswers;
  now: number;
  close: () => void;
}

function AskDelete({ course, now, close }: AskDeleteProps) {
  const remove = async () => {
    close();
    await act(deleteAnswers(course.course, course.sittingIds, isoNow()));
  };
  return (
    <Modal
      opened
      onClose={close}
      title={`Delete the answers of ${nameOf(course)}?`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <p className={styles.sure}>
        This deletes {counted(course.attempts, 'attempt')} in {counted(course.sittingIds.length, 'sitting')}{' '}
        with marks, comments, results, exceptions, requests, messages and scanned pages, on this desk and on
        the classroom server. Mark books and figures lose them. Papers, questions and the sittings themselves
        stay.
      </p>
      {Date.parse(course.closedAt) > now && (
        <p className={styles.sure}>
          <strong>
            A sitting is open until {dayAndTime(course.closedAt, now)}. Students at work lose what they have
            written.
          </strong>
        </p>
      )}
      <p className={styles.sure}>
        If you need the points later, export the grades of each sitting first. You can undo this until the
        next backup is made; that one and later ones don’t have the answers, and older automatic backups go.
      </p>
      <div className={styles.row}>
        {/* What can be done without harm has the focus and the strong colour. */}
        <Button variant="filled" data-autofocus onClick={close}>
          Cancel
        </Button>
        <Button onClick={() => void remove()}>Delete {counted(course.attempts, 'attempt')}</Button>
      </div>
    </Modal>
  );
}
