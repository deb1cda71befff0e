import { TextInput } from '@mantine/core';
import { RichField } from '@/desk/RichField';
import type { Paper } from '@/core/model/paper';
import type { KeepPaper } from './usePaperDraft';
import styles from './write.module.css';

/** The head of the paper: its title and what students read first. */
export function PaperHead({ paper, keep }: { paper: Paper; keep: KeepPaper }) {
  return (
    <div className={styles.head}>
      <h1 className="visuallyHidden">Write: {paper.title || 'paper without a title'}</h1>
      <TextInput
        id="field-title"
        aria-label="Title"
        placeholder="Title of the paper"
        variant="unstyled"
        classNames={{ input: styles.titleInput ?? '' }}
        value={paper.title}
        onChange={(event) => keep({ ...paper, title: event.currentTarget.value }, 'Title changed', 'title')}
      />
      <RichField
        low
        id="field-instructions"
        label="Instructions"
        placeholder="Instructions students read before they start"
        value={paper.instructions}
        change={(instructions) => keep({ ...paper, instructions }, 'Instructions changed', 'instructions')}
      />
    </div>
  );
}
