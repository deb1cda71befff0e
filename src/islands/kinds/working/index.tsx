import type { StudentWorking, WorkingResponse } from '@/core/kinds/working/schema';
import { fetchedSit } from '../fetchedSit';
import type { KindView } from '../KindView';
import { laterShow } from '../laterShow';

export const workingView: KindView<StudentWorking, WorkingResponse> = {
  ...fetchedSit(() => import('./Sit')),
  Show: laterShow(() => import('./Show')),
  drawn: true,
};
