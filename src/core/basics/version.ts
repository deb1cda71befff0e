/** The version of the program, as package.json has it. */
export { version } from '../../../package.json';
