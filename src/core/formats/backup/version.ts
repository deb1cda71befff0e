/** Which version of the format of backups is written. */
export const archiveVersion = 3;
