/** What is answered when a student's side asks, wherever that is done: see `ExchangePlace`. */
export { ask, comeAsGuest, greet, home } from './entering';
export { fileFor, handOverFile } from './files';
export { result } from './result';
export { start } from './starting';
export { handIn, handOver, practise } from './working';
