/** What a copy is made with: fetched by the worker once there is a place for one. */
export { deskLine } from '@/sync/deskLine';
export { deskContent } from '@/store/backup';
export { copyIntoFolder, copyOntoServer, deskId } from '@/sync/copies';
