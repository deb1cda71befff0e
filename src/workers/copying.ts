/** What a copy is made with: fetched by the worker once there is a place for one. */
export { serverConnection } from '@/sync/serverConnection';
export { deskContent } from '@/store/backup';
export { deletionsWait, finishDeletions } from '@/store/retention';
export { copyIntoFolder, copyOntoServer, deskId } from '@/sync/copies';
export { holdDesk } from '@/sync/takeOver';
