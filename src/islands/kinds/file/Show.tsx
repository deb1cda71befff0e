import type { FilesResponse, StudentFileQuestion } from '@/core/kinds/file/schema';
import type { ShowProps } from '../KindView';
import { FileLine } from './FileLine';
import styles from './file.module.css';

export default function Show({
  response,
  small = false,
  work,
}: ShowProps<StudentFileQuestion, FilesResponse>) {
  const files = response?.files ?? [];
  if (files.length === 0) return <p className={styles.blank}>no file</p>;
  return (
    <ul className={styles.files}>
      {files.map((file) => (
        <li key={file.id}>
          <FileLine file={file} small={small} work={work} />
        </li>
      ))}
    </ul>
  );
}
