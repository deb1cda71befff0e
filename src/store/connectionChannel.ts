/** All tabs and workers of the desk hear each other here. */
export const connectionChannel = 'gribbet-connection';
