import type { ReactNode } from 'react';
import { Rich } from '@/ui/Rich';
import type { StudentPart } from '@/core/formats/packet/paper';
import type { Response, StudentQuestion } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { Answers } from '@/core/model/sitting';
import { counted } from '@/words/format';
import { viewOf } from '.';
import styles from './PaperQuestions.module.css';

interface PaperQuestionsProps {
  questions: StudentQuestion[];
  /** Only these are shown, where not all are; numbers and parts are those of the whole. */
  only?: readonly StudentQuestion[];
  /** Whether an answer can no longer be changed. */
  locked?: (question: StudentQuestion) => boolean;
  parts: StudentPart[];
  responseTo: (questionId: string) => Response | null;
  respond: (questionId: string, response: Response) => void;
  /** What stands under a question. */
  below?: (question: StudentQuestion) => ReactNode;
}

/** The questions of a paper as a student gets them, with the headings of their parts. */
export function PaperQuestions({
  questions,
  only,
  locked,
  parts,
  responseTo,
  respond,
  below,
}: PaperQuestionsProps) {
  const numbers = numbersOf(questions);
  return questions.map((question, index) => {
    const { Sit } = viewOf(question);
    if (only && !only.includes(question)) return null;
    // One by one, each question stands under the heading of its part.
    const begins =
      question.partId !== questions[index - 1]?.partId ||
      (only !== undefined && only.length < questions.length);
    const part = begins ? parts.find((each) => each.id === question.partId) : undefined;
    const number = numbers.get(question.id) ?? '';
    const Heading = question.partId === undefined ? 'h2' : 'h3';
    return (
      <div key={question.id}>
        {part && (
          <header className={styles.part}>
            <h2>{part.title}</h2>
            <div className={styles.soft}>
              <Rich text={part.instructions} />
            </div>
          </header>
        )}
        <section id={`question-${question.id}`} className={styles.question} aria-label={`Question ${number}`}>
          <div id={`stem-${question.id}`}>
            <Heading tabIndex={-1} className={styles.number}>
              <span className="visuallyHidden">Question </span>
              {number}
            </Heading>
            &ensp;
            <Rich text={question.stem} />{' '}
            <span className={styles.soft}>({counted(question.points, 'point')})</span>
          </div>
          <Sit
            question={question}
            response={responseTo(question.id)}
            respond={(response) => respond(question.id, response)}
            labelledBy={`stem-${question.id}`}
            disabled={locked?.(question) ?? false}
          />
          {below?.(question)}
        </section>
      </div>
    );
  });
}

/** The responses of kept answers, by question. */
export const responsesOf = (answers: Answers) => (id: string) => answers[id]?.response ?? null;
