import type { FilesResponse, StudentFileQuestion } from '@/core/kinds/file/schema';
import { fetchedSit } from '../fetchedSit';
import type { KindView } from '../KindView';
import { laterShow } from '../laterShow';

export const fileView: KindView<StudentFileQuestion, FilesResponse> = {
  ...fetchedSit(() => import('./Sit')),
  Show: laterShow(() => import('./Show')),
  drawn: true,
};
